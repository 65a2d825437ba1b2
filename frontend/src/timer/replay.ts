import type { Hold, Layout, TimerBeat } from './beats'
import type { RunEvent } from './events'
import { Timer } from './timer'

export interface RunInput {
  beats: readonly TimerBeat[]
  events: readonly RunEvent[]
  hold?: Hold
  until?: number
  /** The new layout that a score or change makes, given the events before it; null where nothing follows from it. */
  layoutOf?: (event: RunEvent, timer: Timer) => Layout | null
}

/** Events in the order in which they count: of time, and as given at the same time; those after `until` do not. */
export function inOrder(events: readonly RunEvent[], until?: number): RunEvent[] {
  const sorted = [...events].sort((a, b) => a.t - b.t)
  return until === undefined ? sorted : sorted.filter((event) => event.t <= until)
}

/** Play a run's events up to `until` (the last event's time if not said). */
export function replay({ beats, events, hold = 'entries', until, layoutOf }: RunInput): Timer {
  const sorted = inOrder(events, until)
  const takenBack = new Set<number>()
  for (;;) {
    const timer = through(sorted, takenBack, new Timer(beats, hold), layoutOf)
    if (!timer) continue
    timer.advance(until ?? sorted.at(-1)?.t ?? 0)
    return timer
  }
}

/** Play what is not taken back; null once an undo has taken something back, and all is to be played anew. */
function through(
  events: readonly RunEvent[],
  takenBack: Set<number>,
  timer: Timer,
  layoutOf: RunInput['layoutOf'],
): Timer | null {
  const did: number[] = []
  for (const [index, event] of events.entries()) {
    if (takenBack.has(index)) continue
    timer.advance(event.t)
    if (event.do === 'undo') {
      takenBack.add(index)
      const last = did.at(-1)
      if (last === undefined) continue
      takenBack.add(last)
      return null
    }
    const layout = event.do === 'score' || event.do === 'change' ? layoutOf?.(event, timer) : null
    if (layout) timer.queue.layOut(layout, timer.mode === 'playing' || timer.mode === 'paused')
    if (timer.apply(event)) did.push(index)
  }
  return timer
}
