import { expect, test } from 'vitest'

import { valueText } from '@/words/rows'

import { axisOf } from './axis'

test.each([
  [[36, 45, 115], 'load'],
  [[149.8, 150.1], 'load'],
  [[0.123, 0.153], 'share'],
  [[0.98, 1], 'share'],
  [[0, 0], 'count'],
  [[5.92, 5.97], 'effort'],
  [[7], 'ratio'],
  [[380, 471], 's'],
  [[600], 's'],
  [[720, 3600], 's'],
  [[Infinity, 2.5, 3], 'ratio'],
])('%j in %s: every value lies on the axis, and no number is written twice', (values, unit) => {
  const { scale, ticks } = axisOf(values, unit, 0, 100)
  const [low = 0, high = 0] = scale.domain()
  for (const value of values.filter(Number.isFinite)) {
    expect(value).toBeGreaterThanOrEqual(low)
    expect(value).toBeLessThanOrEqual(high)
  }
  const texts = ticks.map((one) => valueText(one, unit))
  expect(new Set(texts).size).toBe(texts.length)
  expect(texts.length).toBeGreaterThanOrEqual(2)
  expect(texts.length).toBeLessThanOrEqual(11)
  if (unit === 'share') expect(high).toBeLessThanOrEqual(1)
})

test('minutes are told in steps of a clock', () => {
  expect(axisOf([380, 471], 's', 0, 100).ticks.map((one) => valueText(one, 's'))).toEqual([
    '6:00',
    '6:30',
    '7:00',
    '7:30',
    '8:00',
  ])
})
