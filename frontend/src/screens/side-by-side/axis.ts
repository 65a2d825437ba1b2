// An axis with round numbers on it.
import { extent, range } from 'd3-array'
import { scaleLinear, type ScaleLinear } from 'd3-scale'

import { clockStep } from '@/stave/scale'
import { eachOf } from '@/words/units'

/** The least that a number of a unit is told in: steps of less would write the same number twice. */
const TOLD_IN: Record<string, number> = { share: 0.01, split: 0.01, effort: 0.1, 'per-min': 0.1, ratio: 0.1 }
const STEPS = 5

/** Holds all values that have an end, from one edge to the other; with the numbers that stand on it. */
export function axisOf(
  all: readonly number[],
  unit: string,
  from: number,
  to: number,
): { scale: ScaleLinear<number, number>; ticks: number[] } {
  // Round numbers are round in what is read.
  const by = unit === 'kg' ? eachOf('kg') : 1
  const values = all.filter(Number.isFinite).map((one) => one / by)
  const [low = 0, high = 1] = extent(values)
  if (unit === 's') {
    const step = clockStep(high - low, STEPS)
    const first = Math.floor(low / step)
    const last = Math.max(Math.ceil(high / step), first + 1)
    return {
      scale: scaleLinear([first * step, last * step], [from, to]),
      ticks: range(first, last + 1).map((n) => n * step),
    }
  }
  const told = TOLD_IN[unit] ?? 1
  const least = STEPS * told
  const air = Math.max((high - low) * 0.04, (least - (high - low)) / 2)
  const scale = scaleLinear([low - air, high + air], [from, to]).nice(STEPS)
  // A share is of something whole, and a count begins at nothing.
  const [begins = 0, ends = 1] = scale.domain()
  scale.domain([Math.max(0, begins), unit === 'share' || unit === 'split' ? Math.min(1, ends) : ends])
  const ticks = scale.ticks(STEPS).filter((one) => Math.abs(one / told - Math.round(one / told)) < 1e-6)
  scale.domain(scale.domain().map((one) => one * by))
  return { scale, ticks: ticks.map((one) => one * by) }
}
