import { beforeEach, expect, test, vi } from 'vitest'

import { api, Refusal } from '@/api/client'
import type { SessionItem } from '@/api/types'

const push = vi.fn()
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))
const { useSessionList } = await import('./useSessionList')

const item = (title: string, tags: string[], updated_at: string, load: number | null, squat: number) =>
  ({ id: title, title, tags, updated_at, figures: { total_s: 60, load, patterns: { squat } } }) as unknown as SessionItem
const ITEMS = [
  item('Ridge intervals', ['hill'], '2026-11-03', 229, 0.4),
  item('Strength for the lift', ['carry', 'hall'], '2026-11-05', 284, 0.1),
  item('Long walk out', ['hill'], '2026-11-01', null, 0.7),
]
const list = vi.spyOn(api, 'sessions')
beforeEach(() => {
  push.mockReset()
  list.mockReset().mockResolvedValue(ITEMS)
})
async function listed() {
  const tools = useSessionList()
  await tools.fetchList()
  return { ...tools, titles: () => tools.shown.value.map((one) => one.title.split(' ')[0]) }
}

test('the newest stands first', async () => {
  expect((await listed()).titles()).toEqual(['Strength', 'Ridge', 'Long'])
})
test.each([
  ['title', ['Long', 'Ridge', 'Strength']],
  ['load', ['Strength', 'Ridge', 'Long']],
  ['share:squat', ['Long', 'Ridge', 'Strength']],
] as const)('sorted by %s', async (by, titles) => {
  const { sort, titles: now } = await listed()
  sort(by)
  expect(now()).toEqual(titles)
})
test('sorting by the same twice turns it round', async () => {
  const { sort, titles } = await listed()
  sort('load')
  sort('load')
  expect(titles()).toEqual(['Long', 'Ridge', 'Strength'])
})
test('every word is looked for, in titles and tags', async () => {
  const { words, tag, titles } = await listed()
  words.value = 'HILL ridge'
  expect(titles()).toEqual(['Ridge'])
  words.value = ''
  tag.value = 'hall'
  expect(titles()).toEqual(['Strength'])
})
test('a file that is refused is named with its place, and the rest is not taken', async () => {
  const place = { path: 'blocks[0].clock', found: '"egg"', allowed: 'one of five', code: 'clock' }
  const take = vi.spyOn(api, 'importSession').mockRejectedValue(new Refusal(422, 'document', 'wrong', [place]))
  const file = (name: string, text: string) => ({ name, text: () => Promise.resolve(text) })
  const { take: takeFiles, trouble } = await listed()
  await takeFiles([file('bad.json', '{}'), file('good.json', '{}')] as unknown as FileList)
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
  await take([{ name, text: () => Promise.resolve(text) }] as unknown as FileList)
  expect(spy).toHaveBeenCalledWith(kind, text, 0)
})
test('movements that the squad defined otherwise are replaced only once somebody says so', async () => {
  const send = vi.spyOn(api, 'importMovements')
  send.mockReset().mockRejectedValueOnce(new Refusal(409, 'about:changed', 'meanwhile')).mockResolvedValueOnce({ keys: [] })
  const { take, clash, trouble } = await listed()
  await take([{ name: 'ours.csv', text: () => Promise.resolve('key') }] as unknown as FileList)
  expect([clash.value === null, trouble.value]).toEqual([false, 'ours.csv: meanwhile'])
  await clash.value?.()
  expect(send).toHaveBeenLastCalledWith('csv', 'key', 0, true)
  expect([clash.value, trouble.value]).toEqual([null, ''])
})
