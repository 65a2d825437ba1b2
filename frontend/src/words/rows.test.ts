import { expect, test } from 'vitest'

import type { Column, CompareRow, Pick } from '@/api/types'

import { deltaText, leftText, pickWords, valueText, whyNotWords, wishText } from './rows'

test.each([
  [930, 's', '15:30'],
  [0.623, 'share', '62 %'],
  [0.58, 'split', '58 : 42'],
  [1.26, 'ratio', '1.3 : 1'],
  [7.04, 'effort', '7.0'],
  [1234.6, 'kg', '1,235 kg'],
  [null, 's', '–'],
])('%j %s is written %s', (value, unit, text) => {
  expect(valueText(value, unit)).toBe(text)
})

test.each([
  [-100, 's', '−1:40'],
  [0.031, 'share', '+3 pts'],
  [0.2, 's', ''],
  [0.004, 'share', ''],
  [-0.06, 'split', '−6'],
  [undefined, 's', ''],
])('a difference of %j %s is written “%s”', (delta, unit, text) => {
  expect(deltaText(delta, unit)).toBe(text)
})

const column = (key: string, more: Partial<Column> = {}): Column =>
  ({ key, name: key, left: null, left_reps: {}, why: null, values: {}, ...more }) as Column

test('what is left over is said in the unit of what is held', () => {
  const nameOf = (key: string): string => key
  expect(leftText(column('a', { left: 100 }), 'total', nameOf)).toBe('1:40 left over')
  expect(leftText(column('a', { left: 0.2 }), 'work', nameOf)).toBe('nothing left over')
  expect(leftText(column('a', { left: 6, left_reps: { swing: 4, burpee: 2 } }), 'reps', nameOf)).toBe(
    '4 swing, 2 burpee left over',
  )
  expect(leftText(column('a', { left: null }), 'total', nameOf)).toBe('')
})

const ROWS = new Map<string, CompareRow>(
  [
    { key: 'effort', label: 'Effort', unit: 'effort', figure: null, sense: 'less' },
    { key: 'work', label: 'Work', unit: 's', figure: null, sense: 'more' },
    { key: 'load', label: 'Load', unit: 'load', figure: null, sense: 'less' },
  ].map((row) => [row.key, row]),
)
const judged = (wish: number, value: number, met: boolean) => ({ wish, value, met, endless: false, score: met ? 1 : 0 })
const ALONE = { first_better: [], first_worse: [] }
const WISHES = [
  { row: 'effort', way: 'at-most' as const, value: 7, hard: true, weight: 3 },
  { row: 'work', way: 'high' as const, value: null, hard: false, weight: 3 },
]

test('a pick says what it meets, gains and costs, with numbers', () => {
  const pick: Pick = {
    ranked: [
      { column: 1, rank: 1, score: 1, breaks: [], judged: [judged(0, 6.4, true), judged(1, 780, true)], ...ALONE },
      {
        column: 0,
        rank: 2,
        score: 0,
        breaks: [0],
        judged: [judged(0, 7.5, false), judged(1, 740, false)],
        ...ALONE,
        first_better: [{ row: 'work', first: 780, other: 740 }],
      },
    ],
    gains: [{ row: 'work', first: 780, other: 740 }],
    costs: [{ row: 'load', first: 125, other: 118 }],
  }
  const made = pickWords(pick, [column('plan'), column('Pyramid')], WISHES, ROWS)
  expect(made?.name).toBe('Pyramid')
  expect(made?.sentences.join(' ')).toBe(
    'It meets effort 6.4 (effort at most 7.0) and work 13:00. 1 of the others breaks a hard wish that it keeps. ' +
      'Beside the plan it gains work 13:00 against 12:20. It costs load 125 against 118.',
  )
})

test('a value that just misses its bound is written closer', () => {
  const pick: Pick = {
    ranked: [{ column: 0, rank: 1, score: 0, breaks: [0], judged: [judged(0, 7.04, false)], ...ALONE }],
    gains: [],
    costs: [],
  }
  const made = pickWords(pick, [column('plan')], WISHES, ROWS)
  expect(made?.name).toBe('The plan as it stands')
  expect(made?.sentences[0]).toContain('effort 7.04 (effort at most 7.0)')
})

test('nothing to rank is no pick, and a wish for an unknown row still reads', () => {
  const none: Pick = { ranked: [], gains: [], costs: [] }
  expect(pickWords(none, [], [], ROWS)).toBeNull()
  expect(wishText({ row: 'beauty', way: 'low', value: null, hard: false, weight: 1 }, undefined)).toBe(
    'beauty as little as can be',
  )
})

const PICK: Pick = {
  ranked: [
    { column: 1, rank: 1, score: 1, breaks: [], judged: [judged(0, 6.4, true), judged(1, 780, true)], ...ALONE },
    {
      column: 2,
      rank: 2,
      score: 0,
      breaks: [0],
      judged: [judged(0, 7.5, false), judged(1, 740, false)],
      first_better: [{ row: 'work', first: 780, other: 740 }],
      first_worse: [{ row: 'load', first: 125, other: 118 }],
    },
  ],
  gains: [],
  costs: [],
}
const THREE = [
  column('plan'),
  column('Pyramid'),
  column('Ladder'),
  column('Pairs', {
    why: 'no',
    causes: [{ kind: 'count', text: 'pairs takes movements by 2, not 3', measure: null, movements: [] }],
  }),
]

test('why not another: the wishes it breaks, where the first does better, and what speaks for it', () => {
  expect(whyNotWords(2, PICK, THREE, WISHES, ROWS)).toEqual([
    'Place 2 of 2.',
    'It breaks what must be: effort 7.5 (effort at most 7.0).',
    'By your wishes it is behind in work 12:20.',
    'Pyramid has work 13:00 against 12:20.',
    'For it speaks: load 118 against 125.',
  ])
  expect(whyNotWords(3, PICK, THREE, WISHES, ROWS)).toEqual(['Pairs takes movements by 2, not 3.'])
  expect(whyNotWords(1, PICK, THREE, WISHES, ROWS)).toEqual(['It is the first.'])
})

test('what was never divided is written as such', () => {
  expect(valueText(null, 'ratio', true)).toBe('∞ : 1')
})
