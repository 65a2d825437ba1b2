// What the board's editor offers where the cursor is. The phrases are the core's (GET /api/tables).
import type { CompletionContext, CompletionResult } from '@codemirror/autocomplete'

import type { MovementDef, Tables } from '@/api/types'

const LONGEST_HEAD = 12

/** Heads at the margin, phrases in a head, movements and qualities in a step. */
export function completer(phrases: () => Tables['phrases'], movements: () => readonly MovementDef[]) {
  const keywords = (labels: readonly string[]) => labels.map((label) => ({ label, type: 'keyword' }))
  return (context: CompletionContext): CompletionResult | null => {
    const line = context.state.doc.lineAt(context.pos)
    const before = line.text.slice(0, context.pos - line.from)
    const word = /[\p{L}][\p{L}\p{N}\- ]*$/u.exec(before)
    if (!word && !context.explicit) return null
    const from = line.from + (word ? word.index : before.length)
    if (/^\S[^:]*$/.test(before)) {
      return before.length > LONGEST_HEAD ? null : { from: line.from, options: keywords(phrases().heads) }
    }
    if (/^\S/.test(before)) return { from, options: keywords(phrases().phrases) }
    const named = movements().map((m) => ({ label: m.name ?? m.key, detail: Object.keys(m.patterns ?? {})[0] }))
    return { from, options: [...named, ...keywords(phrases().qualities)] }
  }
}
