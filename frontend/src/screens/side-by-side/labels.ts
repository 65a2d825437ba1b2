// Labels beside marks of a picture, so that none lies on another, on a mark, or outside.

export interface Box {
  left: number
  top: number
  width: number
  height: number
}

export interface Mark {
  x: number
  y: number
  /** How far it reaches from its middle. */
  reach: number
  width: number
}

export interface Placed {
  /** Where the text begins, at its middle height. */
  x: number
  y: number
  /** Whether it stands so far off that a line should lead to it. */
  far: boolean
}

export const HIGH = 14
const GAP = 4

const overlap = (one: Box, other: Box): number =>
  Math.max(0, Math.min(one.left + one.width, other.left + other.width) - Math.max(one.left, other.left)) *
  Math.max(0, Math.min(one.top + one.height, other.top + other.height) - Math.max(one.top, other.top))

/** Places to try, the nearest first: right, left, above, below, and then further up and down. */
function* places(mark: Mark): Generator<Placed> {
  const right = mark.x + mark.reach + GAP
  const left = mark.x - mark.reach - GAP - mark.width
  const middle = mark.x - mark.width / 2
  yield { x: right, y: mark.y, far: false }
  yield { x: left, y: mark.y, far: false }
  yield { x: middle, y: mark.y - mark.reach - HIGH / 2 - 1, far: false }
  yield { x: middle, y: mark.y + mark.reach + HIGH / 2 + 1, far: false }
  for (let step = 1; step <= 12; step += 1) {
    for (const down of [step, -step]) {
      for (const x of [right + 8, left - 8, middle]) yield { x, y: mark.y + down * (HIGH + 1), far: true }
    }
  }
}

/** A place for each label, in the order of the marks; where there is none free, the one that covers least. */
export function placeLabels(marks: readonly Mark[], room: Box): Placed[] {
  const boxes: Box[] = marks.map((one) => ({
    left: one.x - one.reach,
    top: one.y - one.reach,
    width: 2 * one.reach,
    height: 2 * one.reach,
  }))
  return marks.map((mark) => {
    let best: Placed | null = null
    let least = Infinity
    for (const place of places(mark)) {
      const box = { left: place.x, top: place.y - HIGH / 2, width: mark.width, height: HIGH }
      const inside =
        box.left >= room.left &&
        box.left + box.width <= room.left + room.width &&
        box.top >= room.top &&
        box.top + box.height <= room.top + room.height
      const covered = boxes.reduce((sum, one) => sum + overlap(box, one), 0) + (inside ? 0 : 1e6)
      if (covered < least) {
        best = place
        least = covered
      }
      if (least === 0) break
    }
    const chosen = best ?? { x: mark.x, y: mark.y, far: false }
    boxes.push({ left: chosen.x, top: chosen.y - HIGH / 2, width: mark.width, height: HIGH })
    return chosen
  })
}
