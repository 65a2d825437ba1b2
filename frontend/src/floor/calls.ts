// What is called in a beat and when: tones at their moments, words before or after them.
import type { Beat } from '@/api/types'
import type { Timer } from '@/timer/timer'
import { CALLS as say } from '@/words/texts/floor'

import type { DueTone } from './tones'

export type MarkKind = Beat['marks'][number]['kind']
/** All that may be called: the marks of beats, what comes next, and the quiet call while time waits. */
export const CALL_KINDS = [
  'count-in', 'half', 'ten-left', 'last-five', 'switch', 'work-until', 'pulse-rest', 'pulse-work', 'minute',
  'last-round', 'own', 'next', 'waiting',
] as const satisfies readonly (MarkKind | 'next' | 'waiting')[] // prettier-ignore
export type CallKind = (typeof CALL_KINDS)[number]

/** How calls go together with what else sounds: as usual, with music going on, or over a phone that is silent. */
export type SoundWay = 'usual' | 'music' | 'silent'

/** Which calls are wanted; each can be switched off. */
export interface CallsWanted {
  tones: boolean
  voice: boolean
  vibration: boolean
  way: SoundWay
  off: CallKind[]
}

export const ALL_CALLS: CallsWanted = { tones: true, voice: true, vibration: true, way: 'usual', off: [] }

/** Words that are due in so many seconds. */
export interface DueWords {
  inS: number
  words: string
}

const SAID_AFTER_S = 0.7
const QUIET_EVERY_S = 20
const QUIET_FOR_S = 1_200

/** The tones of the running beat from `t` on: its marks, and the change at its end. */
export function tonesDue(timer: Timer, beat: Beat, t: number, wanted: CallsWanted): DueTone[] {
  const tones: DueTone[] = []
  const ran = timer.ranS(t)
  const left = timer.leftS(t)
  for (const mark of beat.marks) {
    if (wanted.off.includes(mark.kind)) continue
    const inS = mark.at_s - ran
    if (mark.kind === 'count-in') {
      // Counted from the end, so that it holds when the rest is longer or shorter than planned.
      if (left !== null) tones.push({ shape: 'count-in', inS: left - 3 })
    } else if (inS >= 0 && mark.kind !== 'last-round') tones.push({ shape: 'mark', inS })
  }
  if (left !== null && left >= 0) tones.push({ shape: 'change', inS: left })
  return tones
}

/** While time waits for the coach: a quiet call every twenty seconds. */
export function waitingTones(wanted: CallsWanted): DueTone[] {
  if (wanted.off.includes('waiting')) return []
  return Array.from({ length: QUIET_FOR_S / QUIET_EVERY_S }, (_, n) => ({
    shape: 'waiting' as const,
    inS: (n + 1) * QUIET_EVERY_S,
  }))
}

/** The words of the running beat from `t` on. The next movement is told early, while people can still look. */
export function wordsDue(timer: Timer, beat: Beat, t: number, wanted: CallsWanted, whose = ''): DueWords[] {
  const ran = timer.ranS(t)
  const found: DueWords[] = []
  if (beat.next && beat.kind !== 'work' && !wanted.off.includes('next'))
    found.push({ inS: SAID_AFTER_S - ran, words: say.next(beat.next) })
  for (const mark of beat.marks) {
    const words = wanted.off.includes(mark.kind) ? '' : spoken(mark.kind, mark.say)
    if (words) found.push({ inS: mark.at_s + SAID_AFTER_S - ran, words })
  }
  return found
    .filter((one) => one.inS >= 0)
    .map((one) => ({ ...one, words: whose ? say.of(whose, one.words) : one.words }))
}

/** What a mark says; '' for those that only sound. */
export function spoken(kind: MarkKind, own: string): string {
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
