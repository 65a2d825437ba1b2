import { expect, test } from 'vitest'

import type { TimerBeat } from '@/timer/beats'
import type { RunEvent } from '@/timer/events'
import { replay } from '@/timer/replay'
import type { Timer } from '@/timer/timer'

import type { BlocksNow } from './blocksNow'
import { dueToLeave, secondsLeft, wholeSteps } from './leaveOut'

/** A block of rounds: 30 s of work and 30 s of rest, the last without. */
function block(number: number, rounds: number): TimerBeat[] {
  const beat = (kind: 'work' | 'rest', set: number): TimerBeat => ({
    kind, ends: 'clock', s: 30, self_paced: false, block: number, run: number, set: number * 100 + set,
    entry: `${number}`, passage: `block ${number}`,
  }) // prettier-ignore
  return Array.from({ length: rounds }, (_, set) =>
    set < rounds - 1 ? [beat('work', set), beat('rest', set)] : [beat('work', set)],
  ).flat()
}
const BEATS = [...block(0, 3), ...block(1, 3), ...block(2, 3), ...block(3, 2)]
const BLOCKS: BlocksNow = {
  blocks: [
    { title: '0', part: 'main' },
    { title: '1', part: 'main' },
    { title: '2', part: 'main', optional: 'skip' },
    { title: '3', part: 'cool-down' },
  ],
  passes: [],
  numberOf: (beat) => beat.block,
}
const WHOLE = 150 * 3 + 90

function at(t: number, ...events: RunEvent[]): Timer {
  return replay({ beats: BEATS, events: [{ t: 0, do: 'start' }, ...events], hold: 'never', until: t })
}

test('what is left is counted from the beats', () => {
  expect(secondsLeft(at(0), 0)).toBe(WHOLE)
  expect(secondsLeft(at(40), 40)).toBe(WHOLE - 40)
})

test('optional parts go first, then rounds, then blocks; the cool-down stays', () => {
  const timer = at(10)
  const left = WHOLE - 10
  expect(wholeSteps(timer, 10, left, BLOCKS).steps).toEqual([])
  expect(wholeSteps(timer, 10, left - 150, BLOCKS)).toEqual({
    steps: [{ run: 2, title: '2', after: null }],
    s: left - 150,
  })
  const rounds = wholeSteps(timer, 10, left - 200, BLOCKS)
  expect(rounds.steps.map((one) => [one.title, one.after?.number ?? null])).toEqual([
    ['2', null],
    ['1', 7],
  ])
  expect(rounds.s).toBe(left - 210)
  const all = wholeSteps(timer, 10, 0, BLOCKS)
  expect(all.steps.map((one) => one.title).sort()).toEqual(['0', '1', '2'])
  expect(all.steps.some((one) => one.title === '3')).toBe(false)
  expect(all.s).toBeGreaterThan(0)
})

test('what was chosen is due when its turn comes, and saves what it said', () => {
  const chosen = wholeSteps(at(10), 10, WHOLE - 10 - 200, BLOCKS)
  const events: RunEvent[] = []
  let timer = at(10)
  let t = 10
  for (; timer.mode !== 'over' && t < 1_000; t += 0.5) {
    timer = at(t, ...events)
    const due = dueToLeave(timer, chosen.steps)
    if (!due) continue
    events.push({ t, do: 'skip', what: 'block' })
    chosen.steps.splice(chosen.steps.indexOf(due), 1)
  }
  expect(events.length).toBe(2)
  expect(Math.abs(t - 10 - chosen.s)).toBeLessThan(2)
})

test('a round that was played already is not left out', () => {
  // In the second block, its second round.
  const timer = at(150 + 70)
  const { steps } = wholeSteps(timer, 220, 0, BLOCKS)
  expect(steps.find((one) => one.title === '1')).toBeUndefined()
  expect(steps.some((one) => one.title === '0')).toBe(false)
})
