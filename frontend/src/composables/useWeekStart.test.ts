import dayjs from 'dayjs'
import { expect, test } from 'vitest'

import type { Me } from '@/api/types'

import { account } from './useAccount'
import { useWeekStart } from './useWeekStart'

test.each([
  [0, 1],
  [5, 6],
  [6, 0],
])('weeks of a squad that begin on day %i begin on day %i of a calendar', (kept, drawn) => {
  account.value = { name: 'osk', squads: [{ id: 3, name: 'Ridge', role: 'coach', week_start: kept }] } as Me
  const { name } = useWeekStart().value
  expect(dayjs('2026-12-09').locale(name).startOf('week').day()).toBe(drawn)
})
