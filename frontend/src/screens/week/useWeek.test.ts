import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, ref, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { Week } from '@/api/types'
import { promised } from '@/testing/promised'

import { askedFor, useWeek } from './useWeek'

const MONDAY = '2026-11-23'
const BEFORE = '2026-11-16'
const AFTER = '2026-11-30'
const weekOf = (begins: string) =>
  ({ squad: 7, begins, days: [{ day: begins, version: 'd1' }], entries: [{ id: 'a', version: 4 }] }) as unknown as Week

let scope: EffectScope
const read = vi.spyOn(api, 'week')
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  read.mockReset().mockImplementation((day) => Promise.resolve(weekOf(day)))
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})
async function reading() {
  const day = ref(MONDAY)
  const tools = scope.run(() => useWeek(day, ref('')))
  if (!tools) throw new Error('no scope')
  await vi.runAllTimersAsync()
  return { day, ...tools }
}

test('a change of the week reads it anew; a refused one does not', async () => {
  vi.spyOn(api, 'dropEntry')
    .mockResolvedValueOnce(undefined)
    .mockRejectedValueOnce(new Refusal(403, 'rights', 'not yours'))
  const { drop, trouble } = await reading()
  read.mockClear()
  await drop('a')
  expect(read).toHaveBeenCalledTimes(1)
  await drop('b')
  expect([read.mock.calls.length, trouble.value]).toEqual([1, 'not yours'])
})

test('until another week is there, the one that is shown counts as turning', async () => {
  const { day, week, turning } = await reading()
  expect(turning.value).toBe(false)
  const slow = promised<Week>()
  read.mockReturnValueOnce(slow.promise)
  day.value = BEFORE
  await vi.runAllTimersAsync()
  expect([week.value?.begins, turning.value]).toEqual([MONDAY, true])
  slow.answer(weekOf(BEFORE))
  await vi.runAllTimersAsync()
  expect([week.value?.begins, turning.value]).toEqual([BEFORE, false])
})

test('a week that was asked for before a change was kept is asked for once more, though it is the first of its kind', async () => {
  const kept = promised<never>()
  vi.spyOn(api, 'repeatEntry').mockReturnValueOnce(kept.promise)
  const { day, week, again } = await reading()
  const done = again('a', { weeks: 1 })
  const before = promised<Week>()
  read.mockReturnValueOnce(before.promise)
  day.value = AFTER
  await vi.runAllTimersAsync()
  read.mockClear()
  kept.answer([] as never)
  await vi.advanceTimersByTimeAsync(0)
  before.answer({ ...weekOf(AFTER), entries: [] })
  await vi.runAllTimersAsync()
  await done
  expect([read.mock.calls.length, week.value?.begins, week.value?.entries.length]).toEqual([1, AFTER, 1])
})

test('a week that cannot be read shows why, and no other week in its place', async () => {
  const { day, week, trouble } = await reading()
  read.mockRejectedValueOnce(new Refusal(404, 'about:missing', 'No such squad.'))
  day.value = BEFORE
  await vi.runAllTimersAsync()
  expect([week.value, trouble.value]).toEqual([null, 'No such squad.'])
})

test('a change names what was seen, and what somebody else changed meanwhile is shown', async () => {
  const changed = vi
    .spyOn(api, 'changeEntry')
    .mockRejectedValueOnce(new Refusal(409, 'about:changed', 'meanwhile changed'))
  const set = vi.spyOn(api, 'setDay').mockResolvedValueOnce(undefined)
  const { change, setDay, trouble } = await reading()
  read.mockClear()
  await change('a', { group: 3 })
  expect(changed).toHaveBeenCalledWith('a', { group: 3, version: 4 })
  expect([read.mock.calls.length, trouble.value]).toEqual([1, 'meanwhile changed'])
  await setDay(MONDAY, { intent: 'hard', share: null, hall: true })
  expect(set.mock.calls[0]?.[1]).toMatchObject({ version: 'd1', squad: 7 })
})

test.each([
  ['', {}],
  ['group:3', { group: 3 }],
  ['person:11-22', { person: '11-22' }],
])('whose week %j is asked for as %j', (whose, asked) => {
  expect(askedFor(whose)).toEqual(asked)
})

test('a removed entry is restored by undo, and asked for once', async () => {
  vi.spyOn(api, 'dropEntry').mockReset().mockResolvedValueOnce(undefined)
  const restore = vi.spyOn(api, 'restoreEntry').mockResolvedValueOnce({} as never)
  const { drop, undoable, undone } = await reading()
  await drop('a')
  expect(undoable.value?.done).toContain('Removed')
  await undoable.value?.undo()
  await undone()
  expect([restore.mock.calls, undoable.value]).toEqual([[['a']], null])
})

test('undo of a change sets what the entry was, and of that alone', async () => {
  const entry = { id: 'a', version: 4, title: 'Ridge', day: MONDAY, time: '18:00:00', group: { id: 3 }, locked: false }
  read.mockResolvedValue({ ...weekOf(MONDAY), entries: [entry] } as unknown as Week)
  const change = vi
    .spyOn(api, 'changeEntry')
    .mockReset()
    .mockResolvedValue({ version: 5 } as never)
  const { change: set, undoable } = await reading()
  await set('a', { day: '2026-11-25', group: null })
  await undoable.value?.undo()
  expect(change.mock.calls).toEqual([
    ['a', { day: '2026-11-25', group: null, version: 4 }],
    ['a', { day: MONDAY, group: 3, version: 5 }],
  ])
})

test('a refused change has nothing to undo', async () => {
  vi.spyOn(api, 'dropEntry')
    .mockReset()
    .mockRejectedValueOnce(new Refusal(403, 'rights', 'not yours'))
  const { drop, undoable } = await reading()
  await drop('a')
  expect(undoable.value).toBe(null)
})
