// Seconds to pixels, and where the ticks of the time axis stand. Geometry only.
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
  const perSecond = spanS > 0 ? room / spanS : 0
  return {
    x: (seconds) => LEFT + (seconds - from) * perSecond,
    width: (seconds) => Math.max(0.8, seconds * perSecond - 0.7),
  }
}

/** The step of the ink ramp for an effort from 0 to 10. */
export const inkLevel = (effort: number): number => Math.min(4, Math.max(0, Math.floor(effort / 2)))

const STEPS = [5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600]

/** Even times in sight, not nearer than their labels need; at most about nine. */
export function ticks(spanS: number, pixels: number, from = 0): number[] {
  const most = Math.max(2, Math.min(9, Math.floor(pixels / 48)))
  const step = STEPS.find((candidate) => spanS / candidate <= most) ?? 7200
  const first = Math.ceil((from - 0.01) / step)
  const count = Math.floor((from + spanS + 0.01) / step) - first
  return Array.from({ length: count + 1 }, (_, index) => (first + index) * step)
}

/** Shorten a label to the room there is; about 6 pixels a letter in the narrow heading face. */
export function fitted(label: string, pixels: number): string {
  const letters = Math.floor(pixels / 6)
  if (label.length <= letters) return label
  return letters < 3 ? '' : `${label.slice(0, letters - 1).trimEnd()}…`
}
