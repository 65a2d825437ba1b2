import { expect, test } from 'vitest'

import type { Stave } from '@/api/types'

import { linesOf, lineText } from './line'
import { fitted, inkLevel, ticks, timeScale } from './scale'

const KIND = { movement: 'swing', name: 'swing', block: 1, step: 's1', counted: 'paced', side: null, kg: 16 }
const STAVE = {
  total_s: 60,
  rows: [],
  marks: [],
  kinds: [KIND],
  lines: [[4, 0, 5, 20, 12, 0, 6.25]],
  brackets: [],
  ribbon: [],
} as unknown as Stave

test('windows are read with their kind, and said in one line', () => {
  const [line] = linesOf(STAVE)
  expect(line).toMatchObject({ movement: 'swing', segment: 4, seconds: 20, reps: 12 })
  expect(line && lineText(line, (key) => key)).toBe('0:05–0:25 · swing · 12 reps paced · 16 kg · effort 6.3')
})

test('a window of a kind that is not there is left out', () => {
  expect(linesOf({ ...STAVE, kinds: [] })).toEqual([])
})

test.each([
  [0, 0],
  [1.99, 0],
  [2, 1],
  [7, 3],
  [10, 4],
  [11, 4],
])('effort %d has ink %d', (effort, level) => {
  expect(inkLevel(effort)).toBe(level)
})

test('ticks stand on even times and leave room for their labels', () => {
  expect(ticks(1200, 800)).toEqual([0, 300, 600, 900, 1200])
  expect(ticks(60, 800, 30).every((one) => one % 10 === 0 && one >= 30 && one <= 90)).toBe(true)
  expect(ticks(36_000, 300).length).toBeLessThanOrEqual(8)
})

test('seconds become pixels in proportion', () => {
  const scale = timeScale(100, 1000)
  expect(scale.x(50) - scale.x(0)).toBeCloseTo((scale.x(100) - scale.x(0)) / 2)
  expect(scale.width(0)).toBeGreaterThan(0)
})

test('a label is cut to its room, or left out', () => {
  expect(fitted('Building pyramid', 200)).toBe('Building pyramid')
  expect(fitted('Building pyramid', 60)).toBe('Building…')
  expect(fitted('Building pyramid', 12)).toBe('')
})
