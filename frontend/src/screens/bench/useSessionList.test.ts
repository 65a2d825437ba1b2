import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { SessionItem, SessionsPage } from '@/api/types'
import { promised } from '@/testing/promised'

const push = vi.fn()
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))
const { useSessionList } = await import('./useSessionList')

const ITEM = { id: 'a', title: 'Ridge intervals', tags: ['hill'] } as unknown as SessionItem
const PAGE = {
  items: [ITEM],
  total: 205,
  size: 100,
  tags: ['hall', 'hill'],
  rows: ['squat'],
} as unknown as SessionsPage
const list = vi.spyOn(api, 'sessions')
let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  push.mockReset()
  list.mockReset().mockResolvedValue(PAGE)
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})
async function listed() {
  const tools = scope.run(useSessionList)
  if (!tools) throw new Error('no scope')
  await vi.runAllTimersAsync()
  return tools
}
const lastAsked = () => list.mock.lastCall?.[0]

test('the newest are asked for first', async () => {
  const { items, total } = await listed()
  expect(lastAsked()).toEqual({ archived: false, words: '', tag: '', by: 'changed', down: true, page: 1 })
  expect([items.value, total.value]).toEqual([[ITEM], 205])
})
test.each([
  ['title', false],
  ['load', true],
  ['share:squat', true],
] as const)('sorted by %s', async (by, down) => {
  const { sort } = await listed()
  sort(by)
  await vi.advanceTimersByTimeAsync(0)
  expect(lastAsked()).toMatchObject({ by, down, page: 1 })
})
test('sorting by the same twice turns it round', async () => {
  const { sort } = await listed()
  sort('load')
  sort('load')
  await vi.advanceTimersByTimeAsync(0)
  expect(lastAsked()).toMatchObject({ by: 'load', down: false })
})
test('words are asked for once typing rests, from the first page on', async () => {
  const { words, page } = await listed()
  page.value = 3
  await vi.runAllTimersAsync()
  expect(lastAsked()).toMatchObject({ page: 3 })
  const before = list.mock.calls.length
  for (const typed of ['r', 'ri', 'rid ']) {
    words.value = typed
    await vi.advanceTimersByTimeAsync(50)
  }
  expect(list.mock.calls.length).toBe(before)
  await vi.advanceTimersByTimeAsync(500)
  expect([list.mock.calls.length, page.value]).toEqual([before + 1, 1])
  expect(lastAsked()).toMatchObject({ words: 'rid', page: 1 })
})
test('a late answer to what is no longer asked does not come onto the screen', async () => {
  const slow = promised<SessionsPage>()
  const { tag, items } = await listed()
  list.mockReturnValueOnce(slow.promise).mockResolvedValueOnce({ ...PAGE, items: [] })
  tag.value = 'hall'
  await vi.advanceTimersByTimeAsync(0)
  tag.value = 'hill'
  await vi.advanceTimersByTimeAsync(0)
  slow.answer(PAGE)
  await vi.runAllTimersAsync()
  expect(items.value).toEqual([])
})
test('a file that is refused is named with its place, and the rest is not taken', async () => {
  const place = { path: 'blocks[0].clock', found: '"egg"', allowed: 'one of five', code: 'clock' }
  const take = vi.spyOn(api, 'importSession').mockRejectedValue(new Refusal(422, 'document', 'wrong', [place]))
  const file = (name: string, text: string) => new File([text], name)
  const { take: takeFiles, trouble } = await listed()
  await takeFiles([file('bad.json', '{}'), file('good.json', '{}')] as unknown as File[])
  expect(trouble.value).toBe('bad.json: blocks[0].clock: found "egg"; allowed: one of five')
  expect([take.mock.calls.length, push.mock.calls.length]).toEqual([1, 0])
})
test.each([
  ['plan.txt', 'Ridge', 'importSession', 'txt'],
  ['plan.json', '{}', 'importSession', 'json'],
  ['ours.csv', 'key,name', 'importMovements', 'csv'],
  ['ours.json', ' [{}]', 'importMovements', 'json'],
] as const)('%s is taken by what is in it', async (name, text, door, kind) => {
  const spy = vi.spyOn(api, door).mockResolvedValue({ id: 'made', keys: [] } as never)
  spy.mockClear()
  const { take } = await listed()
  const work = take([new File([text], name)])
  await vi.runAllTimersAsync()
  await work
  expect(spy.mock.lastCall?.slice(0, 3)).toEqual([kind, text, 0])
})
test('movements that the squad defined otherwise are replaced only once somebody says so', async () => {
  const send = vi.spyOn(api, 'importMovements')
  send
    .mockReset()
    .mockRejectedValueOnce(new Refusal(409, 'about:changed', 'meanwhile'))
    .mockResolvedValueOnce({ keys: [] })
  const { take, clash, trouble } = await listed()
  const work = take([new File(['key'], 'ours.csv')])
  await vi.runAllTimersAsync()
  await work
  expect([clash.value === null, trouble.value]).toEqual([false, 'ours.csv: meanwhile'])
  await clash.value?.()
  expect(send).toHaveBeenLastCalledWith('csv', 'key', 0, { replace: true })
  expect([clash.value, trouble.value]).toEqual([null, ''])
})
