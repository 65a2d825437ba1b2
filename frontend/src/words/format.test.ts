import { expect, test } from 'vitest'

import { amount, clock, percent, ratio, signed, tenth, whole } from './format'

test.each([
  [0, '0:00'],
  [59.4, '0:59'],
  [59.6, '1:00'],
  [930, '15:30'],
  [3599.6, '1:00:00'],
  [3725, '1:02:05'],
  [null, '–'],
  [undefined, '–'],
])('%j s stand on a clock as %s', (seconds, text) => {
  expect(clock(seconds)).toBe(text)
})

test('what there is not is a dash, not a nought', () => {
  expect([percent(null), percent(undefined), ratio(null)]).toEqual(['–', '–', '–'])
  expect([percent(0), ratio(0)]).toEqual(['0 %', '0.0 : 1'])
})

test('counts are grouped, efforts have one place', () => {
  expect([whole(1424.4), whole(12), tenth(7), tenth(6.25)]).toEqual(['1,424', '12', '7.0', '6.3'])
})

test.each([
  [45, 's', '45 s'],
  [150, 's', '2:30'],
  [9.0833, 'min', '9.08 min'],
  [480, 'kg', '480 kg'],
  [12.5, 'm', '12.5 m'],
  [0.482, 'share', '48 %'],
  [5.4346, 'effort', '5.43'],
  [64, 'reps', '64'],
] as const)('%d %s is written %s', (value, unit, text) => {
  expect(amount(value, unit)).toBe(text)
})

test.each([
  [40, 's', '+0:40'],
  [-100, 's', '−1:40'],
  [0.031, 'share', '+3.1 pts'],
  [-0.4, 'effort', '−0.4'],
  [0.04, 'effort', ''],
  [-0.2, 's', ''],
  [0.00001, 'share', ''],
  [-3, 'reps', '−3'],
] as const)('a difference of %d %s is %s', (value, unit, text) => {
  expect(signed(value, unit)).toBe(text)
})
