import { beforeEach, expect, test, vi } from 'vitest'

import { bringLog, type Brought } from './bringLog'

const api = vi.hoisted(() => ({ sendLogPart: vi.fn(), bringLog: vi.fn() }))
const jobs = vi.hoisted(() => ({ finished: vi.fn(), jobAnswer: vi.fn() }))
vi.mock('@/api/client', () => ({ api }))
vi.mock('@/api/jobs', () => jobs)

beforeEach(() => {
  jobs.finished.mockReset().mockImplementation(async (job, look) => {
    look({ progress: { read: 2, count: 0, of: 3 } })
    look({ progress: { count: 1, of: 3 } })
    return job
  })
  jobs.jobAnswer.mockResolvedValue({ sessions: 3 })
  api.sendLogPart.mockReset()
  api.bringLog.mockReset().mockResolvedValue({ id: 'j' })
})

test('a long file goes in parts that make the whole again, and tells how far it is', async () => {
  const text = 'a'.repeat(500_000) + 'b'.repeat(500_000) + 'cé'
  const seen: Brought[] = []
  expect(await bringLog(text, 7, (now) => seen.push(now))).toBe(3)
  const parts = [...api.sendLogPart.mock.calls, ...api.bringLog.mock.calls].map(([part]) => part)
  expect(parts.map((part) => part.text).join('')).toBe(text)
  expect(parts.map((part) => part.number)).toEqual([0, 1, 2])
  expect(new Set(parts.map((part) => part.file)).size).toBe(1)
  expect(seen.map(({ stage, done }) => `${stage} ${done}`)).toEqual(['sent 0', 'sent 1', 'sent 2', 'read 2', 'kept 1'])
})

test('a short file is one part, an empty one too: the server says what is wrong with it', async () => {
  await bringLog('', 7, () => undefined)
  expect(api.sendLogPart).not.toHaveBeenCalled()
  expect(api.bringLog.mock.calls[0]?.[0]).toMatchObject({ number: 0, text: '', squad: 7 })
})
