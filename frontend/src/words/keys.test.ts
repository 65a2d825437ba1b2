import { expect, test } from 'vitest'

import { keysOf } from './keys'
import { SCREEN_HELP } from './texts/help'
import routes from '@/router.ts?raw'

/** Doors, which say themselves what they are for, and what is looked at from afar. */
const WITHOUT = ['sign-in', 'join', 'reset', 'privacy', 'wall', 'nowhere']
const screens = [...routes.matchAll(/\bname: '([\w-]+)',[^}]*?component/gs)].map((one) => String(one[1]))

test('every screen says what it is for, and nothing else does', () => {
  expect(Object.keys(SCREEN_HELP).sort()).toEqual(screens.filter((one) => !WITHOUT.includes(one)).sort())
})
test.each(screens)('%s: each of its keys once, with what it does', (screen) => {
  const keys = keysOf(screen)
  expect(keys.length).toBeGreaterThan(0)
  expect(new Set(keys.map((one) => one.keys)).size).toBe(keys.length)
  expect(keys.every((one) => /[a-z]{3}/.test(one.does))).toBe(true)
})
