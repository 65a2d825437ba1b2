import { expect, test } from 'vitest'

import type { Beat } from '@/api/types'
import { Timer } from '@/timer/timer'

import { shownTime, stateAt } from './runState'

const beat = (ends: Beat['ends'], s: number, run = 0): Beat =>
  ({ kind: 'work', ends, s, self_paced: ends === 'tap', block: run, run, set: null, entry: `${run}`, passage: `${run}`,
    lines: [], marks: [], next: '', at: { block: 0 } }) as unknown as Beat // prettier-ignore

test('a clock is counted down, its last second seen whole, and never below none', () => {
  const timer = new Timer([beat('clock', 20)])
  timer.apply({ t: 0, do: 'start' })
  expect([0, 0.4, 1, 19.01, 19.999].map((t) => shownTime(stateAt(timer, t)))).toEqual([
    '0:20',
    '0:20',
    '0:19',
    '0:01',
    '0:01',
  ])
})

test('what a tap ends is counted up; what is waited for shows how long it will be', () => {
  const timer = new Timer([beat('tap', 90), beat('clock', 45, 1)])
  timer.apply({ t: 0, do: 'start' })
  expect(shownTime(stateAt(timer, 61.9))).toBe('1:01')
  timer.apply({ t: 70, do: 'next' })
  const waiting = stateAt(timer, 75)
  expect([waiting.mode, shownTime(waiting), waiting.following]).toEqual(['waiting', '0:45', null])
})
