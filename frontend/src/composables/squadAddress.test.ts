import { beforeEach, expect, test } from 'vitest'
import type { RouteLocationNormalized } from 'vue-router'

import type { Me } from '@/api/types'

import { inItsSquad, turnToSquad } from './squadAddress'
import { account, chooseSquad, squadNow } from './useAccount'

const squads = [
  { id: 3, name: 'Ridge', role: 'coach' },
  { id: 8, name: 'Vale', role: 'athlete' },
] as Me['squads']
const to = (query: Record<string, string> = {}, ofSquad = true) =>
  ({ path: '/week', hash: '', query, meta: { ofSquad } }) as unknown as RouteLocationNormalized

beforeEach(() => {
  account.value = { name: 'osk', squads, units: 'metric' as const, shared: false, notices: [] }
  chooseSquad(3)
})

test('who is in several squads has the address say which, with all else that it says', () => {
  expect(inItsSquad(to({ day: '2026-12-07' }))).toEqual({
    path: '/week',
    hash: '',
    query: { day: '2026-12-07', squad: 3 },
  })
})

test('who is in one has nothing to say', () => {
  account.value = { name: 'osk', squads: squads.slice(0, 1), units: 'metric' as const, shared: false, notices: [] }
  expect(inItsSquad(to())).toBe(true)
})

test('an address that is of no squad stays as it is', () => {
  expect(inItsSquad(to({}, false))).toBe(true)
})

test('an address turns to its squad', () => {
  expect(inItsSquad(to({ squad: '8' }))).toBe(true)
  expect(squadNow.value).toBe(8)
})

test.each(['9', 'x', ''])('a squad that is none of one’s own is refused: %j', (squad) => {
  expect(inItsSquad(to({ squad }))).toEqual({ name: 'nowhere', params: { rest: ['week'] } })
  expect(squadNow.value).toBe(3)
})

test('what is of another squad turns the screens to it, once', () => {
  expect([turnToSquad(3), turnToSquad(8), turnToSquad(8), turnToSquad(9)]).toEqual([false, true, false, false])
})
