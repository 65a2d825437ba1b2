import type { Beat } from '@/api/types'
import type { QueuedBeat } from '@/timer/beats'
import type { Mode, Timer } from '@/timer/timer'
import { clock } from '@/words/format'

/** Where a run stands at a moment: what runs or is to come, and its seconds. */
export interface RunState {
  mode: Mode
  t: number
  /** The running beat; while waiting the one to come. */
  item: QueuedBeat | null
  beat: Beat | null
  /** What comes after it. */
  following: Beat | null
  ranS: number
  leftS: number | null
  played: number
  laps: readonly number[]
}

/** Where a timer stands at `t`, once time has run on to it. The beats of a sheet are whole: they say what to do, too. */
export function stateAt(timer: Timer, t: number): RunState {
  timer.advance(t)
  const { queue, played } = timer
  const item = queue.here
  return {
    mode: timer.mode,
    t,
    item,
    beat: (item?.beat as Beat | undefined) ?? null,
    following: (queue.items[queue.place + 1]?.beat as Beat | undefined) ?? null,
    ranS: timer.ranS(t),
    leftS: timer.leftS(t),
    played: played.length,
    laps: timer.laps.get(played.length) ?? [],
  }
}

/** Whether nothing runs yet, or time waits for the coach. */
export const waitsNow = (state: RunState): boolean => state.mode === 'waiting' || state.mode === 'before'

/** The time to show: counted down where a clock ends it (the last second is seen whole), up where only a tap does. */
export function shownTime(state: RunState): string {
  const { leftS, ranS, beat } = state
  if (waitsNow(state)) return clock(beat?.s ?? 0)
  return leftS === null ? clock(Math.floor(ranS)) : clock(Math.ceil(Math.max(0, leftS) - 1e-6))
}

/** All of a state that shows: two that look alike need not be drawn twice. */
export function looksOf(state: RunState): string {
  const { mode, item, following, played, laps, t } = state
  const place = item ? [item.sheet, item.number, item.run, following?.passage] : []
  return [mode, ...place, played, laps.length, Math.floor(t), shownTime(state)].join('/')
}
