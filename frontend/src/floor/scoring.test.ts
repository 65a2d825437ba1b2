import { expect, test } from 'vitest'

import type { Beat, Sheet } from '@/api/types'
import type { RunEvent } from '@/timer/events'
import { BeatQueue } from '@/timer/queue'

import { earlierOf, scoredWindows, scoresMade, splitsOf, windowNow, windowsNow, windowTitle } from './scoring'
import { scoreText, typedScore } from '@/words/scores'

test.each([
  ['5+12', { rounds: 5, reps: 12 }],
  [' 5 + 12 ', { rounds: 5, reps: 12 }],
  ['5', { rounds: 5, reps: 0 }],
  ['7:40', { time_s: 460 }],
  ['7:60', null],
  ['five', null],
  ['', null],
])('%s is read', (typed, made) => {
  expect(typedScore(typed)).toEqual(made)
})

test('what is written can be typed again', () => {
  for (const text of ['5+12', '5', '7:40']) expect(scoreText(typedScore(text) ?? undefined)).toBe(text)
  expect(scoreText(undefined)).toBe('')
  expect(scoreText({ rung: 4 })).toBe('4')
})

const beat = (block: number, run: number, selfPaced: boolean): Beat =>
  ({ kind: 'work', block, run, set: null, self_paced: selfPaced, passage: `pass ${run}`, ends: 'clock', s: 60 }) as Beat
// A window, a block by the clock, the window's block again in a second pass, with two windows.
const SHEET = {
  beats: [beat(0, 0, true), beat(1, 1, false), beat(0, 2, true), beat(0, 2, true)],
  blocks: [{ title: 'Window' }, { title: 'Swings' }],
} as unknown as Sheet

test('windows are told by block, pass and index', () => {
  const windows = scoredWindows(SHEET)
  expect(windows.map(({ place, block, pass, index }) => [place, block, pass, index])).toEqual([
    [0, 0, 0, 0],
    [2, 0, 1, 0],
    [3, 0, 1, 1],
  ])
  expect(windowNow(windows, 1)?.place).toBe(0)
  expect(windowNow(windows, 2)?.place).toBe(2)
  expect(windowNow(windows, Infinity)?.place).toBe(3)
  expect(windows.map((one) => windowTitle(windows, one))).toEqual(['Window, 1', 'Window, 2', 'Window, 3'])
})

test('of several scores the last one counts, each person for themselves', () => {
  const [first, second] = scoredWindows(SHEET)
  if (!first || !second) throw new Error('no windows')
  const events: RunEvent[] = [
    { t: 10, do: 'score', block: 0, rounds: 1, reps: 0, person: 'a' },
    { t: 20, do: 'score', block: 0, rounds: 2, reps: 0, person: 'a' },
    { t: 30, do: 'score', block: 0, pass: 1, rounds: 9, reps: 0 },
  ]
  expect([...scoresMade(events, first)].map(([who, made]) => [who, scoreText(made)])).toEqual([['a', '2']])
  expect(scoreText(scoresMade(events, second).get(''))).toBe('9')
  expect(splitsOf(events, first, 'a')).toEqual([10, 20])
  const before = { person: 'a', block: 0, section_pass: 0, index: 0, last: {}, best: {} }
  expect(earlierOf([before], first, 'a')).toBe(before)
  expect(earlierOf([before], second, 'a')).toBeUndefined()
})

test('a window that was skipped is not asked for, and those behind it keep their number', () => {
  const queue = new BeatQueue(SHEET.beats)
  const skipped = queue.items[2]
  queue.items = queue.items.filter((one) => one !== skipped)
  expect(windowsNow(SHEET, queue).map(({ pass, index }) => [pass, index])).toEqual([
    [0, 0],
    [1, 1],
  ])
})

test('once something was put in before it, a window goes by its number as the session now stands', () => {
  const queue = new BeatQueue(SHEET.beats)
  expect(windowsNow(SHEET, queue)).toEqual(scoredWindows(SHEET))
  const added = { ...beat(0, 0, true), passage: 'new' }
  queue.layOut(
    {
      order: ['new', 'pass 0', 'pass 1', 'pass 2'],
      numbers: [0, 1, 2, 1],
      blocks: [{ title: 'Put in', part: 'main' }, ...SHEET.blocks],
      changed: ['new'],
      beats: [{ number: 0, beat: added }],
    },
    false,
  )
  const windows = windowsNow(SHEET, queue)
  expect(windows.map(({ title, block, pass, index, planned }) => [title, block, pass, index, planned])).toEqual([
    ['Put in', 0, 0, 0, null],
    ['Window', 1, 0, 0, 0],
    ['Window', 1, 1, 0, 0],
    ['Window', 1, 1, 1, 0],
  ])
})
