import type { Timer } from './timer'

/** A run as the core publishes it (`PublishedPlayed`). */
export interface PlayedSums {
  over: boolean
  now: object | null
  played: object[]
  skipped: number[] | null
  laps: Record<string, number[]>
  work_s: number
  rest_s: number
  talk_s: number
  paused_s: number
  waited_s: number
}

const rounded = (value: number): number => Math.round(value * 1000) / 1000
const roundedOr = (value: number | null): number | null => (value === null ? null : rounded(value))

/** Where a run stands at `t`. */
export function publishedPlayed(timer: Timer, t: number): PlayedSums {
  const { here } = timer.queue
  const live = timer.mode !== 'before' && timer.mode !== 'over' && here !== null
  const waiting = timer.mode === 'waiting'
  const sums = { work: 0, rest: 0, talk: 0 }
  for (const one of timer.played) sums[one.item.beat.kind] += one.end - one.start - one.paused_s
  return {
    over: timer.mode === 'over',
    now: live
      ? {
          mode: timer.mode,
          beat: waiting ? null : here.number,
          ran_s: waiting ? null : rounded(timer.ranS(t)),
          left_s: waiting ? null : roundedOr(timer.leftS(t)),
          ...(waiting ? { next: here.number } : {}),
          ...(here.sheet ? { sheet: here.sheet } : {}),
        }
      : null,
    played: timer.played.map((one) => ({
      beat: one.item.number,
      start: rounded(one.start),
      end: rounded(one.end),
      paused_s: rounded(one.paused_s),
      how: one.how,
      added: one.added,
      ...(one.item.sheet ? { sheet: one.item.sheet } : {}),
    })),
    skipped: timer.mode === 'over' ? timer.skipped : null,
    laps: Object.fromEntries([...timer.laps].map(([index, laps]) => [String(index), laps.map(rounded)])),
    work_s: rounded(sums.work),
    rest_s: rounded(sums.rest),
    talk_s: rounded(sums.talk),
    paused_s: rounded(timer.pausedBy(t)),
    waited_s: rounded(timer.waitedBy(t)),
  }
}
