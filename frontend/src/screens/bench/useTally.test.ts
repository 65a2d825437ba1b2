import { expect, test } from 'vitest'
import { ref } from 'vue'

import type { Figures, TallyFigure } from '@/api/types'

import { useBigFigures, useFamilies } from './useTally'

const FIGURES = {
  total_s: 2400,
  work_s: 1535,
  density: 0.66,
  timetable_s: 2400,
  headline: { total_s: 1900, work_s: 1095, density: 0.6, work_to_rest: 1.47 },
  reps: { called: 0, paced: 116, estimated: 295 },
  volume_kg: 3116,
  landings: { low: 0, medium: 34, high: 0 },
  rates: { reps_per_min: 13.4 },
  effort: { rpe: 5.8, load: 234, mean_uptake: 0.5, peak_uptake: 0.9, above_80_s: 108 },
  balance: { rows: { squat: { work_s: 240, share: 0.2 }, pull: { work_s: 0, share: 0 } } },
  exits: [],
  blocks: [],
} as unknown as Figures
const line = (family: TallyFigure['family'], figure: string, more: Partial<TallyFigure> = {}): TallyFigure => ({
  figure,
  label: figure,
  unit: 's',
  family,
  unless_same_as: null,
  when: 'always',
  ...more,
})
const TABLE = ref<TallyFigure[]>([
  line('time', 'headline.density', { unit: 'share' }),
  line('time', 'headline.total_s', { unless_same_as: 'total_s' }),
  line('time', 'total_s'),
  line('time', 'work_s', { unless_same_as: 'headline.work_s' }),
  line('time', 'density', { unit: 'share', unless_same_as: 'headline.density' }),
  line('time', 'timetable_s', { unless_same_as: 'total_s' }),
  line('effort', 'effort.mean_uptake', { unit: 'share' }),
  line('volume', 'volume_kg', { unit: 'kg' }),
  line('volume', 'landings.low', { unit: 'count', when: 'above-zero' }),
  line('volume', 'rates.reps_per_min', { unit: 'per-min', when: 'there' }),
])
const said = (figures: Figures): string[] => {
  const of = ref(figures) as never
  const big = useBigFigures(of).value.flatMap((one) => one.parts)
  const rows = useFamilies(of, TABLE).value.flatMap((one) => one.rows)
  return [...big, ...rows].map((row) => row.figure)
}
const changed = (change: object): Figures => ({ ...FIGURES, ...change }) as Figures

test('no figure is said twice', () => {
  const all = said(FIGURES)
  expect(new Set(all).size).toBe(all.length)
  expect(all).toContain('headline.work_s')
})
test('the hall is booked for as long as the session lasts, unless it says otherwise', () => {
  expect(said(FIGURES)).not.toContain('timetable_s')
  expect(said(changed({ timetable_s: 2700 }))).toContain('timetable_s')
})
test('a session all of which counts says each figure once, as the whole', () => {
  const all = said(changed({ headline: { ...FIGURES.headline, total_s: 2400, work_s: 1535, density: 0.66 } }))
  expect(all).not.toContain('headline.total_s')
  expect(all).not.toContain('work_s')
  expect(all).not.toContain('density')
  expect(all).toContain('total_s')
})
test('what works nothing has no row, low landings are said only where there are any, exits only where there is one', () => {
  const all = said(FIGURES)
  expect(all).toContain('balance.rows.squat.share')
  expect(all).not.toContain('balance.rows.pull.share')
  expect(all).not.toContain('landings.low')
  expect(useFamilies(ref(FIGURES) as never, TABLE).value.map((one) => one.name)).toEqual([
    'time',
    'volume',
    'effort',
    'balance',
  ])
  expect(said(changed({ landings: { low: 3, medium: 0, high: 0 } }))).toContain('landings.low')
})
test('without figures nothing is said', () => {
  expect([useBigFigures(ref(null)).value, useFamilies(ref(null), TABLE).value]).toEqual([[], []])
})
test('a line of the table is told in its unit, and left out where it has no value to tell', () => {
  const rows = useFamilies(ref(FIGURES) as never, TABLE).value.find((one) => one.name === 'volume')?.rows
  expect(rows?.map((row) => [row.figure, row.value])).toEqual([
    ['volume_kg', '3,116 kg'],
    ['rates.reps_per_min', '13.4'],
  ])
  expect(said(changed({ rates: { reps_per_min: null } }))).not.toContain('rates.reps_per_min')
  expect(said(changed({ rates: { reps_per_min: 0 } }))).toContain('rates.reps_per_min')
})
