import type { FloorSheet } from '@/api/types'
import type { RunEvent } from '@/timer/events'

import { deviceName, newId } from './device'
import { keepEvents, keepRun, type KeptRun } from './kept'
import { runClock } from './runClock'
import type { Given } from './useRun'

/** What is chosen before the start: each at their own pace, who is not here, stations laid out anew, whose run it is. */
export interface StartWish {
  account: string
  apart: boolean
  absent: readonly string[]
  edits: readonly unknown[]
  name: string
  /** Without it the run stands before its start: for scores that are typed afterwards. */
  starts: boolean
}

/**
 * Begin a run on this device: kept before anything else, so that it is there after a reload too. Its id.
 * `first`: what else is taken down at once.
 */
export async function beginRun(sheet: FloorSheet, wish: StartWish, first?: Given): Promise<string> {
  const id = newId()
  const run: KeptRun = {
    id,
    account: wish.account,
    entry: sheet.entry,
    title: sheet.title,
    name: wish.name,
    begun: runClock.now(),
    apart: wish.apart,
    hold: 'entries',
    sheet: wish.apart && sheet.apart ? sheet.apart : sheet.sheet,
    with: sheet,
    layouts: {},
    sent: false,
    last: 0,
    over: false,
    keptAt: runClock.now(),
    measured: runClock.measured,
  }
  const device = deviceName()
  const events: RunEvent[] = [
    ...(wish.edits.length ? [{ t: 0, do: 'change', edits: [...wish.edits] } satisfies RunEvent] : []),
    ...wish.absent.map((person): RunEvent => ({ t: 0, do: 'away', person })),
    ...(wish.starts ? [{ t: 0, do: 'start' } satisfies RunEvent] : []),
    ...(first ? [{ ...first, t: 0 } as RunEvent] : []),
  ]
  await keepRun(run)
  await keepEvents(events.map((event, number) => ({ run: id, device, number, event, sent: false })))
  // Asked for, never needed: a browser may drop what is kept when it runs out of room.
  if ('storage' in navigator) void navigator.storage.persist?.().catch(() => false)
  return id
}
