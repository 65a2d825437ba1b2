// The figures of a session in the list, as columns of a table or as a line of a card.
import type { SessionItem } from '@/api/types'
import { clock, percent, tenth, whole } from '@/words/format'
import { SESSION_TABLE as say } from '@/words/texts/sessions'

import type { SortBy } from './useSessionList'

export interface FigureColumn {
  by: SortBy
  label: string
  value: (figures: SessionItem['figures']) => string
}

export const COLUMNS: readonly FigureColumn[] = [
  { by: 'total_s', label: say.length, value: (f) => clock(f.total_s) },
  { by: 'work_s', label: say.work, value: (f) => clock(f.work_s) },
  { by: 'density', label: say.density, value: (f) => percent(f.density) },
  { by: 'rpe', label: say.effort, value: (f) => (f.rpe === null ? '–' : tenth(f.rpe)) },
  { by: 'load', label: say.load, value: (f) => (f.load === null ? '–' : whole(f.load)) },
]
