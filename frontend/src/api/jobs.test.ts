import { afterEach, beforeEach, expect, test, vi } from 'vitest'

import { api } from './client'
import { finished } from './jobs'
import { refusalText } from '@/words/refusal'
import type { Refusal } from './refusal'
import type { Job } from './types'

const job = (more: Partial<Job> = {}): Job =>
  ({
    id: 'j1',
    kind: 'compare',
    state: 'running',
    before: 0,
    over: false,
    answered: false,
    progress: { found: 0 },
    problems: [],
    ...more,
  }) as Job
const DONE = job({ over: true, answered: true, state: 'done' })

const asked: string[] = []
let answers: [number, unknown][] = []
beforeEach(() => {
  vi.useFakeTimers()
  asked.length = 0
  vi.stubGlobal('document', { cookie: '' })
  vi.stubGlobal('fetch', (request: Request) => {
    asked.push(`${request.method} ${new URL(request.url).pathname}`)
    const [status, body] = answers.shift() ?? [500, {}]
    return Promise.resolve(new Response(status === 204 ? null : JSON.stringify(body), { status }))
  })
})
afterEach(() => vi.useRealTimers())
async function settled<T>(work: Promise<T>): Promise<T | Error> {
  const result = work.catch((error: unknown) => error as Error)
  await vi.runAllTimersAsync()
  return result
}

test('a small answer comes at once and is no job', async () => {
  answers = [[200, { points: [1] }]]
  expect(await settled(api.sweep({} as never))).toEqual({ points: [1] })
  expect(asked).toEqual(['POST /api/compare/sweep'])
})

test('a large one is fetched when its job is over', async () => {
  answers = [
    [202, job()],
    [200, job()],
    [200, DONE],
    [200, { comparison: 'table' }],
  ]
  expect(await settled(api.compare({}))).toEqual({ comparison: 'table' })
  expect(asked).toEqual(['POST /api/compare', 'GET /api/jobs/j1', 'GET /api/jobs/j1', 'GET /api/jobs/j1/answer'])
})

test('a file is fetched from its job', async () => {
  answers = [
    [202, DONE],
    [200, 'pdf'],
  ]
  const made = await settled(api.cardPdf({} as never, 1, 'a4'))
  expect(made).toBeInstanceOf(Blob)
  expect(asked.at(-1)).toBe('GET /api/jobs/j1/file')
})

test('a job that was refused tells its place', async () => {
  answers = [[200, job({ over: true, problems: [{ path: 'blocks[0]', found: 'x', allowed: 'y', code: 'z' }] })]]
  const error = await settled(finished(job()))
  expect(refusalText(error as Refusal)).toBe('blocks[0]: found x; allowed: y')
})

test('a job that was broken off without an answer says so', async () => {
  answers = [[200, job({ over: true, state: 'broken' })]]
  expect(await settled(finished(job()))).toMatchObject({ status: 503 })
})

test('who goes away stops the job', async () => {
  answers = [[204, null]]
  const away = new AbortController()
  const work = settled(finished(job(), undefined, away.signal))
  away.abort()
  expect(await work).toMatchObject({ name: 'AbortError' })
  expect(asked).toEqual(['DELETE /api/jobs/j1'])
})

test('a job is looked at ever less often', async () => {
  const looks = vi.fn()
  answers = [...Array.from({ length: 9 }, () => [200, job()] as [number, unknown]), [200, DONE]]
  const begun = Date.now()
  await settled(finished(job(), looks))
  expect(looks).toHaveBeenCalledTimes(10)
  expect(Date.now() - begun).toBeGreaterThan(3000)
})
