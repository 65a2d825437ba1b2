import { expect, test } from 'vitest'
import { ref } from 'vue'

import type { Stave } from '@/api/types'
import { linesOf, type StaveLine } from '@/stave/line'

import { isOf, useLight, type Lit } from './light'

const kind = (movement: string, block: number, step: string, counted: string) => ({
  movement,
  name: movement,
  block,
  step,
  counted,
  side: null,
  kg: null,
})
const STAVE = {
  total_s: 90,
  rows: [{ name: 'squat' }, { name: 'push' }, { name: 'hinge' }],
  kinds: [kind('thruster', 0, 'a', 'paced'), kind('swing', 1, 'b', 'estimated')],
  // A thruster has ink in two rows.
  marks: [
    [0, 0, 30, 2, 0, 7],
    [1, 0, 30, 2, 0, 7],
    [2, 30, 30, 3, 0, 8],
  ],
  lines: [
    [7, 0, 0, 30, 10, 0, 5],
    [8, 1, 30, 30, 12, 0, 6],
  ],
  brackets: [],
  ribbon: [],
} as unknown as Stave
const [thruster, swing] = linesOf(STAVE)
const lightOf = (lit: Lit | null, pointed: StaveLine | null = null) =>
  useLight(ref(STAVE), ref(lit), ref(pointed) as never).value
const told = (lit: Lit | null, pointed: StaveLine | null = null) => {
  const { blocks, steps, rows, kinds } = lightOf(lit, pointed)
  return [[...blocks], [...steps], [...rows], [...kinds]]
}

test('nothing lights while nothing is pointed at', () => {
  expect(told(null)).toEqual([[], [], [], []])
})
test('a window lights its block, its step, its rows and its way of counting', () => {
  expect(told(null, thruster ?? null)).toEqual([[0], ['a'], ['squat', 'push'], ['paced']])
})
test('a row of the tally lights the blocks and steps that work it', () => {
  expect(told({ row: 'hinge' })).toEqual([[1], ['b'], ['hinge'], ['estimated']])
})
test('a step lights its figures; a block is marked as one, not each of its steps', () => {
  expect(told({ step: 'b' })).toEqual([[1], ['b'], ['hinge'], ['estimated']])
  expect(told({ block: 0 })).toEqual([[0], [], ['squat', 'push'], ['paced']])
})
test('what is pointed at on the stave comes before what has the focus beside it', () => {
  expect(told({ block: 0 }, swing ?? null)[0]).toEqual([1])
})
test('a way of counting lights windows that have reps, and no others', () => {
  const none = { ...thruster, reps: 0 } as StaveLine
  expect([isOf(thruster as StaveLine, { kind: 'paced' }), isOf(none, { kind: 'paced' })]).toEqual([true, false])
  expect(isOf(swing as StaveLine, { movement: 'swing' })).toBe(true)
})
