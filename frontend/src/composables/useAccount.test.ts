import { beforeEach, expect, test, vi } from 'vitest'

import { api } from '@/api/client'
import type { Me } from '@/api/types'

import { account, chooseSquad, signOut, squadNow } from './useAccount'

const me = {
  name: 'osk',
  squads: [
    { id: 3, name: 'Ridge', role: 'coach' },
    { id: 8, name: 'Vale', role: 'athlete' },
  ],
} as Me
beforeEach(() => {
  account.value = me
})

test("one is about the first squad until another is chosen, and only about one's own", () => {
  expect(squadNow.value).toBe(3)
  chooseSquad(8)
  expect(squadNow.value).toBe(8)
  account.value = { ...me, squads: me.squads.slice(0, 1) }
  expect(squadNow.value).toBe(3)
  account.value = null
  expect(squadNow.value).toBe(0)
})

test('signing out leaves nothing behind: what was kept is gone and the page begins anew', async () => {
  vi.spyOn(api, 'signOut').mockResolvedValueOnce(undefined)
  sessionStorage.setItem('squad', '8')
  localStorage.setItem('fine-tally/first-path', '{}')
  await signOut()
  expect([account.value, sessionStorage.getItem('squad'), localStorage.getItem('fine-tally/first-path')]).toEqual([
    null,
    null,
    null,
  ])
  expect(window.location.replace).toHaveBeenCalledWith('/sign-in')
})

test('signing out takes nothing that belongs to the device, a screen on the wall or the runs of other accounts', async () => {
  vi.spyOn(api, 'signOut').mockResolvedValueOnce(undefined)
  for (const key of ['runs-may-wait', 'floor-device', 'wall-screen']) localStorage.setItem(key, 'x')
  await signOut()
  expect(['runs-may-wait', 'floor-device', 'wall-screen'].map((key) => localStorage.getItem(key))).toEqual([
    'x',
    'x',
    'x',
  ])
})
