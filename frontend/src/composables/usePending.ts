// Edits that one screen hands to the Bench: made there as one step, so that they can be undone there.
import type { Edit } from '@/composables/edits'

const waiting = new Map<string, Edit[]>()

export const handOver = (session: string, edits: Edit[]): void => {
  waiting.set(session, edits)
}

/** Words that another screen hands to a new session: read on its board. */
let words = ''
export const handWords = (text: string): void => {
  words = text
}
/** The words waiting for a new session, taken once. */
export function takeWords(): string {
  const taken = words
  words = ''
  return taken
}

/** The edits waiting for a session, taken once. */
export function takeOver(session: string): Edit[] {
  const edits = waiting.get(session) ?? []
  waiting.delete(session)
  return edits
}
