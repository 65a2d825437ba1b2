// Whose pace a figure goes by, in words.
import type { PaceUsed } from '@/api/types'

import { hundredth } from './format'
import { PACES as say } from './texts/foreseen'

/** Whose pace it is, and how it is known; `own`: said of one person, beside what is foreseen of them. */
export function paceText(pace: PaceUsed, own: boolean): string {
  if (pace.source === 'learned') return say.learned(hundredth(pace.factor), pace.scores)
  if (pace.source === 'set') return say.set(hundredth(pace.factor))
  return own ? say.squad : say.anyone
}
