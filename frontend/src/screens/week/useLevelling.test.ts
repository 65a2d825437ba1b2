import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { Outcome, PlanChange, Proposal } from '@/api/types'
import { promised } from '@/testing/promised'

import { useLevelling } from './useLevelling'

const outcome = (load: number) => ({ load }) as unknown as Outcome
const PROPOSAL = { edits: [{ slot: 'a' }, { slot: 'b' }, { slot: 'c' }], after: outcome(1180) } as unknown as Proposal

let scope: EffectScope
const level = vi.spyOn(api, 'levelWeek')
const preview = vi.spyOn(api, 'previewLevel')
const stop = vi.spyOn(api, 'stopLevel')
const takeLevel = vi.spyOn(api, 'takeLevel')
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  for (const spy of [level, preview, stop, takeLevel]) spy.mockReset()
  level.mockResolvedValue(PROPOSAL)
  stop.mockResolvedValue(undefined)
  vi.spyOn(api, 'levelProgress').mockResolvedValue({ found: 1 } as never)
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})
function levelling(done = vi.fn(() => Promise.resolve())) {
  const day = ref('2026-11-23')
  const tools = scope.run(() => useLevelling(day, () => 1, done))
  if (!tools) throw new Error('no scope')
  return { day, done, ...tools }
}

test('a proposal comes with all of its edits picked and what they make', async () => {
  const { propose, picked, outcome: made, busy } = levelling()
  await propose()
  expect([picked.value, made.value, busy.value]).toEqual([[0, 1, 2], outcome(1180), false])
})

test('leaving an edit asks what the others make; late answers are dropped', async () => {
  const { propose, pick, picked, outcome: made } = levelling()
  await propose()
  const slow = promised<Outcome>()
  preview.mockReturnValueOnce(slow.promise).mockResolvedValueOnce(outcome(1300))
  const first = pick(1)
  await pick(0)
  slow.answer(outcome(1))
  await first
  expect(picked.value).toEqual([2])
  expect(preview.mock.calls.map(([body]) => body.edits.map((one) => one.slot))).toEqual([['a', 'c'], ['c']])
  expect(made.value).toEqual(outcome(1300))
})

test('only what is picked is taken, and the week is read anew', async () => {
  const { propose, pick, take, done, proposal } = levelling()
  preview.mockResolvedValue(outcome(1250))
  takeLevel.mockResolvedValue({} as PlanChange)
  await propose()
  await pick(2)
  await take()
  expect(takeLevel.mock.calls[0]?.[0].edits.map((one) => one.slot)).toEqual(['a', 'b'])
  expect([done.mock.calls.length, proposal.value]).toEqual([1, null])
})

test('looking at another week calls the search off and drops its answer', async () => {
  const slow = promised<Proposal>()
  level.mockReturnValueOnce(slow.promise)
  const { day, propose, proposal, busy } = levelling()
  const asked = propose()
  day.value = '2026-11-30'
  await nextTick()
  expect(stop).toHaveBeenCalledTimes(1)
  slow.answer(PROPOSAL)
  await asked
  expect([proposal.value, busy.value]).toEqual([null, false])
})

test('progress is looked at while the search goes on, and no longer', async () => {
  const slow = promised<Proposal>()
  level.mockReturnValueOnce(slow.promise)
  const { propose, progress } = levelling()
  const asked = propose()
  await vi.advanceTimersByTimeAsync(1500)
  expect(progress.value).toEqual({ found: 1 })
  slow.answer(PROPOSAL)
  await asked
  expect(vi.getTimerCount()).toBe(0)
})

test('a refusal is told with its place', async () => {
  level.mockRejectedValueOnce(new Refusal(422, 'plan', 'wrong', [{ path: 'x', found: 'y', allowed: 'no rule left to keep', code: 'z' }]))
  const { propose, trouble, busy } = levelling()
  await propose()
  expect([trouble.value, busy.value]).toEqual(['x: found y; allowed: no rule left to keep', false])
})
