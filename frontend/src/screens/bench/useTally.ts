// What the tally says, and in which order: the four big figures, then the families. No figure is said twice.
import { computed, type Ref } from 'vue'

import type { Figures, TallyFigure, Term } from '@/api/types'
import { clock, percent, ratio, tenth, whole } from '@/words/format'
import { valueText } from '@/words/rows'
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

/** A published figure by its dotted name; null where there is none. */
function valueAt(figures: Figures, name: string): number | null {
  let found: unknown = figures
  for (const part of name.split('.')) found = (found as Record<string, unknown> | null | undefined)?.[part]
  return typeof found === 'number' ? found : null
}
const OPENS = new Set<string>(['s', 'share', 'kg', 'effort', 'load', 'reps', 'count', 'ratio'])

/** Lines of a family, in the order of the table; what would say nothing new is left out, as the table says. */
function familyRows(figures: Figures, table: readonly TallyFigure[], family: TallyFigure['family']): Row[] {
  return table
    .filter((one) => one.family === family)
    .flatMap((one) => {
      const value = valueAt(figures, one.figure)
      const same = one.unless_same_as !== null && value === valueAt(figures, one.unless_same_as)
      const told = { always: true, there: value !== null, 'above-zero': value !== null && value > 0 }[one.when]
      if (same || !told) return []
      const unit = OPENS.has(one.unit) ? (one.unit as Term['unit']) : undefined
      return [{ figure: one.figure, label: one.label, value: valueText(value, one.unit), unit }]
    })
}
const balanceRows = ({ balance }: Figures): Row[] =>
  Object.entries(balance.rows)
    .filter(([, row]) => row.work_s > 0 || row.share > 0)
    .map(([name, row]) => ({
      figure: `balance.rows.${name}.share`,
      label: name,
      value: percent(row.share),
      unit: 'share',
      lights: { row: name },
    }))
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
export function useFamilies(figures: Ref<Figures | null>, table: Ref<readonly TallyFigure[]>) {
  return computed(() => {
    const f = figures.value
    if (!f) return []
    return [
      { name: 'time', label: say.time, rows: familyRows(f, table.value, 'time') },
      { name: 'volume', label: say.volume, rows: familyRows(f, table.value, 'volume') },
      { name: 'effort', label: say.effort, rows: familyRows(f, table.value, 'effort') },
      { name: 'balance', label: say.balance, rows: balanceRows(f) },
      { name: 'exits', label: say.exits, rows: exitRows(f) },
    ].filter((family) => family.rows.length > 0)
  })
}
