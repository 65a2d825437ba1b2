import { expect, test } from 'vitest'

import type { SessionDoc } from '@/api/types'

import { useDocument } from './useDocument'
import { handOver, takeOver } from './usePending'
import { useWhatIf } from './useWhatIf'

const DOCUMENT = {
  fine_tally: 1,
  title: 'Ridge',
  blocks: [
    { id: 'b1', clock: { kind: 'intervals', work_s: 20, rest_s: 10 }, steps: [{ id: 's1', movement: 'swing' }] },
  ],
} as unknown as SessionDoc
const rest = (document: SessionDoc | null): unknown =>
  (document?.blocks[0] as { clock: { rest_s: number } }).clock.rest_s
const setRest = (value: number) => ({ op: 'set' as const, path: ['b1', 'clock', 'rest_s'], value })

test('edits are undone and made again, one by one', () => {
  const { document, load, edit, undo, redo, canUndo, canRedo } = useDocument()
  load(DOCUMENT)
  edit([setRest(20)])
  edit([setRest(30)])
  undo()
  expect(rest(document.value)).toBe(20)
  undo()
  expect(document.value).toEqual(DOCUMENT)
  expect(canUndo.value).toBe(false)
  redo()
  redo()
  expect(rest(document.value)).toBe(30)
  expect(canRedo.value).toBe(false)
})

test('typing into one place is one step of undo, into two places two', () => {
  const { document, load, edit, undo } = useDocument()
  load(DOCUMENT)
  for (const value of [1, 12, 120]) edit([setRest(value)], 'rest')
  edit([{ op: 'set', path: ['title'], value: 'Other' }], 'title')
  undo()
  expect([rest(document.value), document.value?.title]).toEqual([120, 'Ridge'])
  undo()
  expect(document.value).toEqual(DOCUMENT)
})

test('a new edit after an undo leaves nothing to make again', () => {
  const { load, edit, undo, canRedo } = useDocument()
  load(DOCUMENT)
  edit([setRest(20)])
  undo()
  edit([setRest(25)])
  expect(canRedo.value).toBe(false)
})

test('a number that was tried is given back, or kept as one step', () => {
  const { document, load, edit, replace, undo } = useDocument()
  load(DOCUMENT)
  const { base, trying, nudge, keep, giveBack } = useWhatIf(document, edit, (wanted) => replace(wanted, 'back'))
  nudge([setRest(15)], 'rest')
  nudge([setRest(20)], 'rest')
  expect([trying.value, rest(document.value), rest(base.value)]).toEqual([true, 20, 10])
  giveBack()
  expect([trying.value, rest(document.value)]).toEqual([false, 10])
  nudge([setRest(25)], 'rest')
  keep()
  expect([trying.value, rest(document.value)]).toEqual([false, 25])
  undo()
  expect(rest(document.value)).toBe(10)
})

test('edits handed over are taken once, and only by whom they are for', () => {
  handOver('a', [setRest(5)])
  expect(takeOver('b')).toEqual([])
  expect(takeOver('a')).toHaveLength(1)
  expect(takeOver('a')).toEqual([])
})

test('nothing is edited where nothing is loaded', () => {
  const { document, edit, canUndo } = useDocument()
  edit([setRest(5)])
  expect(document.value).toBeNull()
  expect(canUndo.value).toBe(false)
})
