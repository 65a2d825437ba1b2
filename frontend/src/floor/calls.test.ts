import { expect, test } from 'vitest'

import type { Beat } from '@/api/types'
import { Timer } from '@/timer/timer'

import { ALL_CALLS as ALL, CALL_KINDS, tonesDue, waitingTones, wordsDue } from './calls'
import { Tones, type AudioDesk } from './tones'

type Mark = Beat['marks'][number]

function beat(kind: Beat['kind'], s: number, marks: Mark[] = [], next = ''): Beat {
  return {
    kind, ends: 'clock', s, self_paced: false, block: 0, run: 0, set: 0, entry: 'a', passage: 'a', at: { block: 0 },
    lines: [], next, marks,
  } as Beat // prettier-ignore
}
const mark = (at_s: number, kind: Mark['kind'], say = ''): Mark => ({ at_s, kind, say })

/** An hour of windows and rests, as the core marks them. */
function hour(): Beat[] {
  const work = beat('work', 40, [mark(20, 'half'), mark(30, 'ten-left'), mark(35, 'last-five')])
  const rest = beat('rest', 20, [mark(17, 'count-in', 'push-up')], 'push-up')
  return Array.from({ length: 120 }, (_, n) => (n % 2 ? { ...rest } : { ...work }))
}

test('an hour by a made-up clock: every mark once, at its moment, whenever the page looks', () => {
  const beats = hour()
  const timer = new Timer(beats)
  timer.apply({ t: 0, do: 'start' })
  const heard: number[] = []
  let t = 0
  let known = -1
  // The page looks now and then, never at the same distance; tones are set when a beat began since the last look.
  for (let step = 0; t < 3_600; step++) {
    timer.advance(t)
    const here = timer.queue.here
    if (here && timer.played.length !== known) {
      known = timer.played.length
      heard.push(...tonesDue(timer, here.beat as Beat, t, ALL).map((tone) => t + tone.inS))
    }
    t += 0.05 + (step % 7) * 0.01
  }
  const wanted: number[] = []
  for (let minute = 0; minute < 60; minute++) {
    const at = minute * 60
    wanted.push(at + 20, at + 30, at + 35, at + 40, at + 57, at + 60)
  }
  const off = heard.map((when, index) => Math.abs(when - (wanted[index] ?? Infinity)))
  expect(heard.length).toBe(wanted.length)
  expect(Math.max(...off)).toBeLessThan(1e-6)
})

test('a count-in goes with the end of a rest that was made longer', () => {
  const rest = beat('rest', 20, [mark(17, 'count-in')])
  const timer = new Timer([rest, beat('work', 40)])
  timer.apply({ t: 0, do: 'start' })
  timer.apply({ t: 5, do: 'more', s: 10 })
  expect(tonesDue(timer, rest, 5, ALL)).toEqual([
    { shape: 'count-in', inS: 22 },
    { shape: 'change', inS: 25 },
  ])
})

test('marks that are not wanted do not sound, the change does', () => {
  const work = beat('work', 40, [mark(20, 'half'), mark(0, 'last-round')])
  const timer = new Timer([work])
  timer.apply({ t: 0, do: 'start' })
  expect(tonesDue(timer, work, 0, { ...ALL, off: ['half'] })).toEqual([{ shape: 'change', inS: 40 }])
})

test('what comes next is said as a rest begins, and not once it is half over', () => {
  const rest = beat('rest', 20, [], 'push-up')
  const timer = new Timer([rest])
  timer.apply({ t: 0, do: 'start' })
  expect(wordsDue(timer, rest, 0, ALL).map((due) => due.words)).toEqual(['Next: push-up'])
  expect(wordsDue(timer, rest, 10, ALL)).toEqual([])
  expect(wordsDue(timer, rest, 0, { ...ALL, off: ['next'] })).toEqual([])
})

test('each call can be switched off, and no other one goes with it', () => {
  const kinds = CALL_KINDS.filter((kind) => kind !== 'next' && kind !== 'waiting' && kind !== 'count-in')
  const work = beat(
    'work',
    60,
    kinds.map((kind, n) => mark(n + 1, kind, 'own words')),
  )
  const timer = new Timer([work])
  timer.apply({ t: 0, do: 'start' })
  const all = tonesDue(timer, work, 0, ALL).length
  for (const kind of kinds) {
    const sounds = kind === 'last-round' ? 0 : 1
    expect(tonesDue(timer, work, 0, { ...ALL, off: [kind] }).length).toBe(all - sounds)
    const words = wordsDue(timer, work, 0, { ...ALL, off: [kind] })
    expect(wordsDue(timer, work, 0, ALL).length - words.length).toBe(kind === 'last-five' ? 0 : 1)
  }
})

test('while time waits there is a quiet call every twenty seconds', () => {
  expect(
    waitingTones(ALL)
      .slice(0, 3)
      .map((tone) => tone.inS),
  ).toEqual([20, 40, 60])
  expect(waitingTones({ ...ALL, off: ['waiting'] })).toEqual([])
})

test('where two run on one phone, the words begin with whose they are', () => {
  const rest = beat('rest', 20, [], 'push-up')
  const timer = new Timer([rest])
  timer.apply({ t: 0, do: 'start' })
  expect(wordsDue(timer, rest, 0, ALL, 'North').map((due) => due.words)).toEqual(['North: Next: push-up'])
})

/** An audio desk that writes down when tones begin and which are stopped. */
function desk(): { audio: AudioDesk; began: number[]; stopped: number } {
  const kept = { began: [] as number[], stopped: 0 }
  const param = { value: 0, setValueAtTime: () => param, linearRampToValueAtTime: () => param }
  const audio = {
    currentTime: 100,
    destination: {},
    createGain: () => ({ gain: param, connect: () => undefined }),
    createOscillator: () => ({
      frequency: param,
      connect: () => undefined,
      start: (when: number) => kept.began.push(when),
      stop: (when?: number) => (when === undefined ? (kept.stopped += 1) : undefined),
    }),
  } as unknown as AudioDesk
  return Object.assign(kept, { audio })
}

test('tones begin on the audio clock at their moments; set anew, the old ones are silent', () => {
  const { audio, began, ...rest } = desk()
  const kept = { began, ...rest }
  const tones = new Tones(audio, () => 0.5)
  tones.setAnew([
    { shape: 'count-in', inS: 4 },
    { shape: 'change', inS: 7 },
  ])
  expect(began).toEqual([104, 105, 106, 107])
  tones.setAnew([{ shape: 'mark', inS: 1 }])
  expect(began.slice(4)).toEqual([101, 101.16])
  expect(kept.began.length).toBe(6)
})

test('of a count-in that has begun only what is left is heard', () => {
  const { audio, began } = desk()
  new Tones(audio, () => 0.5).setAnew([{ shape: 'count-in', inS: -1.5 }])
  expect(began).toEqual([100.5])
})
