// Runs on this device that the server does not have yet: sent from whatever page is open, not from the floor alone.
import { shallowRef } from 'vue'

import { account } from '@/composables/useAccount'

import { unsentRuns } from './kept'
import { mayWait } from './mayWait'
import { exchange } from './sending'

/** A run that waits, and the entry it is of. */
export interface WaitingRun {
  id: string
  entry: string | null
}

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
  for (const { run } of await unsentRuns(who)) await exchange(run)
  waitingRuns.value = (await unsentRuns(who)).map(({ run }) => ({ id: run.id, entry: run.entry }))
  if ((await unsentRuns()).length === 0) mayWait.value = false
}
