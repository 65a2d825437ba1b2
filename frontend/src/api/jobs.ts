// Heavy work: asked for, looked at until it is over, fetched. A small answer comes at once and is no job.
import { promiseTimeout } from '@vueuse/core'

import { got, http, type Answer, type Asked } from './http'
import { OWN_KINDS, Refusal } from './refusal'
import type { Job } from './types'

const FIRST_MS = 100
const LATER_MS = 700

const at = (id: string) => ({ params: { path: { job_id: id } } })

/** Be content with what a job has; one that is over already does not mind. */
export const stopJob = (id: string): Promise<unknown> => got(http.DELETE('/api/jobs/{job_id}', at(id)))

/**
 * Look at a job until it is over, ever less often. `look` sees each state. A `signal` that is aborted stops the job,
 * since nobody waits for it any more. Throws the Refusal that a job ends with.
 */
export async function finished(job: Job, look?: (job: Job) => void, signal?: AbortSignal): Promise<Job> {
  let now = job
  for (let ms = FIRST_MS; !now.over; ms = Math.min(LATER_MS, ms * 1.5)) {
    look?.(now)
    await promiseTimeout(ms)
    if (signal?.aborted) {
      void stopJob(job.id).catch(() => undefined)
      signal.throwIfAborted()
    }
    now = await got(http.GET('/api/jobs/{job_id}', at(job.id)))
  }
  if (now.problems.length) throw new Refusal(422, 'about:job', '', now.problems)
  if (!now.answered) throw new Refusal(503, OWN_KINDS.brokenOff)
  return now
}

/** The answer of a job that is over. */
export const jobAnswer = (id: string, signal?: AbortSignal) =>
  got(http.GET('/api/jobs/{job_id}/answer', { ...at(id), signal }))

/** An answer that comes at once, or after its job (202). */
export async function answerOf<O extends object>(
  asked: Asked<O>,
  signal?: AbortSignal,
): Promise<Exclude<Answer<O>, Job>> {
  const { data, response } = await asked
  if (response.status !== 202) return data as Exclude<Answer<O>, Job>
  const job = await finished(data as Job, undefined, signal)
  return (await jobAnswer(job.id, signal)) as Exclude<Answer<O>, Job>
}

/** A file that comes at once, or after its job; asked for with `parseAs: 'stream'`. */
export async function fileOf(asked: Promise<{ response: Response }>): Promise<Blob> {
  const { response } = await asked
  if (response.status !== 202) return response.blob()
  const job = await finished((await response.json()) as Job)
  const file = await http.GET('/api/jobs/{job_id}/file', { ...at(job.id), parseAs: 'stream' })
  return file.response.blob()
}
