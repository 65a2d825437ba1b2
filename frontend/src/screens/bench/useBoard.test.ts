import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { BoardOut, SessionDoc } from '@/api/types'
import { promised } from '@/testing/promised'

import { useBoard } from './useBoard'

const BLOCK = { clock: { kind: 'intervals', work_s: 20 }, steps: [{ movement: 'swing' }] }
const doc = (title: string, blocks: object[] = [BLOCK]) => ({ fine_tally: 1, title, blocks }) as unknown as SessionDoc
const read = (document: SessionDoc | null, problems: object[] = [], more: object = {}) =>
  ({
    document,
    problems,
    assumed: [],
    unread: [],
    unused: [],
    notes: [],
    names: [],
    outline: [],
    sessions: [],
    ...more,
  }) as unknown as BoardOut

let scope: EffectScope
const write = vi.spyOn(api, 'wordsOf')
const reading = vi.spyOn(api, 'readBoard')
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  write
    .mockReset()
    .mockImplementation((document) =>
      Promise.resolve({ text: `${document.title}\n`, as_typed: false, settled: {}, unread: false }),
    )
  reading.mockReset().mockImplementation((_text, before) => Promise.resolve(read(before)))
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

function board(start = doc('Ridge')) {
  const document = shallowRef<SessionDoc | null>(start)
  const replace = vi.fn((made: SessionDoc) => (document.value = made))
  const tools = scope.run(() => useBoard(document, ref(1), replace))
  if (!tools) throw new Error('no scope')
  return { document, replace, ...tools }
}
/** Wait for work that goes by the clock. */
async function done(work: Promise<unknown>): Promise<void> {
  await vi.runAllTimersAsync()
  await work
}
const settle = async (): Promise<void> => {
  await nextTick()
  await vi.runAllTimersAsync()
}

test('the text follows the blocks', async () => {
  const { document, text, write: writeNow } = board()
  await done(writeNow())
  document.value = doc('Ridge B')
  await settle()
  expect(text.value).toBe('Ridge B\n')
})

test('a new page is empty, and one with a title begins with it, without asking', async () => {
  const { text, document, write: writeNow } = board(doc('New session', []))
  await done(writeNow())
  expect([text.value, write.mock.calls.length]).toEqual(['', 0])
  document.value = doc('Hill day', [])
  await settle()
  expect([text.value, write.mock.calls.length]).toEqual(['Hill day\n', 0])
})

test('the words as typed come back with what was chosen, and what is told of them', async () => {
  write.mockResolvedValueOnce({ text: 'emom 12', as_typed: true, settled: { a: 1 }, unread: false })
  reading.mockResolvedValueOnce(
    read(doc('Ridge'), [], {
      assumed: [
        { id: 'a', settled: true },
        { id: 'b', settled: false },
      ],
    }),
  )
  const { replace, typed, open, write: writeNow } = board()
  await done(writeNow())
  expect([typed.value, open.value]).toEqual([true, 1])
  expect(reading).toHaveBeenCalledWith('emom 12', doc('Ridge'), 1, { a: 1 }, expect.any(AbortSignal))
  expect(replace).not.toHaveBeenCalled()
})

test('a chosen reading is asked for with all that was chosen before; keep all keeps the rest as read', async () => {
  const { choose, keepAll, typedText } = board()
  const assumed = [
    { id: 'a', chosen: 0, settled: false },
    { id: 'b', chosen: 1, settled: false },
  ]
  reading.mockResolvedValue(read(doc('Typed'), [], { assumed }))
  typedText('emom 12')
  await settle()
  await done(choose('a', 1))
  expect(reading).toHaveBeenLastCalledWith('emom 12', expect.anything(), 1, { a: 1 }, expect.any(AbortSignal))
  await done(keepAll())
  expect(reading).toHaveBeenLastCalledWith('emom 12', expect.anything(), 1, { a: 0, b: 1 }, expect.any(AbortSignal))
})

test('a name is given to a movement for good, and the words are read again', async () => {
  const calling = vi
    .spyOn(api, 'callMovement')
    .mockResolvedValueOnce(undefined)
    .mockRejectedValueOnce(new Refusal(403, 'right', 'Only coaches may.'))
  const { call, trouble } = board()
  await done(call('box-jump', 'gate vault'))
  expect([calling.mock.calls[0], reading.mock.calls.length]).toEqual([['box-jump', 'gate vault', 1], 1])
  await done(call('box-jump', 'gate vault'))
  expect([trouble.value, reading.mock.calls.length]).toEqual(['Only coaches may.', 1])
})

test('a text that can be read becomes the blocks and is not written over', async () => {
  const { replace, text, typedText, draft } = board()
  reading.mockResolvedValueOnce(read(doc('Typed')))
  typedText('Typed, in my own spelling')
  await settle()
  expect(replace).toHaveBeenCalledWith(doc('Typed'), 'board text')
  expect([text.value, draft.value]).toEqual(['Typed, in my own spelling', false])
})

test('a text with problems is kept as typed; blocks stay and do not overwrite it', async () => {
  const { document, replace, text, typedText, draft, problems } = board()
  reading.mockResolvedValueOnce(read(null, [{ line: 2, column: 1 }]))
  typedText('Ridge\nhalf a wo')
  await settle()
  document.value = doc('changed among the blocks')
  await settle()
  expect([text.value, draft.value, problems.value.length]).toEqual(['Ridge\nhalf a wo', true, 1])
  const wall = { text: 'Ridge\nhalf a wo', settled: {}, unread: true }
  expect(replace.mock.calls).toEqual([[{ ...doc('Ridge'), wall }, 'board text']])
})

test('a text that could not be read is kept, shown after a reload, and read again', async () => {
  reading.mockRejectedValueOnce(new Refusal(413, 'large', 'No answer.'))
  const before = board()
  before.typedText('Ridge, and more')
  await settle()
  const kept = before.document.value as SessionDoc
  expect([before.failed.value, before.trouble.value, kept.wall]).toEqual([
    true,
    'No answer.',
    { text: 'Ridge, and more', settled: {}, unread: true },
  ])
  write.mockResolvedValueOnce({ text: 'Ridge, and more', as_typed: true, settled: {}, unread: true })
  reading.mockResolvedValueOnce(read(doc('Read now')))
  const after = board(kept)
  await done(after.write())
  expect([after.text.value, after.failed.value, after.draft.value]).toEqual(['Ridge, and more', false, false])
  expect(after.replace).toHaveBeenCalledWith(doc('Read now'), 'board text')
})

test('a letter more reads a text again that could not be read', async () => {
  reading.mockResolvedValueOnce(read(null, [{ line: 2, column: 1 }])).mockResolvedValueOnce(read(doc('Typed')))
  const { replace, typedText, failed, text } = board()
  typedText('half a wo')
  await settle()
  typedText('half a word')
  await settle()
  expect([replace.mock.lastCall?.[0].title, failed.value, text.value]).toEqual(['Typed', false, 'half a word'])
})

test('of two texts typed after each other only the last counts', async () => {
  const { replace, typedText } = board()
  const slow = promised<BoardOut>()
  reading.mockReturnValueOnce(slow.promise).mockResolvedValueOnce(read(doc('second')))
  typedText('first')
  await settle()
  typedText('second')
  await settle()
  slow.answer(read(doc('first')))
  await settle()
  expect(replace.mock.calls.map(([made]) => made.title)).toEqual(['second'])
})

test('blocks with something wrong leave the board text from before, and say so', async () => {
  const { document, text, trouble, write: writeNow } = board()
  await done(writeNow())
  write.mockRejectedValueOnce(new Refusal(422, 'document', 'wrong'))
  document.value = doc('wrong')
  await settle()
  expect([text.value, trouble.value !== '']).toEqual(['Ridge\n', true])
})

test('what was typed last is taken at once when the Bench is about to be left', async () => {
  const { replace, typedText, draft, settle: settleBoard } = board()
  const slow = promised<BoardOut>()
  reading.mockReturnValueOnce(slow.promise)
  typedText('Typed')
  const settled = settleBoard()
  await vi.advanceTimersByTimeAsync(0)
  expect(reading).toHaveBeenCalledTimes(1)
  slow.answer(read(doc('Typed')))
  await done(settled)
  expect([replace.mock.calls.length, draft.value]).toEqual([1, false])
  await done(settleBoard())
  expect(reading).toHaveBeenCalledTimes(1)
})
