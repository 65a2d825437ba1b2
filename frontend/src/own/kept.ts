// What a phone keeps of its holder's own link: the page as it was last seen, and what is said until it is sent. What was
// said of health is here until then, and never after.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

import type { OwnPage, OwnSaid } from '@/api/types'

interface Own extends DBSchema {
  page: { key: 'page'; value: OwnPage }
  said: { key: string; value: { link: number; said: OwnSaid } }
}

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

export const pageKept = async (): Promise<OwnPage | undefined> => (await own()).get('page', 'page')

/** Keep the page; what is kept of another link goes: another phone's holder, or a new link of the same. */
export async function keepPage(page: OwnPage): Promise<void> {
  const db = await own()
  for (const one of await db.getAll('said')) if (one.link !== page.link) await db.delete('said', one.said.number)
  await db.put('page', plain(page), 'page')
}

/** Keep something that is said, on the disk before it is confirmed. */
export async function keepSaid(link: number, said: OwnSaid): Promise<void> {
  const tx = (await own()).transaction('said', 'readwrite', STRICT)
  await Promise.all([tx.store.put({ link, said: plain(said) }), tx.done])
}

/** What waits to be sent, in the order in which it was said. */
export async function saidKept(link: number): Promise<OwnSaid[]> {
  const all = (await (await own()).getAll('said')).filter((one) => one.link === link).map((one) => one.said)
  return all.sort((a, b) => a.at.localeCompare(b.at))
}

/** It is there, or will never be taken: it stands here no more. */
export async function dropSaid(numbers: readonly string[]): Promise<void> {
  const tx = (await own()).transaction('said', 'readwrite', STRICT)
  await Promise.all([...numbers.map((number) => tx.store.delete(number)), tx.done])
}

/** The link is over: nothing of it stays on this phone. */
export async function forgetOwn(): Promise<void> {
  const db = await own()
  await Promise.all([db.clear('page'), db.clear('said')])
}

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
