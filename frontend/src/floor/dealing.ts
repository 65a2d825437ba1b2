// Who stands where: people dealt to stations as evenly as can be, teams together; all move on together.
import type { Beat } from '@/api/types'

/** Somebody to be dealt, in the order in which they came from the server; `team` of the day, where there are any. */
export interface Dealt {
  name: string
  team: number | null
}

/** As even groups as can be, the larger first (the core's `group_sizes`); of as many teams as stations each team is one. */
export function dealt<P extends Dealt>(people: readonly P[], stations: number): P[][] {
  const teams = [...new Set(people.map((one) => one.team))]
  if (teams.length === stations && !teams.includes(null))
    return teams.map((team) => people.filter((one) => one.team === team))
  const each = Math.floor(people.length / stations)
  const more = people.length % stations
  let first = 0
  return Array.from({ length: stations }, (_, index) => {
    const size = each + (index < more ? 1 : 0)
    first += size
    return people.slice(first - size, first)
  })
}

/** Which turn of its rotation a beat is of, from 0; `pass`: the beats of its pass. All follow one person, who begins at the first station. */
export function turnOf(pass: readonly Beat[], beat: Beat): number {
  const seen = pass.filter((one) => one.kind === 'work').map((one) => one.at.station)
  return Math.max(0, [...new Set(seen)].indexOf(beat.at.station))
}

/** Who is at each station of a beat, in the order of its stations; none where it has no stations. */
export function standing<P extends Dealt>(pass: readonly Beat[], beat: Beat, people: readonly P[]): P[][] {
  const names = [...new Set(beat.lines.map((line) => line.station ?? ''))]
  if (names[0] === '' || names.length === 0 || people.length === 0) return []
  const groups = dealt(people, names.length)
  const turn = turnOf(pass, beat)
  return names.map((_, station) => groups[(station - turn + names.length) % names.length] ?? [])
}
