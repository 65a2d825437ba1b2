// Scores as they are typed, and as they are shown.
import { clock } from './format'

export type Typed = { rounds: number; reps: number } | { time_s: number }

/** A score as it was typed: rounds and reps ("5+12", "5"), or a time ("7:40"); null for anything else. */
export function typedScore(text: string): Typed | null {
  const time = /^\s*(\d{1,3}):([0-5]\d)\s*$/.exec(text)
  if (time) return { time_s: Number(time[1]) * 60 + Number(time[2]) }
  const rounds = /^\s*(\d{1,4})(?:\s*\+\s*(\d{1,4}))?\s*$/.exec(text)
  return rounds ? { rounds: Number(rounds[1]), reps: Number(rounds[2] ?? 0) } : null
}

/** A score as it is written; '' for none. */
export function scoreText(made: Partial<Record<'rounds' | 'reps' | 'time_s' | 'rung', unknown>> | undefined): string {
  if (!made) return ''
  if (typeof made.time_s === 'number') return clock(made.time_s)
  if (typeof made.rung === 'number') return String(made.rung)
  if (typeof made.rounds !== 'number') return ''
  return typeof made.reps === 'number' && made.reps > 0 ? `${made.rounds}+${made.reps}` : String(made.rounds)
}
