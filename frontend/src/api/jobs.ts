// Heavy work: asked for, looked at until it is over, fetched. A small answer comes at once and is no job.
import { call, refusal, Refusal, send } from './send'
import type { Job } from './types'

const FIRST_MS = 100
const LATER_MS = 700

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))

/** Be content with what a job has; one that is over already does not mind. */
export const stopJob = (id: string): Promise<unknown> => call<undefined>('DELETE', `/jobs/${id}`)

/**
 * Look at a job until it is over, ever less often. `look` sees each state. An `signal` that is aborted stops the job,
 * since nobody waits for it any more. Throws the Refusal that a job ends with.
 */
export async function finished(job: Job, look?: (job: Job) => void, signal?: AbortSignal): Promise<Job> {
  let now = job
  for (let ms = FIRST_MS; !now.over; ms = Math.min(LATER_MS, ms * 1.5)) {
    look?.(now)
    await pause(ms)
    if (signal?.aborted) {
      void stopJob(job.id).catch(() => undefined)
      throw new DOMException('', 'AbortError')
    }
    now = await call<Job>('GET', `/jobs/${job.id}`)
  }
  const [first] = now.problems
  if (first) throw new Refusal(422, 'about:job', `${first.path}: found ${first.found}`, now.problems)
  if (!now.answered) throw new Refusal(503, 'about:job', 'It was broken off before there was an answer. Ask again.')
  return now
}

async function made(path: string, body: object, what: 'answer' | 'file', signal?: AbortSignal): Promise<Response> {
  const response = await send('POST', path, body, signal)
  if (!response.ok) throw await refusal(response)
  if (response.status !== 202) return response
  const job = await finished((await response.json()) as Job, undefined, signal)
  const answer = await send('GET', `/jobs/${job.id}/${what}`)
  if (!answer.ok) throw await refusal(answer)
  return answer
}

/** An answer that comes at once, or after its job. */
export const answerOf = async <T>(path: string, body: object, signal?: AbortSignal): Promise<T> =>
  (await made(path, body, 'answer', signal)).json() as Promise<T>

/** A file that comes at once, or after its job. */
export const fileOf = async (path: string, body: object): Promise<Blob> => (await made(path, body, 'file')).blob()
