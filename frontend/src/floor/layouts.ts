import type { Layout } from '@/timer/beats'
import type { RunEvent } from '@/timer/events'
import type { Timer } from '@/timer/timer'

import type { KeptRun } from './kept'

/**
 * What a score or a change lays out anew: as the server said, or, while it has not, as the sheet's variants have it.
 * A change needs the server.
 */
export function layoutFor(run: KeptRun, event: RunEvent, known: string, timer: Timer): Layout | null {
  const told = run.layouts[known]
  if (told) return told
  // Variants are of the sheet that all do together; one person's score changes nothing for the others.
  if (event.do !== 'score' || event.person !== undefined || run.apart || wasSkipped(run, event, timer)) return null
  const variant = run.with?.variants.find(
    (one) => one.block === event.block && (event as Record<string, unknown>)[one.take] === one.value,
  )
  return (variant?.layout as unknown as Layout | undefined) ?? null
}

/** Whether the window that a score is of left the queue without being played: nothing follows from it then. */
function wasSkipped(run: KeptRun, score: RunEvent & { do: 'score' }, timer: Timer): boolean {
  const { beats } = run.sheet
  const runs = [...new Set(beats.filter((beat) => beat.block === score.block).map((beat) => beat.run))]
  const pass = runs[score.pass ?? 0]
  const windows = beats.flatMap((beat, number) =>
    beat.run === pass && beat.self_paced && beat.set === null ? [number] : [],
  )
  const number = windows[score.index ?? 0]
  if (number === undefined) return false
  const passage = beats[number]?.passage
  return !timer.queue.items.some((item) =>
    item.sheet === 0 ? item.number === number : item.beat.passage === passage && item.beat.self_paced,
  )
}
