import { expect, test, vi } from 'vitest'

import type { Edit, PathPart } from '@/composables/edits'

import { moved, useMoveKeys } from './useMoves'

const STEPS: PathPart[] = ['b1', 'steps']
const OTHER: PathPart[] = ['b2', 'steps']

function pressed(name: string, index: number, length = 3): Edit[][] {
  const made: Edit[][] = []
  const event = { key: name, preventDefault: vi.fn(), stopPropagation: vi.fn(), currentTarget: {} }
  useMoveKeys((edits) => made.push(edits))(event as unknown as KeyboardEvent, STEPS, index, length)
  return made
}

test.each([
  ['ArrowDown', 0, 1],
  ['ArrowUp', 2, 1],
  ['ArrowRight', 0, 1],
  ['ArrowLeft', 2, 1],
])('%s moves item %i to %i', (name, from, to) => {
  expect(pressed(name, from)).toEqual([[{ op: 'move', path: STEPS, index: from, to_index: to }]])
})

test.each([
  ['ArrowUp', 0],
  ['ArrowDown', 2],
  ['Enter', 1],
])('%s at item %i moves nothing', (name, from) => {
  expect(pressed(name, from)).toEqual([])
})

test('what is put down in its own list goes to that place', () => {
  expect(moved({ list: STEPS, index: 2 }, { list: STEPS, index: 0 }, false)).toEqual({
    op: 'move',
    path: STEPS,
    index: 2,
    to_index: 0,
  })
})

test.each([
  [false, 1],
  [true, 2],
])('in another list it stands before what was there, or after it when it came from above (%s)', (down, index) => {
  expect(moved({ list: STEPS, index: 0 }, { list: OTHER, index: 1 }, down)).toEqual({
    op: 'move',
    path: STEPS,
    index: 0,
    to_index: index,
    to_path: OTHER,
  })
})
