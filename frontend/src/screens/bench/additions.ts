import type { SessionDoc } from '@/api/types'
import type { Edit } from '@/composables/edits'

import { placed } from './bench'

/** Where new entries go: after the block of that path (none: first), as which part, after which rest in seconds. */
export interface Place {
  after: string | undefined
  part: string
  rest_s: number
}

/**
 * The edits that put new entries into a session: after a block, in its section where they can stand there; those of the
 * cool-down at the end. The block before them gets the rest, if it has none of its own.
 */
export function additions(document: SessionDoc, entries: readonly object[], { after, part, rest_s }: Place): Edit[] {
  const blocks = placed(document)
  const last = part === 'cool-down'
  const before = last ? blocks.at(-1) : blocks.find((one) => one.path === after)
  const inserted = entries.map((entry, at): Edit => {
    const value = part === 'main' || 'section' in entry ? entry : { ...entry, part }
    if (!before || last) return { op: 'insert', path: ['blocks'], index: document.blocks.length + at, value }
    return 'section' in entry
      ? { op: 'insert', path: ['blocks'], index: before.top + 1 + at, value }
      : { op: 'insert', path: before.list, index: before.index + 1 + at, value }
  })
  if (!before || (before.block.rest_after_s ?? null) !== null) return inserted
  return [{ op: 'set', path: [...before.editPath, 'rest_after_s'], value: rest_s }, ...inserted]
}
