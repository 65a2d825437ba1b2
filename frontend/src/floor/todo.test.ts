import { expect, test } from 'vitest'

import type { Beat, TodoLine } from '@/api/types'

import { typedScore } from '@/words/scores'
import { byStation, thenWords, todoWords } from './todo'

test.each<[string, TodoLine, string, string]>([
  ['reps', { name: 'swing', reps: 12 }, '12', ''],
  ['reps by round', { name: 'swing', reps: [10, 8, 6] }, '10, 8, 6', ''],
  ['a time', { name: 'plank', seconds: 45 }, '0:45', ''],
  ['metres', { name: 'carry', metres: 20 }, '20 m', ''],
  ['times', { name: 'squat', reps: 5, times: 5 }, '5 × 5', ''],
  ['growing', { name: 'step-up', reps: 2, grow: 2 }, '2, 2 more each round', ''],
  ['to failure', { name: 'pull-up', reps: 15, to_failure: true }, 'as many as can be done', ''],
  [
    'a side and a pair',
    { name: 'row', reps: 8, sides: 'each', load: { kg: 12, count: 2 } },
    '8',
    'each side · 2 × 12 kg',
  ],
  ['an option and a cue', { name: 'jump', option: 'step it', cue: 'soft knees' }, '', 'step it · soft knees'],
  ['a share', { name: 'press', reps: 5, load: { pct_1rm: 80 } }, '5', '80 % of the maximum'],
])('%s', (_, line, dose, more) => {
  const words = todoWords(line)
  expect([words.dose, words.more]).toEqual([dose, more])
})

test('stations keep their order, and one at which nothing is to be done says so', () => {
  const lines: TodoLine[] = [
    { station: 'mat', name: 'sit-up' },
    { station: 'sled', resting: true },
  ]
  expect(byStation(lines).map(([station]) => station)).toEqual(['mat', 'sled'])
  expect(todoWords({ station: 'sled', resting: true }).name).toBe('rest here')
})

const beat = (kind: Beat['kind'], set: number | null, lines: TodoLine[] = []): Beat =>
  ({ kind, ends: 'clock', s: 20, run: 0, set, lines, marks: [], next: '' }) as unknown as Beat

test('what comes after: a rest, a movement with its side, the end', () => {
  expect(thenWords(null, beat('rest', 1))).toBe('then rest 0:20')
  expect(thenWords(null, beat('work', 1, [{ name: 'step-up', side: 'left' }]))).toBe('then step-up, left')
  expect(thenWords(null, null)).toBe('then it is over')
})

test.each([
  ['5+12', { rounds: 5, reps: 12 }],
  [' 5 ', { rounds: 5, reps: 0 }],
  ['7:40', { time_s: 460 }],
  ['7:75', null],
  ['five', null],
  ['', null],
])('a score typed as %j', (text, score) => {
  expect(typedScore(text)).toEqual(score)
})
