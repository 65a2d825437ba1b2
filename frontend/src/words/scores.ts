// Scores as they are typed, and as they are shown.
import { clock } from './format'
import { fromUnits, inUnits } from './units'

export type Typed = { rounds: number; reps: number } | { time_s: number }

/** A score as it was typed: rounds and reps ("5+12", "5"), or a time ("7:40"); null for anything else. */
export function typedScore(text: string): Typed | null {
  const time = /^\s*(\d{1,3}):([0-5]\d)\s*$/.exec(text)
  if (time) return { time_s: Number(time[1]) * 60 + Number(time[2]) }
  const rounds = /^\s*(\d{1,4})(?:\s*\+\s*(\d{1,4}))?\s*$/.exec(text)
  return rounds ? { rounds: Number(rounds[1]), reps: Number(rounds[2] ?? 0) } : null
}

/** Kilograms and repetitions of one set. */
export type LoggedSet = { kg: number; reps: number }

const ONE_SET = /^(?:(\d{1,4}(?:[.,]\d{1,2})?)\s*[x×*])?\s*(\d{1,4})$/i

/** Sets as they were typed, in this person's units: "60×5 65×3", or "12 10 8" unweighed; null for anything else. */
export function typedSets(text: string): LoggedSet[] | null {
  const tight = text.trim().replace(/\s*([x×*])\s*/gi, '$1')
  if (tight === '') return []
  const found = tight.split(/[\s;]+/).map((one) => ONE_SET.exec(one))
  return found.every((one) => one !== null)
    ? found.map((one) => ({ kg: fromUnits(Number((one[1] ?? '0').replace(',', '.')), 'kg'), reps: Number(one[2]) }))
    : null
}

/** Sets as they are written; '' for none. */
export const setsText = (sets: readonly Partial<LoggedSet>[]): string =>
  sets.map(({ kg, reps }) => (kg ? `${inUnits(kg, 'kg')}×${reps ?? 0}` : String(reps ?? 0))).join(' ')

/** A score as it is written; '' for none. */
export function scoreText(made: Partial<Record<'rounds' | 'reps' | 'time_s' | 'rung', unknown>> | undefined): string {
  if (!made) return ''
  if (typeof made.time_s === 'number') return clock(made.time_s)
  if (typeof made.rung === 'number') return String(made.rung)
  if (typeof made.rounds !== 'number') return ''
  return typeof made.reps === 'number' && made.reps > 0 ? `${made.rounds}+${made.reps}` : String(made.rounds)
}
