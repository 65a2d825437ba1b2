import { afterEach, beforeEach, expect, test, vi } from 'vitest'

import { account } from '@/composables/useAccount'
import type { Me } from '@/api/types'

import { sendWaitingRuns, waitingRuns } from './waitingRuns'

const kept = vi.hoisted(() => ({ unsentRuns: vi.fn() }))
const sent = vi.hoisted(() => ({ exchange: vi.fn() }))
vi.mock('./kept', () => kept)
vi.mock('./sending', () => sent)
const RUN = { run: { id: 'r', entry: 'e' }, unsent: [] }

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
  expect(waitingRuns.value).toEqual([{ id: 'r', entry: 'e' }])
  kept.unsentRuns.mockResolvedValueOnce([RUN]).mockResolvedValueOnce([])
  await sendWaitingRuns()
  expect(waitingRuns.value).toEqual([])
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
