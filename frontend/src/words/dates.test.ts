import { expect, test } from 'vitest'

import { daysOn, fullDate, longDay, shortDay, today } from './dates'

test('days are written without a time zone moving them', () => {
  expect(shortDay('2026-12-07')).toBe('Mon 7')
  expect(longDay('2026-12-07')).toBe('Monday 7 December')
  expect(fullDate('2027-01-03')).toBe('3 January 2027')
})

test.each([
  ['2026-12-28', 7, '2027-01-04'],
  ['2026-03-29', 1, '2026-03-30'],
  ['2026-10-25', -7, '2026-10-18'],
  ['2028-02-28', 1, '2028-02-29'],
])('%s and %d days is %s', (day, days, then) => {
  expect(daysOn(day, days)).toBe(then)
})

test('today is a day', () => {
  expect(today()).toMatch(/^\d{4}-\d\d-\d\d$/)
})
