/** A score as it was typed: rounds and reps ("5+12", "5"), or a time ("7:40"); null for anything else. */
export function typedScore(text: string): { rounds: number; reps: number } | { time_s: number } | null {
  const time = /^\s*(\d{1,3}):([0-5]\d)\s*$/.exec(text)
  if (time) return { time_s: Number(time[1]) * 60 + Number(time[2]) }
  const rounds = /^\s*(\d{1,4})(?:\s*\+\s*(\d{1,4}))?\s*$/.exec(text)
  return rounds ? { rounds: Number(rounds[1]), reps: Number(rounds[2] ?? 0) } : null
}
