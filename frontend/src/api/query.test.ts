import { QueryObserver } from '@tanstack/vue-query'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'

import { promised } from '@/testing/promised'

import { askAgain, keep, newest, queryClient, troubleOf } from './query'
import { Refusal, UNREACHABLE } from './refusal'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

async function asked(error: Error): Promise<number> {
  const ask = vi.fn(() => Promise.reject(error))
  const retry = queryClient.getDefaultOptions().queries?.retry
  const work = queryClient.fetchQuery({ queryKey: ['x'], queryFn: ask, retry }).catch(() => undefined)
  await vi.runAllTimersAsync()
  await work
  return ask.mock.calls.length
}

test.each([
  ['no answer', new Refusal(UNREACHABLE, 'about:unreachable'), 4],
  ['a busy server', new Refusal(503, 'about:busy', 'Busy.'), 4],
  ['a refusal', new Refusal(422, 'document', 'Not so.'), 1],
  ['nobody signed in', new Refusal(401, 'rights', 'Who?'), 1],
])('%s is asked for %#: only what may pass is asked for once more', async (_, error, times) => {
  expect(await asked(error)).toBe(times)
})

test('of questions of a kind the newest is answered; an older one is called off', async () => {
  const slow = promised<string>()
  let signal: AbortSignal | null = null
  const first = newest(['words'], (own) => {
    signal = own
    return slow.promise
  })
  await vi.advanceTimersByTimeAsync(0)
  const second = newest(['words'], () => Promise.resolve('new'))
  await vi.advanceTimersByTimeAsync(0)
  slow.answer('old')
  expect([await first, await second]).toEqual([undefined, 'new'])
  expect((signal as AbortSignal | null)?.aborted).toBe(true)
})

test('the newest question tells why it was refused', async () => {
  const work = newest(['words'], () => Promise.reject(new Refusal(403, 'rights', 'Not yours.')))
  await expect(work).rejects.toMatchObject({ detail: 'Not yours.' })
})

test('only a refusal is trouble to be told; a fault is reported elsewhere', () => {
  expect(troubleOf(new Refusal(403, 'rights', 'Not yours.')).value).toBe('Not yours.')
  expect([troubleOf(new TypeError('oops')).value, troubleOf(null).value]).toEqual(['', ''])
})

test('what a change answered stays, though a question from before it is answered later', async () => {
  const before = promised<string>()
  const asked = queryClient.fetchQuery({ queryKey: ['kept'], queryFn: () => before.promise }).catch(() => 'called off')
  await vi.advanceTimersByTimeAsync(0)
  await keep(['kept'], 'after')
  before.answer('before')
  expect([await asked, queryClient.getQueryData(['kept'])]).toEqual(['called off', 'after'])
})

test('what is shown is asked for anew after a change, though its first answer is still to come', async () => {
  const replies = [promised<string>(), promised<string>()]
  const ask = vi.fn(() => replies[ask.mock.calls.length - 1]?.promise)
  const shown = new QueryObserver(queryClient, { queryKey: ['shown'], queryFn: ask })
  const leave = shown.subscribe(() => undefined)
  await vi.advanceTimersByTimeAsync(0)
  const work = askAgain(['shown'])
  await vi.advanceTimersByTimeAsync(0)
  replies[0]?.answer('before')
  replies[1]?.answer('after')
  await work
  expect([ask.mock.calls.length, shown.getCurrentResult().data]).toEqual([2, 'after'])
  leave()
})
