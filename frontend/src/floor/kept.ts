// What a device keeps of runs, so that one survives a reload, a crash and an empty battery: IndexedDB, written to the
// disk before it is confirmed.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

import type { FloorSheet, Sheet } from '@/api/types'
import type { Hold, Layout } from '@/timer/beats'
import type { RunEvent } from '@/timer/events'

import type { LeaveOut } from './leaveOut'
import { mayWait } from './mayWait'

/** What a run was begun with, and how far it is known to the server. */
export interface KeptRun {
  id: string
  /** The account that may see it here. */
  account: string
  entry: string | null
  title: string
  name: string
  /** Second 0, in seconds since 1970 by the server's clock. */
  begun: number
  apart: boolean
  hold: Hold
  sheet: Sheet
  /** What the sheet came with: people, cautions, the emergency's words. None where a second device joined. */
  with: FloorSheet | null
  layouts: Record<string, Layout>
  /** What is to be left out when its turn comes, chosen without a network. */
  leaveOut?: LeaveOut[]
  /** Whether the server has it; how far its events are known. */
  sent: boolean
  last: number
  over: boolean
  keptAt: number
  /** Whether the server's time was known when it began; else its times are this device's, right or wrong. */
  measured?: boolean
  /** Its entry was taken off the plan meanwhile. */
  removed?: boolean
}

export interface KeptEvent {
  run: string
  device: string
  number: number
  event: RunEvent
  sent: boolean
  /** The server did not take it, and never will: it stays here, and holds nothing up. */
  refused?: boolean
}

interface Floor extends DBSchema {
  runs: { key: string; value: KeptRun }
  events: { key: [string, string, number]; value: KeptEvent; indexes: { run: string } }
  sheets: { key: string; value: { entry: string; account: string; day: string; sheet: FloorSheet } }
}

const STRICT = { durability: 'strict' } as const
export const KEPT_DAYS = 30
/** A run that seems to be as old was kept by a clock that was wrong. */
const NEVER_SO_OLD_DAYS = 365
const GOING_S = 6 * 3_600

let opened: Promise<IDBPDatabase<Floor>> | null = null
function floor(): Promise<IDBPDatabase<Floor>> {
  opened ??= openDB<Floor>('floor', 1, {
    upgrade(db) {
      db.createObjectStore('runs', { keyPath: 'id' })
      db.createObjectStore('events', { keyPath: ['run', 'device', 'number'] }).createIndex('run', 'run')
      db.createObjectStore('sheets', { keyPath: 'entry' })
    },
  })
  return opened
}

export async function keepRun(run: KeptRun): Promise<void> {
  const tx = (await floor()).transaction('runs', 'readwrite', STRICT)
  await Promise.all([tx.store.put(plain(run)), tx.done])
}

/** A run of this account; undefined where there is none, or it is another's. */
export async function runKept(id: string, account: string): Promise<KeptRun | undefined> {
  const run = await (await floor()).get('runs', id)
  return run?.account === account ? run : undefined
}

/** Keep events at once; one that is known already stays as it is but for being sent. */
export async function keepEvents(events: readonly KeptEvent[]): Promise<void> {
  if (events.some(waitsToBeSent)) mayWait.value = true
  const tx = (await floor()).transaction('events', 'readwrite', STRICT)
  await Promise.all([...events.map((event) => tx.store.put(plain(event))), tx.done])
}

export async function eventsKept(run: string): Promise<KeptEvent[]> {
  return (await floor()).getAllFromIndex('events', 'run', run)
}

/** Runs of this account that go on on this device: begun in the last hours, one that was left waiting long ago is none. */
export async function runsGoing(account: string, now: number): Promise<KeptRun[]> {
  const runs = (await (await floor()).getAll('runs')).filter((one) => one.account === account && !one.over)
  return runs.filter((one) => now - one.begun < GOING_S).sort((a, b) => a.begun - b.begun)
}

/** Runs of which something is not sent yet: those of one account, or of all. */
export async function unsentRuns(account?: string): Promise<{ run: KeptRun; unsent: KeptEvent[] }[]> {
  const db = await floor()
  const found: { run: KeptRun; unsent: KeptEvent[] }[] = []
  for (const run of await db.getAll('runs')) {
    if (account !== undefined && run.account !== account) continue
    const unsent = (await db.getAllFromIndex('events', 'run', run.id)).filter(waitsToBeSent)
    if (!run.sent || unsent.length > 0) found.push({ run, unsent })
  }
  return found
}

export const waitsToBeSent = (event: KeptEvent): boolean => !event.sent && !event.refused

export async function keepSheet(account: string, sheet: FloorSheet): Promise<void> {
  const tx = (await floor()).transaction('sheets', 'readwrite', STRICT)
  await Promise.all([tx.store.put({ entry: sheet.entry, account, day: sheet.day, sheet: plain(sheet) }), tx.done])
}

export async function sheetKept(entry: string, account: string): Promise<FloorSheet | undefined> {
  const kept = await (await floor()).get('sheets', entry)
  return kept?.account === account ? kept.sheet : undefined
}

export async function sheetsKept(account: string): Promise<FloorSheet[]> {
  return (await (await floor()).getAll('sheets')).filter((one) => one.account === account).map((one) => one.sheet)
}

/** Drop what is over and sent, and what nobody sent in 30 days; sheets of other days. `known`: by the server's clock. */
export async function tidy(now: number, today: string, known: boolean): Promise<void> {
  const db = await floor()
  const waiting = new Set((await unsentRuns()).map(({ run }) => run.id))
  for (const run of await db.getAll('runs')) {
    const age = (now - run.keptAt) / 86_400
    if (waiting.has(run.id) && (run.measured === false || age < -1 || age > NEVER_SO_OLD_DAYS)) {
      // Its 30 days begin when it is known what day it is.
      if (known) await keepRun({ ...run, keptAt: now, measured: true })
      continue
    }
    const old = age > KEPT_DAYS
    const done = run.over && !waiting.has(run.id) && now - run.keptAt > 86_400
    if (old || done) await forgetRun(run.id)
  }
  for (const sheet of await db.getAll('sheets')) if (sheet.day < today) await db.delete('sheets', sheet.entry)
}

export async function forgetRun(id: string): Promise<void> {
  const tx = (await floor()).transaction(['runs', 'events'], 'readwrite', STRICT)
  const keys = await tx.objectStore('events').index('run').getAllKeys(id)
  await Promise.all([
    ...keys.map((key) => tx.objectStore('events').delete(key)),
    tx.objectStore('runs').delete(id),
    tx.done,
  ])
}

/**
 * Who signs out leaves nothing but what could not be sent: that stays, closed to others, without names of people.
 * `erased`: the account is gone, and nobody can send anything of it any more.
 */
export async function forgetAccount(account: string, erased = false): Promise<void> {
  const db = await floor()
  const waiting = new Set(erased ? [] : (await unsentRuns(account)).map(({ run }) => run.id))
  for (const run of await db.getAll('runs')) {
    if (run.account !== account) continue
    if (waiting.has(run.id)) await keepRun({ ...run, with: null })
    else await forgetRun(run.id)
  }
  for (const sheet of await db.getAll('sheets')) if (sheet.account === account) await db.delete('sheets', sheet.entry)
}

/** As it can be kept: what is watched for changes cannot. */
function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}
