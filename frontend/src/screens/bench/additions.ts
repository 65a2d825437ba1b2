import type { SessionDoc } from '@/api/types'
import type { Edit } from '@/composables/edits'

import { placed } from './bench'

/**
 * Where new entries go: after the block of that path (none: first), as which part, after which rest in seconds. `beside`:
 * after the section that the block stands in; what is not asked for in a section is not repeated with it.
 */
export interface Place {
  after: string | undefined
  beside?: boolean
  part: string
  rest_s: number
}

/**
 * The edits that put new entries into a session: after a block, in its section where they can stand there; those of the
 * cool-down at the end. What is before them gets the rest, if it has none of its own: the block, or its section.
 */
export function additions(document: SessionDoc, entries: readonly object[], place: Place): Edit[] {
  const { after, part, rest_s } = place
  const blocks = placed(document)
  const last = part === 'cool-down'
  const before = last ? blocks.at(-1) : blocks.find((one) => one.path === after)
  const beside = last || place.beside || entries.some((entry) => 'section' in entry)
  const inserted = entries.map((entry, at): Edit => {
    const value = part === 'main' || 'section' in entry ? entry : { ...entry, part }
    if (!before || last) return { op: 'insert', path: ['blocks'], index: document.blocks.length + at, value }
    return beside
      ? { op: 'insert', path: ['blocks'], index: before.top + 1 + at, value }
      : { op: 'insert', path: before.list, index: before.index + 1 + at, value }
  })
  if (!before) return inserted
  // The rest of a section's last block is none: what follows is after the section's own.
  const around = document.blocks[before.top]
  const leaves = beside && around !== undefined && 'section' in around
  if (((leaves ? around : before.block).rest_after_s ?? null) !== null) return inserted
  const path = [...(leaves ? before.sectionEditPath : before.editPath), 'rest_after_s']
  return [{ op: 'set', path, value: rest_s }, ...inserted]
}
