// The blocks of a run as they now stand: a change may have put one in or taken one out, and numbers go by the newest.
import type { Sheet } from '@/api/types'
import type { LaidBlock, TimerBeat } from '@/timer/beats'
import type { BeatQueue } from '@/timer/queue'

export interface BlocksNow {
  blocks: readonly LaidBlock[]
  /** Passes by name, in order, each with the number of its block. */
  passes: readonly (readonly [passage: string, block: number])[]
  /** The number of a beat's block; null where it was taken out. */
  numberOf: (beat: TimerBeat) => number | null
}

export function blocksOfSheet(sheet: Pick<Sheet, 'beats' | 'blocks'>): BlocksNow {
  const passes = [...new Map(sheet.beats.map((beat) => [beat.passage, beat.block] as const))]
  return { blocks: sheet.blocks, passes, numberOf: (beat) => beat.block }
}

export function blocksNow(sheet: Pick<Sheet, 'beats' | 'blocks'>, queue: BeatQueue): BlocksNow {
  const laid = queue.laidOut
  if (!laid?.numbers) return blocksOfSheet(sheet)
  const passes = laid.order.map((passage, place) => [passage, laid.numbers?.[place] ?? 0] as const)
  const numbers = new Map(passes)
  return { blocks: queue.blocks ?? sheet.blocks, passes, numberOf: (beat) => numbers.get(beat.passage) ?? null }
}
