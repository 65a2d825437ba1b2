// Runs on this device that the server does not have yet: sent from whatever page is open, not from the floor alone.
import { shallowRef } from 'vue'

import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import type { Refusal } from '@/api/refusal'
import { account, squadNow } from '@/composables/useAccount'

import { unsentRuns } from './kept'
import { mayWait } from './mayWait'
import { exchange } from './sending'

/** A run that waits, and the entry it is of. `removed`: that was taken off the plan, and the run waits for it. */
export interface WaitingRun {
  id: string
  entry: string | null
  title: string
  removed: boolean
}

/** Whether something was refused because its entry was taken off the plan. */
export const isRemoved = (why: Refusal | null): boolean =>
  why?.problems.some((one) => one.code === 'entry_removed') ?? false

export const waitingRuns = shallowRef<readonly WaitingRun[]>([])

let sending: Promise<void> | null = null

/** Send what waits, one run after the other; asked again meanwhile, the same answer serves. */
export function sendWaitingRuns(): Promise<void> {
  sending ??= send().finally(() => (sending = null))
  return sending
}

async function send(): Promise<void> {
  const who = account.value?.name
  if (!who) {
    waitingRuns.value = []
    return
  }
  let arrived = false
  const removed = new Set<string>()
  for (const { run } of await unsentRuns(who)) {
    const sent = await exchange(run)
    if (sent.state === 'sent') arrived = true
    if (sent.state === 'refused' && isRemoved(sent.why)) removed.add(run.id)
  }
  // What a run says reaches the page that is open: who was hurt, what is left to log.
  if (arrived) for (const key of [KEYS.reports(squadNow.value), KEYS.today()]) void askAgain(key)
  waitingRuns.value = (await unsentRuns(who)).map(({ run: { id, entry, title } }) => ({
    id,
    entry,
    title,
    removed: removed.has(id),
  }))
  if ((await unsentRuns()).length === 0) mayWait.value = false
}
