import { expect, test } from 'vitest'

import type { Otherwise } from '@/api/types'

import { byStep, otherwiseLines } from './otherwise'

const one = (more: Partial<Otherwise>): Otherwise => ({
  path: 'blocks[0].steps[0]',
  movement: 'box-jump',
  person: 'p1',
  name: 'Bram',
  option: 'step-up',
  eased: false,
  why: null,
  instead: [],
  ...more,
})
const nameOf = (key: string): string => key.replaceAll('-', ' ')
const KNEE = { joint: 'knee', movement: '', side: 'left' }

test('who takes the same option stands in one line, with why where it may be known', () => {
  const lines = otherwiseLines(
    [
      one({ why: [KNEE] }),
      one({ person: 'p2', name: 'Ines', why: [{ joint: '', movement: 'box-jump', side: 'both' }] }),
    ],
    nameOf,
  )
  expect(lines).toEqual([{ says: 'Bram, Ines: step-up', why: 'left knee, box jump', open: false }])
})

test('an option that only eases is told so, and stands apart from one that spares', () => {
  const lines = otherwiseLines([one({}), one({ person: 'p2', name: 'Ines', eased: true })], nameOf)
  expect(lines.map((line) => line.says)).toEqual(['Bram: step-up', 'Ines: step-up, which eases it'])
})

test.each([
  [[], 'Bram: no option spares this'],
  [['step-up', 'box-squat'], 'Bram: no option spares this; step up, box squat would'],
])('what nothing spares is open, and says what would do: %s', (instead, says) => {
  expect(otherwiseLines([one({ option: null, instead })], nameOf)).toEqual([{ says, why: '', open: true }])
})

test('whoever may not know why is told none', () => {
  expect(otherwiseLines([one({})], nameOf)[0]?.why).toBe('')
})

test('steps stand in the order they came in', () => {
  const all = [one({ path: 'b' }), one({ path: 'a' }), one({ path: 'b', person: 'p2' })]
  expect([...byStep(all)].map(([path, some]) => [path, some.length])).toEqual([
    ['b', 2],
    ['a', 1],
  ])
})
