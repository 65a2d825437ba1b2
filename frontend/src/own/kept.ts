// What a phone keeps of its holder's own link: the page as it was last seen, and what is said until it is sent. What was
// said of health is here until then, and never after.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

import type { OwnPage, OwnSaid } from '@/api/types'

/** The page of the link that was last open here. `mark`: which token opened it (`markOf`); '' where that is not known. */
interface PageKept {
  page: OwnPage
  mark: string
}

/** Something that was said. `name`: who said it, for whoever holds the phone next. */
interface SaidKept {
  link: number
  said: OwnSaid
  name?: string
}

/** What others said by their own links and this phone could not send: it waits until they open their link here. */
export interface OthersWaiting {
  name: string
  count: number
}

interface Own extends DBSchema {
  page: { key: 'page'; value: PageKept | OwnPage }
  said: { key: string; value: SaidKept }
}

const OTHERS_DAYS = 30

const STRICT = { durability: 'strict' } as const
let opened: Promise<IDBPDatabase<Own>> | null = null
function own(): Promise<IDBPDatabase<Own>> {
  opened ??= openDB<Own>('own-link', 1, {
    upgrade(db) {
      db.createObjectStore('page')
      db.createObjectStore('said', { keyPath: 'said.number' })
    },
  })
  return opened
}

export async function pageKept(): Promise<PageKept | undefined> {
  const kept = await (await own()).get('page', 'page')
  // An earlier release kept the page alone.
  return kept && !('page' in kept) ? { page: kept, mark: '' } : kept
}

export async function keepPage(page: OwnPage, mark: string): Promise<void> {
  await (await own()).put('page', { page: plain(page), mark }, 'page')
}

/** The phone is another's now: the page goes; what was said waits, for its own link alone. */
export async function dropPage(): Promise<void> {
  await (await own()).clear('page')
}

/** By what a token is known again on this phone: too short to find the token by. */
export function markOf(token: string): string {
  let mark = 0x811c9dc5
  for (const sign of token) mark = Math.imul(mark ^ (sign.codePointAt(0) ?? 0), 0x01000193) >>> 0
  return token && mark.toString(36)
}

/** Keep something that is said, on the disk before it is confirmed. */
export async function keepSaid(link: number, said: OwnSaid, name: string): Promise<void> {
  const tx = (await own()).transaction('said', 'readwrite', STRICT)
  await Promise.all([tx.store.put({ link, said: plain(said), name }), tx.done])
}

/** What waits to be sent, in the order in which it was said. */
export async function saidKept(link: number): Promise<OwnSaid[]> {
  const all = (await (await own()).getAll('said')).filter((one) => one.link === link).map((one) => one.said)
  return all.sort((a, b) => a.at.localeCompare(b.at))
}

/** What waits here for other links; what nobody sent in 30 days goes. */
export async function othersKept(link: number | undefined): Promise<OthersWaiting[]> {
  const db = await own()
  const oldest = new Date(Date.now() - OTHERS_DAYS * 86_400_000).toISOString()
  const found = new Map<number, OthersWaiting>()
  for (const one of await db.getAll('said')) {
    if (one.link === link) continue
    if (one.said.at < oldest) await db.delete('said', one.said.number)
    else found.set(one.link, { name: one.name ?? '', count: (found.get(one.link)?.count ?? 0) + 1 })
  }
  return [...found.values()]
}

/** It is there, or will never be taken: it stands here no more. */
export async function dropSaid(numbers: readonly string[]): Promise<void> {
  const tx = (await own()).transaction('said', 'readwrite', STRICT)
  await Promise.all([...numbers.map((number) => tx.store.delete(number)), tx.done])
}

/** The link is over: nothing of it stays on this phone. */
export async function forgetOwn(link: number | undefined): Promise<void> {
  const db = await own()
  await db.clear('page')
  for (const one of await db.getAll('said')) if (one.link === link) await db.delete('said', one.said.number)
}

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
