import { expect, test } from 'vitest'

import { HIGH, placeLabels, type Box, type Mark } from './labels'

const ROOM: Box = { left: 0, top: 0, width: 640, height: 320 }
const boxOf = (place: { x: number; y: number }, mark: Mark): Box => ({
  left: place.x,
  top: place.y - HIGH / 2,
  width: mark.width,
  height: HIGH,
})
const meet = (one: Box, other: Box): boolean =>
  one.left < other.left + other.width &&
  other.left < one.left + one.width &&
  one.top < other.top + other.height &&
  other.top < one.top + one.height

test('a mark alone has its label to the right; at the right edge to the left', () => {
  const [alone, edge] = placeLabels(
    [
      { x: 100, y: 100, reach: 5, width: 80 },
      { x: 620, y: 200, reach: 5, width: 80 },
    ],
    ROOM,
  )
  expect(alone?.x).toBeGreaterThan(105)
  expect(alone?.far).toBe(false)
  expect(edge && edge.x + 80).toBeLessThan(615)
})

test.each([2, 8, 16, 23])('%i marks in a heap: no label lies on another, on a mark, or outside', (count) => {
  const marks: Mark[] = Array.from({ length: count }, (_, n) => ({
    x: 280 + ((n * 37) % 60),
    y: 140 + ((n * 53) % 70),
    reach: 6,
    width: 60 + ((n * 17) % 60),
  }))
  const boxes = placeLabels(marks, ROOM).map((place, n) => boxOf(place, marks[n] as Mark))
  for (const [n, box] of boxes.entries()) {
    expect(box.left).toBeGreaterThanOrEqual(0)
    expect(box.left + box.width).toBeLessThanOrEqual(640)
    for (const other of boxes.slice(n + 1)) expect(meet(box, other)).toBe(false)
    for (const mark of marks)
      expect(meet(box, { left: mark.x - 6, top: mark.y - 6, width: 12, height: 12 })).toBe(false)
  }
})
