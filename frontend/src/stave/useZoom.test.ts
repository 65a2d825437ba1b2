import { ref } from 'vue'
import { expect, test } from 'vitest'

import { useZoom } from './useZoom'

test('closer keeps the moment looked at in its place, and never leaves the session', () => {
  const zoom = useZoom(ref(1200))
  expect(zoom.zoomed.value).toBe(false)
  zoom.zoom(true, 600)
  expect(zoom.zoomed.value).toBe(true)
  expect(zoom.from.value + zoom.span.value / 2).toBeCloseTo(600)
  zoom.zoom(true, 0)
  expect(zoom.from.value).toBeGreaterThanOrEqual(0)
  for (let turn = 0; turn < 20; turn += 1) zoom.zoom(true, 1200)
  expect(zoom.span.value).toBe(60)
  expect(zoom.from.value + zoom.span.value).toBeLessThanOrEqual(1200)
})

test('panning stops at both ends', () => {
  const zoom = useZoom(ref(1200))
  zoom.zoom(true, 600)
  zoom.pan(-9)
  expect(zoom.from.value).toBe(0)
  zoom.pan(9)
  expect(zoom.from.value + zoom.span.value).toBeCloseTo(1200)
})

test('a moment out of sight is moved to, one in sight is not', () => {
  const zoom = useZoom(ref(1200))
  zoom.zoom(true, 100)
  const before = zoom.from.value
  zoom.show(before + 10, before + 20)
  expect(zoom.from.value).toBe(before)
  zoom.show(1100, 1110)
  expect(zoom.from.value).toBeLessThanOrEqual(1100)
  expect(zoom.from.value + zoom.span.value).toBeGreaterThanOrEqual(1110)
})

test('a short session cannot be zoomed at all', () => {
  const zoom = useZoom(ref(40))
  zoom.zoom(true)
  expect(zoom.span.value).toBe(40)
  expect(zoom.zoomed.value).toBe(false)
})
