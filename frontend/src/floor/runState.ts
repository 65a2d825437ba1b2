import type { Beat } from '@/api/types'
import type { QueuedBeat } from '@/timer/beats'
import type { BeatQueue } from '@/timer/queue'
import type { Mode, Timer } from '@/timer/timer'
import { clock } from '@/words/format'

/** Where a run stands at a moment: what runs or is to come, and its seconds. */
export interface RunState {
  mode: Mode
  t: number
  /** The running beat; while waiting the one to come. */
  item: QueuedBeat | null
  beat: Beat | null
  /** Where it stands in the queue. */
  place: number
  /** What comes after it. */
  following: Beat | null
  /** The beats of the pass of the work that is shown: the running one, else what comes after it. */
  pass: readonly Beat[]
  /** Which round of how many it is of; null where rounds are not counted so. */
  round: { round: number; of: number } | null
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
    place: queue.place,
    ...standsIn(queue),
    following: (queue.items[queue.place + 1]?.beat as Beat | undefined) ?? null,
    ranS: timer.ranS(t),
    leftS: timer.leftS(t),
    played: played.length,
    laps: timer.laps.get(played.length) ?? [],
  }
}

type StandsIn = Pick<RunState, 'pass' | 'round'>
const stood = new WeakMap<readonly QueuedBeat[], StandsIn & { place: number }>()

/** Found once for each place of a queue: a state is asked for twenty times a second. */
function standsIn({ items, place, here }: BeatQueue): StandsIn {
  const known = stood.get(items)
  if (known?.place === place) return known
  const shown = here?.beat.kind === 'work' ? here : items[place + 1]
  const pass = items.filter((one) => one.run === shown?.run).map((one) => one.beat as Beat)
  const found = { pass, round: roundOf(items, here), place }
  stood.set(items, found)
  return found
}

/** Counted in the queue, so that what was added, or laid out anew, is among them. */
function roundOf(items: readonly QueuedBeat[], item: QueuedBeat | null): { round: number; of: number } | null {
  if (!item || item.set === null) return null
  const sets = new Set<number>()
  for (const one of items) if (one.run === item.run && one.set !== null) sets.add(one.set)
  return sets.size < 2 ? null : { round: [...sets].indexOf(item.set) + 1, of: sets.size }
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
  const { mode, item, following, played, laps, round, t } = state
  const place = item ? [item.sheet, item.number, item.run, following?.passage] : []
  return [mode, ...place, round?.of, played, laps.length, Math.floor(t), shownTime(state)].join('/')
}
