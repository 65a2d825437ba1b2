import type { RouteLocationNormalized, RouteLocationRaw } from 'vue-router'

import { account, chooseSquad, squadNow } from './useAccount'

/**
 * Who belongs to several squads has each address say which it is about, so that one that is handed on opens the same.
 * `true` to go on; another place where the squad is yet to be said, or is none of one's own.
 */
export function inItsSquad(to: RouteLocationNormalized): true | RouteLocationRaw {
  const squads = account.value?.squads ?? []
  const asked = to.query.squad
  if (asked !== undefined) {
    if (!squads.some((one) => String(one.id) === asked)) {
      return { name: 'nowhere', params: { rest: to.path.split('/').slice(1) } }
    }
    chooseSquad(Number(asked))
    return true
  }
  if (!to.meta.ofSquad || squads.length < 2) return true
  return { path: to.path, query: { ...to.query, squad: squadNow.value }, hash: to.hash }
}

/** What is on the screen is of that squad: it is the one that the screens are about from now on. Whether it was another. */
export function turnToSquad(id: number): boolean {
  if (squadNow.value === id || !account.value?.squads.some((one) => one.id === id)) return false
  chooseSquad(id)
  return true
}
