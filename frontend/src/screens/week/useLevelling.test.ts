import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, ref, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import { finished, stopJob } from '@/api/jobs'
import type { Job, Outcome, PlanChange, Proposal } from '@/api/types'
import { promised } from '@/testing/promised'

import { useLevelling } from './useLevelling'

vi.mock('@/api/jobs', () => ({ finished: vi.fn(), stopJob: vi.fn() }))

const outcome = (load: number) => ({ load }) as unknown as Outcome
const PROPOSAL = { edits: [{ slot: 'a' }, { slot: 'b' }, { slot: 'c' }], after: outcome(1180) } as unknown as Proposal
const JOB = { id: 'job', over: false } as unknown as Job

let scope: EffectScope
const level = vi.spyOn(api, 'askToLevel')
const proposalOf = vi.spyOn(api, 'proposal')
const preview = vi.spyOn(api, 'previewLevel')
const takeLevel = vi.spyOn(api, 'takeLevel')
const wait = vi.mocked(finished)
const stop = vi.mocked(stopJob)
const settle = (): Promise<unknown> => vi.runAllTimersAsync()
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  for (const spy of [level, proposalOf, preview, takeLevel, wait, stop]) spy.mockReset()
  level.mockResolvedValue(JOB)
  proposalOf.mockResolvedValue(PROPOSAL)
  wait.mockResolvedValue(JOB)
  stop.mockResolvedValue(undefined)
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
  propose()
  await settle()
  expect([picked.value, made.value, busy.value]).toEqual([[0, 1, 2], outcome(1180), false])
})

test('leaving an edit asks what the others make; late answers are dropped', async () => {
  const { propose, pick, picked, outcome: made } = levelling()
  propose()
  await settle()
  const slow = promised<Outcome>()
  preview.mockReturnValueOnce(slow.promise).mockResolvedValueOnce(outcome(1300))
  pick(1)
  await settle()
  pick(0)
  await settle()
  slow.answer(outcome(1))
  await settle()
  expect(picked.value).toEqual([2])
  expect(preview.mock.calls.map(([job, edits]) => [job, edits])).toEqual([
    ['job', [0, 2]],
    ['job', [2]],
  ])
  expect(made.value).toEqual(outcome(1300))
})

test('only what is picked is taken, and the week is read anew', async () => {
  const { propose, pick, take, done, proposal } = levelling()
  preview.mockResolvedValue(outcome(1250))
  takeLevel.mockResolvedValue({} as PlanChange)
  propose()
  await settle()
  pick(2)
  await settle()
  await take()
  expect(takeLevel.mock.calls).toEqual([['job', [0, 1]]])
  expect([done.mock.calls.length, proposal.value]).toEqual([1, null])
})

test('looking at another week calls the search off and drops its answer', async () => {
  const slow = promised<Job>()
  wait.mockReturnValueOnce(slow.promise)
  const { day, propose, proposal, busy } = levelling()
  propose()
  await settle()
  day.value = '2026-11-30'
  await settle()
  expect(stop.mock.calls).toEqual([['job']])
  expect(wait.mock.lastCall?.[2]?.aborted).toBe(true)
  slow.answer(JOB)
  await settle()
  expect([proposal.value, busy.value]).toEqual([null, false])
})

test('a job that was asked for when the week was left already is stopped as it is waited for', async () => {
  const slow = promised<Job>()
  level.mockReturnValueOnce(slow.promise)
  const { day, propose, progress } = levelling()
  propose()
  await settle()
  day.value = '2026-11-30'
  await settle()
  slow.answer(JOB)
  await settle()
  // Waiting for a job with a signal that is aborted stops it (api/jobs).
  expect(wait.mock.lastCall?.[2]?.aborted).toBe(true)
  expect(progress.value).toBeNull()
})

test('how far it is can be seen while it is looked for, and no longer', async () => {
  const slow = promised<Job>()
  const seen = { ...JOB, before: 2 }
  wait.mockImplementationOnce((_, look) => {
    look?.(seen)
    return slow.promise
  })
  const { propose, progress, busy } = levelling()
  propose()
  await settle()
  expect([progress.value, busy.value]).toEqual([seen, true])
  slow.answer(JOB)
  await settle()
  expect([progress.value, busy.value]).toEqual([null, false])
})

test('a refusal is told with its place', async () => {
  level.mockRejectedValueOnce(
    new Refusal(422, 'plan', 'wrong', [{ path: 'x', found: 'y', allowed: 'no rule left to keep', code: 'z' }]),
  )
  const { propose, trouble, busy } = levelling()
  propose()
  await settle()
  expect([trouble.value, busy.value]).toEqual(['x: found y; allowed: no rule left to keep', false])
})
