import { readFileSync } from 'node:fs'

import { expect, test } from 'vitest'

import type { Hold, Layout, TimerBeat } from './beats'
import { type RunEvent } from './events'
import { publishedPlayed } from './played'
import { inOrder, replay } from './replay'

interface Case {
  id: string
  run: { hold?: Hold; events: RunEvent[]; until?: number }
  beats: TimerBeat[]
  layouts?: Record<string, Layout>
  played: object
}

// The core plays the same runs (tests/core/test_floor.py): one definition of what events mean.
const cases = JSON.parse(readFileSync(new URL('../../../tests/cases/runs.json', import.meta.url), 'utf8')) as Case[]

/** Replay a case as the browser does: what scores and changes lay out anew comes from elsewhere. */
function played(one: Case): object {
  const events = inOrder(one.run.events, one.run.until)
  const timer = replay({
    beats: one.beats,
    events: one.run.events,
    hold: one.run.hold,
    until: one.run.until,
    layoutOf: (event) => one.layouts?.[String(events.indexOf(event))] ?? null,
  })
  return publishedPlayed(timer, one.run.until ?? events.at(-1)?.t ?? 0)
}

test.each(cases.map((one) => [one.id, one] as const))('%s', (_, one) => {
  expect(played(one)).toEqual(one.played)
})

test('there are cases', () => {
  expect(cases.length).toBeGreaterThan(60)
})
