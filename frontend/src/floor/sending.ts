// Sending what a device keeps, and taking what others gave: each event once, by run, device and number.
import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { RunNews } from '@/api/types'
import { tellLeftOut } from '@/parts/notices'
import type { Layout } from '@/timer/beats'
import type { RunEvent } from '@/timer/events'

import { eventsKept, KEPT_DAYS, keepEvents, keepRun, waitsToBeSent, type KeptEvent, type KeptRun } from './kept'
import { runClock } from './runClock'

const MOST_AT_ONCE = 200

/** How sending went: all is there; there is no network (try again); it was refused, with the server's words. */
export type Sent = { state: 'sent'; fresh: KeptEvent[] } | { state: 'waiting' } | { state: 'refused'; why: Refusal }

/** Send what is not sent of a run, and take what is new. The run's own marks (`sent`, `last`) go on. */
export async function exchange(run: KeptRun): Promise<Sent> {
  try {
    if (!run.sent) await begin(run)
    const waiting = (await eventsKept(run.id)).filter(waitsToBeSent).sort(inOrder)
    const fresh: KeptEvent[] = []
    do fresh.push(...(await sendPart(run, waiting.splice(0, MOST_AT_ONCE))))
    while (waiting.length)
    return { state: 'sent', fresh }
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    const passing = error.passing || error.status === 401 || error.status === 408
    return passing ? { state: 'waiting' } : { state: 'refused', why: error }
  }
}

/** Send some events (or none, to ask what is new). Of several that are refused together the good ones go on alone. */
async function sendPart(run: KeptRun, part: readonly KeptEvent[]): Promise<KeptEvent[]> {
  const asked = Date.now()
  try {
    const events = part.map(({ device, number, event }) => ({ device, number, event }) as never)
    const news = part.length ? await api.sendEvents(run.id, run.last, events) : await api.run(run.id, run.last)
    runClock.measure(news.now, asked)
    for (const words of news.left_out ?? []) tellLeftOut(words)
    return await takeNews(run, news, part)
  } catch (error) {
    const wrong = error instanceof Refusal && (error.status === 422 || error.status === 413)
    if (!wrong || part.length === 0) throw error
    if (part.length === 1) {
      await keepEvents(part.map((one) => ({ ...one, refused: true })))
      return []
    }
    const fresh: KeptEvent[] = []
    for (const one of part) fresh.push(...(await sendPart(run, [one])))
    return fresh
  }
}

/** The second of a run's last event. */
const lastOf = async (run: KeptRun): Promise<number> =>
  (await eventsKept(run.id)).reduce((last, one) => Math.max(last, one.event.t), 0)

/** A run that was begun before the server's time was known: its second 0 by the server's clock. */
async function correct(run: KeptRun): Promise<void> {
  if (run.measured !== false) return
  const asked = Date.now()
  runClock.measure((await api.floorClock()).now, asked)
  run.begun += runClock.offset
  const now = runClock.now()
  const lasted = await lastOf(run)
  // The device's clock was set right meanwhile: only how long it lasted is known.
  if (run.begun > now || now - run.begun > KEPT_DAYS * 86_400) run.begun = now - lasted
  run.keptAt = now
  run.measured = true
  await keepRun(run)
}

async function begin(run: KeptRun): Promise<void> {
  if (run.entry === null) return
  await correct(run)
  const { entry, apart, hold, name } = run
  const asked = () => api.beginRun(run.id, { entry, begun: run.begun, apart, hold, name })
  try {
    await asked()
  } catch (error) {
    if (!(error instanceof Refusal && error.problems.some((one) => one.path === 'begun_at'))) throw error
    // The server's clock was set since: how long the run lasted is what is known.
    run.begun = (await api.floorClock()).now - (await lastOf(run))
    await asked()
  }
  run.sent = true
  await keepRun(run)
}

/** Keep what came; returns events of other devices that were not known. */
export async function takeNews(run: KeptRun, news: RunNews, sent: readonly KeptEvent[]): Promise<KeptEvent[]> {
  const known = new Set((await eventsKept(run.id)).map(key))
  const came = news.events.map(({ device, number, event }) => ({
    run: run.id,
    device,
    number,
    event: withoutNote(event as unknown as RunEvent),
    sent: true,
  }))
  await keepEvents([...sent.map((one) => ({ ...one, event: withoutNote(one.event), sent: true })), ...came])
  run.last = news.last
  run.removed = news.removed
  run.layouts = { ...run.layouts, ...(news.layouts as unknown as Record<string, Layout>) }
  await keepRun(run)
  return came.filter((one) => !known.has(key(one)))
}

export const key = (event: { device: string; number: number }): string => `${event.device}/${event.number}`

/** Notes go first: what was seen of somebody is not to stay on a device. */
const inOrder = (a: KeptEvent, b: KeptEvent): number =>
  Number(b.event.do === 'note') - Number(a.event.do === 'note') || a.number - b.number

/** A note that the server has stays there alone; the rest of the event holds its place. */
const withoutNote = (event: RunEvent): RunEvent => (event.do === 'note' ? { ...event, text: '' } : event)
