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

test('rounds are counted in the queue, a copy too; a single one is none', () => {
  const round = (kind: Beat['kind'], set: number | null, run = 0) => ({ ...beat('clock', 20, run), kind, set })
  const beats = [round('work', 4), round('rest', 4), round('work', 9), round('rest', null), round('work', 11, 1)]
  const timer = new Timer(beats, 'never')
  timer.apply({ t: 0, do: 'start' })
  expect(stateAt(timer, 10).round).toEqual({ round: 1, of: 2 })
  timer.apply({ t: 10, do: 'again', what: 'round' })
  expect(stateAt(timer, 11).round).toEqual({ round: 1, of: 3 })
  expect(stateAt(timer, 11).pass.length).toBe(6)
  expect(stateAt(timer, 91).round).toEqual({ round: 3, of: 3 })
  expect(stateAt(timer, 105).round).toBeNull()
  expect(stateAt(timer, 125).round).toBeNull()
})
