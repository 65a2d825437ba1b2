import type { Stave, StaveKind } from '@/api/types'
import { clock, measured, tenth, whole } from '@/words/format'

const COUNTED: Record<string, string> = { called: 'called', paced: 'paced', estimated: 'guessed' }
/** A window of a stave: its kind, and what it alone has. */
export interface StaveLine extends StaveKind {
  segment: number
  start: number
  seconds: number
  reps: number
  metres: number
  effort: number
  /** The rows that it has ink in. */
  rows: readonly string[]
}

/** The windows of a stave, as records. */
export function linesOf(stave: Stave): StaveLine[] {
  const rows = new Map<number, string[]>()
  for (const [row, , , , , segment] of stave.marks) {
    const name = stave.rows[row]?.name
    if (name !== undefined) rows.set(segment, [...(rows.get(segment) ?? []), name])
  }
  return stave.lines.flatMap(([segment, number, start, seconds, reps, metres, effort]) => {
    const kind = stave.kinds[number]
    return kind ? [{ ...kind, segment, start, seconds, reps, metres, effort, rows: rows.get(segment) ?? [] }] : []
  })
}

/** A window in one line: when, what, how much, which side (in the words of `sideOf`), how hard. */
export function lineText(line: StaveLine, sideOf: (key: string) => string): string {
  const parts = [`${clock(line.start)}–${clock(line.start + line.seconds)}`, line.name]
  if (line.reps > 0) parts.push(`${whole(line.reps)} reps ${COUNTED[line.counted] ?? ''}`)
  if (line.metres > 0) parts.push(measured(Math.round(line.metres), 'm'))
  if (line.kg !== null && line.kg !== undefined) parts.push(measured(line.kg, 'kg'))
  if (line.side) parts.push(sideOf(line.side))
  parts.push(`effort ${tenth(line.effort)}`)
  return parts.join(' · ')
}
