import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue'

import { api, Refusal, UNREACHABLE } from '@/api/client'
import type { SavedOut, SessionDoc, SessionOut } from '@/api/types'
import { promised } from '@/testing/promised'

import { useAutosave } from './useAutosave'

const doc = (title: string) => ({ fine_tally: 1, title, blocks: [] }) as unknown as SessionDoc
const kept = (title: string, etag: string) => ({ id: 'one', etag, document: doc(title) }) as unknown as SessionOut
const saved = (etag: string) => ({ outcome: 'saved', etag }) as unknown as SavedOut

let scope: EffectScope
const save = vi.spyOn(api, 'saveSession')
const create = vi.spyOn(api, 'createSession')
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  save.mockReset()
  create.mockReset()
})
afterEach(() => {
  save.mockResolvedValue(saved('last'))
  scope.stop()
  vi.useRealTimers()
})

function opened(created = vi.fn()) {
  const document = shallowRef<SessionDoc | null>(doc('as kept'))
  const held = ref(false)
  const tools = scope.run(() => useAutosave(document, held, ref(7), created))
  if (!tools) throw new Error('no scope')
  const session = kept('as kept', 'v1')
  document.value = session.document
  tools.begin(session)
  return { document, held, ...tools }
}
async function type(document: { value: SessionDoc | null }, title: string): Promise<void> {
  document.value = doc(title)
  await nextTick()
}

test('a change is saved a moment after the last key, on top of the version it began with', async () => {
  const { document, state } = opened()
  save.mockResolvedValue(saved('v2'))
  await type(document, 'a')
  await type(document, 'ab')
  expect(state.value).toBe('waiting')
  await vi.runAllTimersAsync()
  expect(save.mock.calls.map(([id, base, , sent]) => [id, base, sent.title])).toEqual([['one', 'v1', 'ab']])
  expect(state.value).toBe('saved')
})

test('what is typed while a save is under way goes after it, on top of it', async () => {
  const { document } = opened()
  const first = promised<SavedOut>()
  save.mockReturnValueOnce(first.promise).mockResolvedValueOnce(saved('v3'))
  await type(document, 'a')
  await vi.runAllTimersAsync()
  await type(document, 'ab')
  await vi.runAllTimersAsync()
  expect(save).toHaveBeenCalledTimes(1)
  first.answer(saved('v2'))
  await vi.runAllTimersAsync()
  expect(save.mock.calls.map(([, base, , sent]) => [base, sent.title])).toEqual([
    ['v1', 'a'],
    ['v2', 'ab'],
  ])
})

test('“saved” is not said while something typed since then waits', async () => {
  const { document, state, begin } = opened()
  const first = promised<SavedOut>()
  save.mockReturnValueOnce(first.promise).mockResolvedValueOnce(saved('v3'))
  await type(document, 'a')
  await vi.runAllTimersAsync()
  await type(document, 'ab')
  first.answer(saved('v2'))
  await vi.advanceTimersByTimeAsync(1)
  expect(state.value).toBe('waiting')
  await vi.runAllTimersAsync()
  expect(state.value).toBe('saved')

  begin(null)
  const making = promised<SessionOut>()
  create.mockReturnValueOnce(making.promise)
  save.mockResolvedValueOnce(saved('v5'))
  await type(document, 'new')
  await vi.runAllTimersAsync()
  await type(document, 'newer')
  making.answer(kept('new', 'v4'))
  await vi.advanceTimersByTimeAsync(1)
  expect(state.value).toBe('waiting')
  await vi.runAllTimersAsync()
  expect(state.value).toBe('saved')
})

test('saving on demand waits for the save under way and tells that all is kept', async () => {
  const { document, save: saveNow } = opened()
  const first = promised<SavedOut>()
  save.mockReturnValueOnce(first.promise).mockResolvedValueOnce(saved('v3'))
  await type(document, 'a')
  await vi.runAllTimersAsync()
  await type(document, 'ab')
  const done = saveNow()
  first.answer(saved('v2'))
  expect(await done).toBe(true)
  expect(save).toHaveBeenCalledTimes(2)
})

test('a refused document is told with its places and not sent again until it changes', async () => {
  const { document, state, problems, save: saveNow } = opened()
  const place = { path: 'blocks[0]', found: 'nothing', allowed: 'something', code: 'missing' }
  save.mockRejectedValueOnce(new Refusal(422, 'document', 'wrong', [place]))
  await type(document, 'wrong')
  expect(await saveNow()).toBe(false)
  await vi.runAllTimersAsync()
  expect(save).toHaveBeenCalledTimes(1)
  expect([state.value, problems.value[0]?.path]).toEqual(['refused', 'blocks[0]'])
  save.mockResolvedValueOnce(saved('v2'))
  await type(document, 'right')
  await vi.runAllTimersAsync()
  expect([state.value, problems.value.length]).toEqual(['saved', 0])
})

test('a server out of reach is tried again until it answers', async () => {
  const { document, state } = opened()
  save.mockRejectedValueOnce(new Refusal(UNREACHABLE, 'unreachable', 'gone')).mockResolvedValueOnce(saved('v2'))
  await type(document, 'a')
  await vi.advanceTimersByTimeAsync(800)
  expect(state.value).toBe('unreachable')
  await vi.runAllTimersAsync()
  expect([state.value, save.mock.calls.length]).toEqual(['saved', 2])
})

test('whoever was signed out meanwhile is told so, and it is saved once they are back', async () => {
  const { document, state, unkept } = opened()
  save.mockRejectedValueOnce(new Refusal(401, 'sign-in', 'Sign in first.')).mockResolvedValueOnce(saved('v2'))
  await type(document, 'a')
  await vi.advanceTimersByTimeAsync(800)
  expect([state.value, unkept()]).toEqual(['signed-out', true])
  await vi.runAllTimersAsync()
  expect([state.value, unkept(), save.mock.calls.length]).toEqual(['saved', false, 2])
})

test('a stale save becomes a conflict; putting mine on top saves on theirs', async () => {
  const { document, state, conflict, putOnTop } = opened()
  const answer = { outcome: 'conflict', revision: { id: 3 }, session: kept('theirs', 'v9') } as unknown as SavedOut
  save.mockResolvedValueOnce(answer).mockResolvedValueOnce(saved('v10'))
  await type(document, 'mine')
  await vi.runAllTimersAsync()
  expect([state.value, conflict.value?.theirs.document.title]).toEqual(['conflict', 'theirs'])
  putOnTop()
  await vi.runAllTimersAsync()
  expect(save.mock.calls[1]?.slice(1, 2)).toEqual(['v9'])
  expect([state.value, conflict.value]).toEqual(['saved', null])
})

test('nothing is saved while a number is only tried', async () => {
  const { document, held } = opened()
  held.value = true
  await type(document, 'tried')
  await vi.runAllTimersAsync()
  expect(save).not.toHaveBeenCalled()
  save.mockResolvedValueOnce(saved('v2'))
  held.value = false
  await nextTick()
  await vi.runAllTimersAsync()
  expect(save).toHaveBeenCalledTimes(1)
})

test('a new session is made with its first change, once, and saved under its id from then on', async () => {
  const created = vi.fn()
  const { document, begin } = opened(created)
  begin(null)
  create.mockResolvedValueOnce(kept('a', 'v1'))
  await type(document, 'a')
  await vi.runAllTimersAsync()
  expect(created).toHaveBeenCalledTimes(1)
  save.mockResolvedValueOnce(saved('v2'))
  await type(document, 'ab')
  await vi.runAllTimersAsync()
  expect([create.mock.calls.length, save.mock.calls[0]?.[0]]).toEqual([1, 'one'])
})

test.each([
  [408, 'unreachable'],
  [503, 'unreachable'],
  [507, 'full'],
] as const)('a save refused with %i is tried again and says so: %s', async (status, said) => {
  const { document, state } = opened()
  save.mockRejectedValueOnce(new Refusal(status, 'busy', 'not now')).mockResolvedValueOnce(saved('v2'))
  await type(document, 'a')
  await vi.advanceTimersByTimeAsync(1000)
  expect(state.value).toBe(said)
  await vi.runAllTimersAsync()
  expect([save.mock.calls.length, state.value]).toEqual([2, 'saved'])
})
