import { beforeEach, expect, test, vi } from 'vitest'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'

import type { KeptRun } from './kept'
import { exchange } from './sending'

const kept = vi.hoisted(() => ({ events: [] as { device: string; number: number; event: { t: number } }[] }))
vi.mock('./kept', () => ({
  KEPT_DAYS: 30,
  eventsKept: () => Promise.resolve(kept.events),
  keepEvents: () => Promise.resolve(),
  keepRun: () => Promise.resolve(),
  waitsToBeSent: () => false,
}))
vi.mock('@/parts/notices', () => ({ tellLeftOut: () => undefined }))
const DAY_S = 86_400
const run = (begun: number): KeptRun =>
  ({ id: 'r', entry: 'e', begun, keptAt: begun, measured: false, sent: false, last: 0, layouts: {} }) as never
const begun = (): number => vi.mocked(api.beginRun).mock.calls[0]?.[1].begun ?? Number.NaN

beforeEach(() => {
  kept.events = []
  vi.restoreAllMocks()
  vi.spyOn(api, 'beginRun').mockResolvedValue(undefined as never)
  vi.spyOn(api, 'run').mockResolvedValue({ events: [], last: 0, layouts: {}, now: Date.now() / 1000 } as never)
})

test('a run that began by a wrong clock is sent with the time by the server', async () => {
  const here = Date.now() / 1000
  vi.spyOn(api, 'floorClock').mockResolvedValue({ now: here - 3 * DAY_S })
  await exchange(run(here - 600))
  expect(begun()).toBeCloseTo(here - 3 * DAY_S - 600, -1)
})

test('where the clock was set right meanwhile, it began as long ago as it lasted', async () => {
  const here = Date.now() / 1000
  kept.events = [{ device: 'd', number: 0, event: { t: 900 } }]
  vi.spyOn(api, 'floorClock').mockResolvedValue({ now: here })
  await exchange(run(here - 20_000 * DAY_S))
  expect(begun()).toBeCloseTo(here - 900, -1)
})

test('a run that the server takes for one to come, since its clock was set, is sent by how long it lasted', async () => {
  const here = Date.now() / 1000
  kept.events = [{ device: 'd', number: 0, event: { t: 300 } }]
  vi.spyOn(api, 'floorClock').mockResolvedValue({ now: here })
  const problem = { path: 'begun_at', found: 'later', allowed: 'a time of the last 31 days', code: 'value' }
  vi.mocked(api.beginRun).mockRejectedValueOnce(new Refusal(422, 'k', '', [problem]))
  expect(await exchange({ ...run(here + 3_600), measured: true })).toMatchObject({ state: 'sent' })
  expect(vi.mocked(api.beginRun).mock.calls[1]?.[1].begun).toBeCloseTo(here - 300, -1)
})
