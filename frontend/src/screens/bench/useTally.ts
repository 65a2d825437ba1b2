// What the tally says, and in which order: the four big figures, then the families. No figure is said twice.
import { computed, type Ref } from 'vue'

import type { Figures, Term } from '@/api/types'
import { clock, percent, ratio, tenth, whole } from '@/words/format'
import { TALLY_PANEL as say } from '@/words/texts/bench'

import type { Lit } from './light'

/** A figure in a line of its own: what opens its arithmetic, and what lights with it. */
export interface Row {
  figure: string
  label: string
  value: string
  unit?: Term['unit']
  lights?: Lit
}

/** One of the four that stand first, of one figure or of several that are never added up. */
export interface Big {
  label: string
  parts: Row[]
}

export function useBigFigures(figures: Ref<Figures | null>) {
  return computed<Big[]>(() => {
    const f = figures.value
    if (!f) return []
    return [
      {
        label: say.workTime,
        parts: [{ figure: 'headline.work_s', label: say.workTime, value: clock(f.headline.work_s), unit: 's' }],
      },
      {
        label: say.workRest,
        parts: [{ figure: 'headline.work_to_rest', label: say.workRest, value: ratio(f.headline.work_to_rest) }],
      },
      {
        label: say.calledPacedGuessed,
        parts: [
          { figure: 'reps.called', label: say.repsCalled, value: whole(f.reps.called), lights: { kind: 'called' } },
          { figure: 'reps.paced', label: say.repsPaced, value: whole(f.reps.paced), lights: { kind: 'paced' } },
          {
            figure: 'reps.estimated',
            label: say.repsGuessed,
            value: whole(f.reps.estimated),
            lights: { kind: 'estimated' },
          },
        ],
      },
      {
        label: say.effort,
        parts: [{ figure: 'effort.rpe', label: say.effortTo, value: tenth(f.effort.rpe), unit: 'effort' }],
      },
    ]
  })
}

const seconds = (figure: string, label: string, value: number): Row => ({
  figure,
  label,
  value: clock(value),
  unit: 's',
})
const share = (figure: string, label: string, value: number | null): Row => ({
  figure,
  label,
  value: percent(value),
  unit: 'share',
})

/** The parts that count first; the whole session only where it is another figure. */
function timeRows(f: Figures): Row[] {
  const partly = f.headline.total_s !== f.total_s
  return [
    share('headline.density', say.densityMainAndFinisher, f.headline.density),
    ...(partly ? [seconds('headline.total_s', say.lengthMainAndFinisher, f.headline.total_s)] : []),
    seconds('total_s', say.lengthWholeSession, f.total_s),
    ...(f.work_s === f.headline.work_s ? [] : [seconds('work_s', say.workWholeSession, f.work_s)]),
    ...(f.density === f.headline.density ? [] : [share('density', say.densityWholeSession, f.density)]),
    ...(f.timetable_s === f.total_s ? [] : [seconds('timetable_s', say.toBookTheHallFor, f.timetable_s)]),
  ]
}
function volumeRows(f: Figures): Row[] {
  const { low, medium, high } = f.landings
  return [
    { figure: 'volume_kg', label: say.volumeLoad, value: `${whole(f.volume_kg)} kg` },
    ...(low > 0 ? [{ figure: 'landings.low', label: say.landingsLow, value: whole(low) }] : []),
    { figure: 'landings.medium', label: say.landingsMedium, value: whole(medium) },
    { figure: 'landings.high', label: say.landingsHigh, value: whole(high) },
    ...(f.rates.reps_per_min === null
      ? []
      : [{ figure: 'rates.reps_per_min', label: say.repsAMinute, value: tenth(f.rates.reps_per_min) }]),
  ]
}
const effortRows = ({ effort }: Figures): Row[] => [
  share('effort.mean_uptake', say.meanUptake, effort.mean_uptake),
  share('effort.peak_uptake', say.peakUptake, effort.peak_uptake),
  seconds('effort.above_80_s', say.timeAbove, effort.above_80_s),
  { figure: 'effort.load', label: say.sessionLoadEffortMinutes, value: whole(effort.load), unit: 'load' },
]
const balanceRows = ({ balance }: Figures): Row[] =>
  Object.entries(balance.rows)
    .filter(([, row]) => row.work_s > 0 || row.share > 0)
    .map(([name, row]) => ({ ...share(`balance.rows.${name}.share`, name, row.share), lights: { row: name } }))
const exitRows = (f: Figures): Row[] =>
  f.exits.map((exit, index) => {
    const block = f.blocks.find((one) => one.id === exit.before)
    return {
      figure: `exits.${index}.total_s`,
      label: say.endsBefore(block?.title ?? block?.part ?? exit.before),
      value: say.loadBy(clock(exit.total_s), whole(exit.load)),
      unit: 's',
    }
  })

/** The families under the big figures; one that has nothing to say is left out. */
export function useFamilies(figures: Ref<Figures | null>) {
  return computed(() => {
    const f = figures.value
    if (!f) return []
    return [
      { name: 'time', label: say.time, rows: timeRows(f) },
      { name: 'volume', label: say.volume, rows: volumeRows(f) },
      { name: 'effort', label: say.effort, rows: effortRows(f) },
      { name: 'balance', label: say.balance, rows: balanceRows(f) },
      { name: 'exits', label: say.exits, rows: exitRows(f) },
    ].filter((family) => family.rows.length > 0)
  })
}
