// What a beat says to do, in words: a line for each movement, and what comes after.
import type { Beat, TodoLine } from '@/api/types'
import { FLOOR as say } from '@/words/texts/floor'
import { TODO as word, TODO_SIDES } from '@/words/texts/todo'
import { amount, clock, weightText } from '@/words/format'

const sideWord = (side: string): string => TODO_SIDES[side] ?? side

/** A line of what to do: the movement, and how much of it. */
export interface TodoWords {
  name: string
  dose: string
  more: string
}

const listed = (value: number | number[], written: (one: number) => string): string =>
  Array.isArray(value) ? value.map(written).join(', ') : written(value)

function doseOf(line: TodoLine): string {
  const parts: string[] = []
  if (line.reps != null) parts.push(line.to_failure ? word.toFailure : listed(line.reps, String))
  if (line.seconds != null) parts.push(listed(line.seconds, clock))
  if (line.metres != null) parts.push(listed(line.metres, (one) => amount(one, 'm')))
  const dose = parts.join(word.orFor)
  const grown = line.grow ? word.growing(dose, line.grow) : dose
  return line.times ? word.times(line.times, grown || word.once) : grown
}

function loadOf(line: TodoLine): string {
  const load = line.load
  if (!load) return ''
  if (load.kg != null) {
    const weight = weightText({ kg: load.kg, unit: load.unit })
    return load.count && load.count > 1 ? word.pair(load.count, weight) : weight
  }
  if (load.pct_1rm != null) return word.percent(amount(load.pct_1rm, 'count'))
  return ''
}

/** What to say of a line; at a station where nothing is to be done, that. `cued`: with how it is done well. */
export function todoWords(line: TodoLine, cued = true): TodoWords {
  if (line.resting) return { name: word.resting, dose: '', more: '' }
  const side = line.side ? sideWord(line.side) : line.sides ? sideWord(line.sides) : ''
  const more = [side, loadOf(line), line.option ?? '', (cued && line.cue) || ''].filter(Boolean).join(' · ')
  return { name: line.name ?? '', dose: doseOf(line), more }
}

/** Lines by station; those of no station under ''. */
export function byStation(lines: readonly TodoLine[]): [string, TodoLine[]][] {
  const found = new Map<string, TodoLine[]>()
  for (const line of lines) found.set(line.station ?? '', [...(found.get(line.station ?? '') ?? []), line])
  return [...found]
}

/** What comes after the running beat. */
export function thenWords(beat: Beat | null, following: Beat | null): string {
  if (!following) return say.lastOne
  if (following.kind === 'rest') return say.afterRest(clock(following.s))
  if (following.kind === 'talk') return say.after(say.talk)
  const names = following.lines.map((line) => [line.name, line.side && sideWord(line.side)].filter(Boolean).join(', '))
  return say.after(names.slice(0, 3).join(', ') || beat?.next || say.work)
}
