import { expect, test } from 'vitest'

import type { Beat } from '@/api/types'

import CASES from '../../../tests/cases/dealing.json'

import { dealt, standing, turnOf } from './dealing'

const person = (name: string, team: number | null = null) => ({ name, team })
const people = (count: number) => Array.from({ length: count }, (_, n) => person(`P${n}`))
const names = (groups: { name: string }[][]) => groups.map((group) => group.map((one) => one.name).join(' '))

test('groups are as even as can be, and nobody is left out', () => {
  for (let count = 0; count < 30; count++)
    for (let stations = 1; stations < 9; stations++) {
      const groups = dealt(people(count), stations)
      const sizes = groups.map((group) => group.length)
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1)
      expect(groups.flat().map((one) => one.name)).toEqual(people(count).map((one) => one.name))
    }
})

test.each(CASES)('$people people at $stations stations are dealt as the core deals them', (one) => {
  expect(dealt(people(one.people), one.stations).map((group) => group.length)).toEqual(one.groups)
})

test('as many teams as stations stay together, however large they are', () => {
  const split = [person('A', 1), person('B', 1), person('C', 1), person('D', 2)]
  expect(names(dealt(split, 2))).toEqual(['A B C', 'D'])
  expect(names(dealt(split, 4))).toEqual(['A', 'B', 'C', 'D'])
})

const STATIONS = ['North', 'South', 'West']
const turn = (at: string | number): Beat =>
  ({
    kind: 'work',
    run: 0,
    at: { station: at },
    lines: STATIONS.map((station) => ({ station, name: 'swing' })),
  }) as Beat

test('everybody moves on to the next station, and is back after all of them', () => {
  const beats = [0, 1, 2, 0].map((at) => turn(at))
  const at = (n: number) => names(standing(beats, beats[n] as Beat, people(3)))
  expect(at(0)).toEqual(['P0', 'P1', 'P2'])
  expect(at(1)).toEqual(['P2', 'P0', 'P1'])
  expect(at(2)).toEqual(['P1', 'P2', 'P0'])
  expect(at(3)).toEqual(at(0))
})

test('stations that go by an id turn as well', () => {
  const beats = ['x', 'a', 'm'].map((at) => turn(at))
  expect(beats.map((beat) => turnOf(beats, beat))).toEqual([0, 1, 2])
})

test('where there are no stations, nobody stands anywhere', () => {
  const beat = { kind: 'work', run: 0, at: { block: 0 }, lines: [{ name: 'burpee' }] } as unknown as Beat
  expect(standing([beat], beat, people(4))).toEqual([])
})
