// What is said of saving a session, and of what would be lost.
import type { ProblemItem } from '@/api/types'
import type { SaveState } from '@/composables/useAutosave'

import { placeText } from './refusal'
import { LOST, SAVING } from './texts/refusals'

/** How saving stands, in words. */
export const savedText = (state: SaveState): string => SAVING[state === 'signed-out' ? 'signedOut' : state]

/** What would be lost by leaving while saving stands so, and why. */
export function lostText(state: SaveState, refused: readonly ProblemItem[]): string {
  if (state === 'full') return LOST.full
  const [place] = refused
  return place ? SAVING.notSaved(placeText(place)) : LOST.other
}
