// What a refusal says to the reader.
import { OWN_KINDS, Refusal } from '@/api/refusal'
import type { ProblemItem } from '@/api/types'

import { REFUSED } from './texts/refusals'

/** What is said of refusals that have no sentence of the server's. */
const SAID: Record<string, 'unreachable' | 'unreadable' | 'brokenOff'> = {
  [OWN_KINDS.unreachable]: 'unreachable',
  [OWN_KINDS.unreadable]: 'unreadable',
  [OWN_KINDS.brokenOff]: 'brokenOff',
}

/** A wrong place, with what was found there and what can stand there. */
export const placeText = (one: ProblemItem): string => REFUSED.place(one.path, one.found, one.allowed)

/** The sentence of a refusal as a whole. */
export const sentenceOf = (refusal: Refusal): string => refusal.detail || REFUSED[SAID[refusal.kind] ?? 'unreadable']

/** The first place that is wrong, with what was found there and what can stand there; else the sentence. */
export function refusalText(refusal: Refusal): string {
  const [first] = refusal.problems
  // Why a thing cannot be done is a sentence of its own, no value that could stand in a place.
  if (first?.code.startsWith('cannot_')) return first.allowed
  return first ? placeText(first) : sentenceOf(refusal)
}
