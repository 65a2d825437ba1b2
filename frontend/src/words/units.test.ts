import { afterEach, beforeEach, describe, expect, test } from 'vitest'

import { axisOf } from '@/screens/side-by-side/axis'

import { amount, signed, weightText } from './format'
import { deltaText, valueText } from './rows'
import { setsText, typedSets } from './scores'
import { stepText } from './steps'
import { fromUnits, inUnits, keepUnits, signOf, tellHereIn, told, units } from './units'
import { valueFromUnits, valueInUnits } from './values'

beforeEach(() => keepUnits('imperial'))
afterEach(() => {
  keepUnits('metric')
  tellHereIn(null)
})

test.each([
  [16, 'kg', '35.27 lb'],
  [0.1, 'kg', '0.22 lb'],
  [12.5, 'm', '13.67 yd'],
  [1609.344, 'm', '1 mi'],
  [3000, 'm', '1.86 mi'],
  [64, 'reps', '64'],
] as const)('%d %s is told to whoever reads pounds as %s', (value, unit, text) => {
  expect(amount(value, unit)).toBe(text)
})

test('what was typed in a unit keeps it, whoever reads it', () => {
  const kept = [
    { kg: 15.876, unit: 'lb' },
    { kg: 16, unit: 'kg' },
  ]
  expect(kept.map(weightText)).toEqual(['35 lb', '16 kg'])
  keepUnits('metric')
  expect(kept.map(weightText)).toEqual(['35 lb', '16 kg'])
  expect(weightText({ kg: 16 })).toBe('16 kg')
})

test('what is typed comes back as it was typed, and is not rounded where it is not converted', () => {
  for (let quarters = 1; quarters <= 4000; quarters += 1) {
    const typed = quarters / 4
    expect(inUnits(fromUnits(typed, 'kg'), 'kg')).toBe(typed)
    expect(inUnits(fromUnits(typed, 'm'), 'm')).toBe(typed)
  }
  keepUnits('metric')
  expect([inUnits(61.23456, 'kg'), fromUnits(61.23456, 'kg')]).toEqual([61.23456, 61.23456])
})

test('rows, differences and steps follow', () => {
  expect([valueText(2720, 'kg'), deltaText(-272, 'kg'), signed(100, 'kg')]).toEqual(['5,997 lb', '−600', '+220.46'])
  const step = { movement: 'carry', metres: 40, load: { kg: 24, count: 2 } }
  expect(stepText(step, String, String)).toBe('43.74 yd carry 2 × 52.91 lb')
})

test('sets are typed and shown in pounds, and kept in kilograms', () => {
  const sets = typedSets('135×5 45.5×8 12')
  expect(sets?.map((one) => one.kg)).toEqual([61.235, 20.638, 0])
  expect(setsText(sets ?? [])).toBe('135×5 45.5×8 12')
})

test('lists and ranges go there and back; what is no number stays', () => {
  const value = { low: 36.576, high: 91.44 }
  expect(valueInUnits(value, 'm')).toEqual({ low: 40, high: 100 })
  expect(valueFromUnits({ low: 40, high: 100 }, 'm')).toEqual(value)
  expect(valueFromUnits([10, 'far'], 'm')).toEqual([9.144, 'far'])
  expect([valueInUnits(undefined, 'm'), valueInUnits({ to_failure: true }, 'm')]).toEqual([
    undefined,
    { to_failure: true },
  ])
})

test('an axis is round in what is read, and lies where its values do', () => {
  const { scale, ticks } = axisOf([400, 1000], 'kg', 0, 100)
  for (const one of ticks) expect(Math.round(inUnits(one, 'kg')) % 100).toBe(0)
  expect(ticks.length).toBeGreaterThan(2)
  expect(scale(400)).toBeGreaterThanOrEqual(0)
  expect(scale(1000)).toBeLessThanOrEqual(100)
})

describe('of one page alone', () => {
  test('a wall tells its own, and the next page the account’s again', () => {
    tellHereIn('metric')
    expect([units.value, signOf('kg'), told(16, 'kg')]).toEqual(['metric', 'kg', [16, 'kg']])
    tellHereIn(null)
    expect(signOf('m')).toBe('yd')
  })

  test('what a browser kept that is nothing known is metric', () => {
    keepUnits('stones' as 'metric')
    expect([signOf('kg'), told(16, 'kg')]).toEqual(['kg', [16, 'kg']])
  })
})
