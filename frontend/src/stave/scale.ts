// Seconds to pixels, and where the ticks of the time axis stand. Geometry only.
import { range } from 'd3-array'
import { scaleLinear, scaleQuantize } from 'd3-scale'

export interface Scale {
  x: (seconds: number) => number
  width: (seconds: number) => number
}

export const ROW = 16
export const TOP = 26
export const LEFT = 78

/** Room for the rows' sums and their bars; a phone has room for the sums alone. */
export const sumRoom = (pixels: number): number => (pixels < 600 ? 52 : 160)

/** `from` is the moment at the left edge, `spanS` the seconds that are shown. */
export function timeScale(spanS: number, pixels: number, from = 0): Scale {
  const room = Math.max(60, pixels - LEFT - sumRoom(pixels))
  const across = scaleLinear([from, from + Math.max(spanS, Number.EPSILON)], [LEFT, LEFT + (spanS > 0 ? room : 0)])
  const perSecond = spanS > 0 ? room / spanS : 0
  return { x: (seconds) => across(seconds), width: (seconds) => Math.max(0.8, seconds * perSecond - 0.7) }
}

const INKS = [0, 1, 2, 3, 4] as const
/** The step of the ink ramp for an effort from 0 to 10. */
export const inkLevel = scaleQuantize<(typeof INKS)[number]>([0, 10], INKS)

/** Steps of a clock that are read at a glance, in seconds. */
export const CLOCK_STEPS = [5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600]
const LONGEST_STEP = 7200
/** The least of these steps of which there are no more than `most` in a span. */
export const clockStep = (spanS: number, most: number): number =>
  CLOCK_STEPS.find((step) => spanS / step <= most) ?? LONGEST_STEP

/** Even times in sight, not nearer than their labels need; at most about nine. */
export function ticks(spanS: number, pixels: number, from = 0): number[] {
  const step = clockStep(spanS, Math.max(2, Math.min(9, Math.floor(pixels / 48))))
  return range(Math.ceil((from - 0.01) / step), Math.floor((from + spanS + 0.01) / step) + 1).map((n) => n * step)
}

/** Shorten a label to the room there is; about 6 pixels a letter in the narrow heading face. */
export function fitted(label: string, pixels: number): string {
  const letters = Math.floor(pixels / 6)
  if (label.length <= letters) return label
  return letters < 3 ? '' : `${label.slice(0, letters - 1).trimEnd()}…`
}
