import { expect, test } from 'vitest'

import { clashText, figureText, termsText } from './week'

const figure = (value: number | null, why: string | null = null, terms: Record<string, number> = {}) => ({
  value,
  why,
  terms,
})

test.each([
  [figure(1.0263), 'ratio', '1.03'],
  [figure(26.3196), 'ratio', '26.3'],
  [figure(1590.8), 'load', '1,591'],
  [figure(0.244), 'change', '+24 %'],
  [figure(-0.1), 'change', '−10 %'],
  [figure(0), 'change', '0 %'],
  [figure(null), 'ratio', '–'],
] as const)('%j as %s is written %s', (made, kind, text) => {
  expect(figureText(made, kind)).toBe(text)
})

test('a figure that there is not says why, one that there is says of what', () => {
  expect(termsText(figure(null, 'all seven days are equal'))).toBe('all seven days are equal')
  expect(termsText(figure(1.2, null, { mean: 203.4, spread: 60 }))).toBe('mean 203 · spread 60')
})

test('a clash names its days, its hours and what both work', () => {
  const clash = {
    first: 'a',
    second: 'b',
    days: ['2026-12-08', '2026-12-09'],
    patterns: ['squat'],
    joints: ['knee'],
    hours: 24,
    wanted: 48,
  }
  expect(clashText(clash)).toBe('Tue 8 and Wed 9, 24 h apart: both work squat, knee')
})
