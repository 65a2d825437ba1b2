// What is called in a beat and when: tones at their moments, words before or after them.
import type { Beat } from '@/api/types'
import type { Timer } from '@/timer/timer'
import { CALLS as say } from '@/words/texts/floor'

import type { DueTone } from './tones'

/** Which calls are wanted; each can be switched off. */
export interface CallsWanted {
  tones: boolean
  voice: boolean
  marks: boolean
}

/** Words that are due in so many seconds. */
export interface DueWords {
  inS: number
  words: string
}

const SAID_AFTER_S = 0.7

/** The tones of the running beat from `t` on: its marks, and the change at its end. */
export function tonesDue(timer: Timer, beat: Beat, t: number, wanted: CallsWanted): DueTone[] {
  const tones: DueTone[] = []
  const ran = timer.ranS(t)
  const left = timer.leftS(t)
  for (const mark of beat.marks) {
    const inS = mark.at_s - ran
    if (mark.kind === 'count-in') {
      // Counted from the end, so that it holds when the rest is longer or shorter than planned.
      if (left !== null) tones.push({ shape: 'count-in', inS: left - 3 })
    } else if (wanted.marks && inS >= 0 && mark.kind !== 'last-round') tones.push({ shape: 'mark', inS })
  }
  if (left !== null && left >= 0) tones.push({ shape: 'change', inS: left })
  return tones
}

/** The words of the running beat from `t` on. The next movement is told early, while people can still look. */
export function wordsDue(timer: Timer, beat: Beat, t: number): DueWords[] {
  const ran = timer.ranS(t)
  const found: DueWords[] = []
  if (beat.next && beat.kind !== 'work') found.push({ inS: SAID_AFTER_S - ran, words: say.next(beat.next) })
  for (const mark of beat.marks) {
    const words = spoken(mark.kind, mark.say)
    if (words) found.push({ inS: mark.at_s + SAID_AFTER_S - ran, words })
  }
  return found.filter((one) => one.inS >= 0)
}

/** What a mark says; '' for those that only sound. */
export function spoken(kind: Beat['marks'][number]['kind'], own: string): string {
  switch (kind) {
    case 'half':
      return say.half
    case 'ten-left':
      return say.tenLeft
    case 'switch':
      return say.switchSides
    case 'work-until':
      return say.restNow
    case 'pulse-rest':
      return say.allRest
    case 'pulse-work':
      return say.goOn
    case 'minute':
      return own
    case 'last-round':
      return say.lastRound
    case 'own':
      return own
    default:
      return ''
  }
}
