import { expect, test } from 'vitest'

import { nudged, readValue, writeValue } from './values'

test.each([
  ['30', 30],
  ['2.5', 2.5],
  ['1:30', 90],
  ['1:10:05', 4205],
  ['70:05', 4205],
  ['1:5:00', '1:5:00'],
  ['10-15', { low: 10, high: 15 }],
  ['10 to 15', { low: 10, high: 15 }],
  ['5, 10, 15', [5, 10, 15]],
  ['', undefined],
  ['-4', -4],
  ['soon', 'soon'],
  ['5, x', [5, 'x']],
])('%j is read', (typed, value) => {
  expect(readValue(typed)).toEqual(value)
})

test.each([30, 2.5, { low: 10, high: 15 }, [5, 10, 15], undefined])('%j is written and read again', (value) => {
  expect(readValue(writeValue(value))).toEqual(value)
})

test.each([
  [30, 1, true, 35],
  [3, -1, false, 2],
  [2, -5, false, 0],
  [undefined, 1, false, 1],
  [{ low: 10, high: 15 }, 1, false, { low: 11, high: 16 }],
  ['soon', 1, false, undefined],
])('%j nudged by %j', (value, by, seconds, next) => {
  expect(nudged(value, by, seconds)).toEqual(next)
})

test('a dose to failure is read, written and tried with its plan', () => {
  expect([readValue('to failure'), readValue('max 12')]).toEqual([{ to_failure: true }, { to_failure: true, plan: 12 }])
  expect([writeValue({ to_failure: true }), writeValue({ to_failure: true, plan: 12 })]).toEqual([
    'to failure',
    'to failure (12)',
  ])
  expect(readValue(writeValue({ to_failure: true, plan: 12 }))).toEqual({ to_failure: true, plan: 12 })
  expect(nudged({ to_failure: true, plan: 12 }, 1, false)).toEqual({ to_failure: true, plan: 13 })
})
