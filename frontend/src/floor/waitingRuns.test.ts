import { afterEach, beforeEach, expect, test, vi } from 'vitest'

import { account } from '@/composables/useAccount'
import type { Me } from '@/api/types'

import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import { Refusal } from '@/api/refusal'

import { sendWaitingRuns, waitingRuns } from './waitingRuns'

const kept = vi.hoisted(() => ({ unsentRuns: vi.fn() }))
const sent = vi.hoisted(() => ({ exchange: vi.fn() }))
vi.mock('./kept', () => kept)
vi.mock('./sending', () => sent)
const RUN = { run: { id: 'r', entry: 'e', title: 'Hill' }, unsent: [] }

beforeEach(() => {
  account.value = { name: 'osk' } as Me
  kept.unsentRuns.mockReset()
  sent.exchange.mockReset().mockResolvedValue({ state: 'sent', fresh: [] })
})
afterEach(() => (account.value = null))

test('what waits is sent, and told where it could not be', async () => {
  kept.unsentRuns.mockResolvedValue([RUN])
  await sendWaitingRuns()
  expect(sent.exchange).toHaveBeenCalledWith(RUN.run)
  expect(waitingRuns.value).toEqual([{ id: 'r', entry: 'e', title: 'Hill', removed: false }])
  kept.unsentRuns.mockResolvedValueOnce([RUN]).mockResolvedValueOnce([])
  await sendWaitingRuns()
  expect(waitingRuns.value).toEqual([])
})

test('once a run has arrived, what it says of people is asked for anew', async () => {
  const reports = KEYS.reports(0)
  queryClient.setQueryData(reports, [])
  kept.unsentRuns.mockResolvedValue([RUN])
  sent.exchange.mockResolvedValueOnce({ state: 'waiting' })
  await sendWaitingRuns()
  expect(queryClient.getQueryState(reports)?.isInvalidated).toBe(false)
  await sendWaitingRuns()
  await vi.waitFor(() => expect(queryClient.getQueryState(reports)?.isInvalidated).toBe(true))
})

test('a run whose entry was taken off the plan is named, to be put back', async () => {
  kept.unsentRuns.mockResolvedValue([RUN])
  const problem = { path: 'entry', found: 'f', allowed: 'a', code: 'entry_removed' }
  sent.exchange.mockResolvedValue({ state: 'refused', why: new Refusal(422, 'k', '', [problem]) })
  await sendWaitingRuns()
  expect(waitingRuns.value).toMatchObject([{ title: 'Hill', removed: true }])
})

test('asked twice at once, each run is sent once', async () => {
  kept.unsentRuns.mockResolvedValue([RUN])
  await Promise.all([sendWaitingRuns(), sendWaitingRuns()])
  expect(sent.exchange).toHaveBeenCalledTimes(1)
})

test('who is signed out has nothing that waits here', async () => {
  account.value = null
  await sendWaitingRuns()
  expect([kept.unsentRuns.mock.calls.length, waitingRuns.value]).toEqual([0, []])
})
