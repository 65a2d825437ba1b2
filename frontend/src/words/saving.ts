// What is said of saving a session, and of what would be lost.
import type { ProblemItem } from '@/api/types'
import type { SaveState } from '@/composables/useAutosave'

import { placeText } from './refusal'

export const SAVED: Record<SaveState, string> = {
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving …',
  refused: 'Not saved: see the marked place',
  conflict: 'Saved beside the other version',
  unreachable: 'Server out of reach, trying again',
  full: 'Not saved: the server has no room left, trying again',
  'signed-out': 'Not saved: sign in again in another tab',
}

export const LOST = {
  board: 'The board text has something that cannot be read, so it is not part of the session.',
  full: 'What was changed last could not be saved: the server has no room left.',
  other: 'What was changed last could not be saved.',
} as const

/** What would be lost by leaving while saving stands so, and why. */
export function lostText(state: SaveState, refused: readonly ProblemItem[]): string {
  if (state === 'full') return LOST.full
  const [place] = refused
  return place ? `Not saved: ${placeText(place)}.` : LOST.other
}
