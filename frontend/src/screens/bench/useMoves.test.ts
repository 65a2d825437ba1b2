import { expect, test, vi } from 'vitest'

import type { Edit, PlacePart } from '@/composables/edits'

import { useMoves } from './useMoves'

const STEPS: PlacePart[] = ['b1', 'steps']
const OTHER: PlacePart[] = ['b2', 'steps']

function moved() {
  const made: Edit[][] = []
  const moves = useMoves((edits) => made.push(edits))
  const key = (name: string) =>
    ({ key: name, preventDefault: vi.fn(), stopPropagation: vi.fn(), currentTarget: {} }) as unknown as KeyboardEvent
  const drag = () =>
    ({ preventDefault: vi.fn(), stopPropagation: vi.fn(), dataTransfer: { setData: vi.fn() } }) as unknown as DragEvent
  return { made, key, drag, ...moves }
}

test.each([
  ['ArrowDown', 0, 1],
  ['ArrowUp', 2, 1],
])('%s moves item %i to %i', (name, from, to) => {
  const { made, key, keys } = moved()
  keys(key(name), STEPS, from, 3)
  expect(made).toEqual([[{ op: 'move', place: STEPS, index: from, to_index: to }]])
})

test.each([
  ['ArrowUp', 0],
  ['ArrowDown', 2],
  ['Enter', 1],
])('%s at item %i moves nothing', (name, from) => {
  const { made, key, keys } = moved()
  keys(key(name), STEPS, from, 3)
  expect(made).toEqual([])
})

test('a step dropped in another block leaves its own', () => {
  const { made, drag, start, drop } = moved()
  start(drag(), 'step', STEPS, 1)
  drop(drag(), 'step', OTHER, 0)
  expect(made).toEqual([[{ op: 'move', place: STEPS, index: 1, to_index: 0, to_place: OTHER }]])
})

test('a step dropped where it was, or a step on a block, moves nothing', () => {
  const { made, drag, start, drop } = moved()
  start(drag(), 'step', STEPS, 1)
  drop(drag(), 'step', STEPS, 1)
  start(drag(), 'step', STEPS, 1)
  drop(drag(), 'block', ['blocks'], 0)
  expect(made).toEqual([])
})

test('only what is of the same kind may be dropped', () => {
  const { drag, start, over } = moved()
  start(drag(), 'step', STEPS, 0)
  const onStep = drag()
  const onBlock = drag()
  over(onStep, 'step')
  over(onBlock, 'block')
  expect([
    vi.mocked(onStep.preventDefault).mock.calls.length,
    vi.mocked(onBlock.preventDefault).mock.calls.length,
  ]).toEqual([1, 0])
})

test('a finger puts down what it lifted on what lies under it', () => {
  const { made, lift } = moved()
  const grip: Record<string, unknown> = { setPointerCapture: vi.fn() }
  const under = { dataset: { step: JSON.stringify([OTHER, 2]) } }
  vi.stubGlobal('document', { elementFromPoint: () => ({ closest: () => under }) })
  lift({ pointerType: 'touch', pointerId: 1, currentTarget: grip } as unknown as PointerEvent, 'step', STEPS, 0)
  ;(grip.onpointerup as (end: object) => void)({ clientX: 5, clientY: 5 })
  expect(made).toEqual([[{ op: 'move', place: STEPS, index: 0, to_index: 2, to_place: OTHER }]])
})

test('a finger that the browser takes away, or that ends on nothing, moves nothing', () => {
  const { made, lift } = moved()
  const grip: Record<string, unknown> = { setPointerCapture: vi.fn() }
  const down = { pointerType: 'touch', pointerId: 1, currentTarget: grip } as unknown as PointerEvent
  vi.stubGlobal('document', { elementFromPoint: () => null })
  lift(down, 'step', STEPS, 0)
  ;(grip.onpointerup as (end: object) => void)({ clientX: 5, clientY: 900 })
  lift(down, 'step', STEPS, 0)
  ;(grip.onpointercancel as () => void)()
  expect(made).toEqual([])
})

test('a mouse is left to the browser’s own dragging', () => {
  const { lift } = moved()
  const grip = { setPointerCapture: vi.fn() }
  lift({ pointerType: 'mouse', pointerId: 1, currentTarget: grip } as unknown as PointerEvent, 'step', STEPS, 0)
  expect(grip.setPointerCapture).not.toHaveBeenCalled()
})
