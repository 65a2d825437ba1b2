// A log's file on its way to the server: sent in parts, then brought in by a job whose progress is shown.
import { api } from '@/api/client'
import { finished, jobAnswer } from '@/api/jobs'

/** Characters of one part; the server takes no longer ones. */
const PART = 500_000

/** How far a file is: parts that were sent, sessions that were read and that are in the log. */
export interface Brought {
  stage: 'sent' | 'read' | 'kept'
  done: number
  of: number
}

/** Send a file and wait until it is in the log. Returns how many sessions it had. Throws the Refusal. */
export async function bringLog(text: string, squad: number, look: (now: Brought) => void): Promise<number> {
  const file = crypto.randomUUID()
  const last = Math.max(0, Math.ceil(text.length / PART) - 1)
  const part = (number: number) => ({ file, number, squad, text: text.slice(number * PART, (number + 1) * PART) })
  for (let number = 0; number < last; number++) {
    look({ stage: 'sent', done: number, of: last + 1 })
    await api.sendLogPart(part(number))
  }
  look({ stage: 'sent', done: last, of: last + 1 })
  const job = await finished(await api.bringLog(part(last)), ({ progress: { read, count, of } }) => {
    if (of) look(count ? { stage: 'kept', done: count, of } : { stage: 'read', done: read ?? 0, of })
  })
  const { sessions } = await jobAnswer(job.id)
  return Number(sessions)
}
