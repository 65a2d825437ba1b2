// What a refusal says to the reader.
import { OWN_KINDS, Refusal } from '@/api/refusal'
import type { ProblemItem } from '@/api/types'

/** What is said of refusals that have no sentence of the server's. */
const SAID: Record<string, string> = {
  [OWN_KINDS.unreachable]: 'The server cannot be reached.',
  [OWN_KINDS.unreadable]: 'The server gave no readable answer.',
  [OWN_KINDS.brokenOff]: 'It was broken off before there was an answer. Ask again.',
}

/** A wrong place, with what was found there and what can stand there. */
export const placeText = (one: ProblemItem): string => `${one.path}: found ${one.found}; allowed: ${one.allowed}`

/** The sentence of a refusal as a whole. */
export const sentenceOf = (refusal: Refusal): string =>
  refusal.detail || (SAID[refusal.kind] ?? SAID[OWN_KINDS.unreadable] ?? '')

/** The first place that is wrong, with what was found there and what can stand there; else the sentence. */
export function refusalText(refusal: Refusal): string {
  const [first] = refusal.problems
  // Why a thing cannot be done is a sentence of its own, no value that could stand in a place.
  if (first?.code.startsWith('cannot_')) return first.allowed
  return first ? placeText(first) : sentenceOf(refusal)
}
