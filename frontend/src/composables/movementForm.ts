// A movement's definition as a form has it, and back.
import type { MovementDef } from '@/api/types'

export interface Weight {
  pattern: string
  share: number | null
}

/** What a form holds: texts as they are typed, numbers, shares in per cent. */
export interface MovementForm {
  name: string
  aliases: string
  weights: Weight[]
  position: string
  plane: string
  sides: string
  rep_is: string
  pace_s: number | null
  speed_mps: number | null
  met: number | null
  met_source: string
  landings: number | null
  landing_grade: string
  skilled: string
  stresses: string
  kit: string
  contains: string
  easier: string
  harder: string
  kit_swaps: string
  relieves: string
  cues: string
  cautions: string
}

/** Names of movements by key, and keys by what is typed for them. */
export interface Names {
  nameOf: (key: string) => string
  keyOf: (typed: string) => string | undefined
}

const joined = (list: readonly string[] | string | null | undefined): string =>
  typeof list === 'string' ? list : (list ?? []).join('; ')
/** Several, parted by semicolons. */
export const listed = (text: string): string[] =>
  text
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)
const PERCENT = 100

/** The key of a movement of that name. */
export const keyOfName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')

/** A definition as a form has it; an empty one for null. */
export function formOf(one: MovementDef | null, names: Names): MovementForm {
  const named = (keys: readonly string[] | string | null | undefined): string =>
    joined((typeof keys === 'string' ? [keys] : (keys ?? [])).map(names.nameOf))
  const weights = Object.entries(one?.patterns ?? {})
    .sort((a, b) => b[1] - a[1])
    .map(([pattern, share]) => ({ pattern, share: Math.round(share * PERCENT) }))
  return {
    name: one?.name ?? one?.key ?? '',
    aliases: joined(one?.aliases),
    weights: weights.length ? weights : [{ pattern: '', share: PERCENT }],
    position: one?.position ?? '',
    plane: one?.plane ?? '',
    sides: one?.sides ?? '',
    rep_is: one?.rep_is ?? '',
    pace_s: one?.pace_s ?? null,
    speed_mps: one?.speed_mps ?? null,
    met: one?.met ?? null,
    met_source: one?.met_source ?? '',
    landings: one?.landings ?? null,
    landing_grade: one?.landing_grade ?? '',
    skilled: one?.skilled ? 'yes' : '',
    stresses: joined(one?.stresses),
    kit: joined(one?.kit),
    contains: (one?.contains ?? []).map(({ movement, reps }) => `${reps} ${names.nameOf(movement)}`).join('; '),
    easier: named(one?.easier),
    harder: named(one?.harder),
    kit_swaps: named(one?.kit_swaps),
    relieves: joined(one?.relieves),
    cues: joined(one?.cues),
    cautions: joined(one?.cautions),
  }
}

/** The definition that a form says, on top of what it was made from; and the names in it that nobody knows. */
export function definitionOf(
  form: MovementForm,
  before: MovementDef | null,
  key: string,
  names: Names,
): { definition: MovementDef; unknown: string[] } {
  const unknown: string[] = []
  const keys = (text: string): string[] =>
    listed(text).flatMap((one) => {
      const found = names.keyOf(one)
      if (found === undefined) unknown.push(one)
      return found === undefined ? [] : [found]
    })
  const contains = listed(form.contains).flatMap((one) => {
    const [, count = '', name = ''] = /^(\d*)\s*[x×]?\s*(.*)$/.exec(one) ?? []
    return keys(name).map((movement) => ({ movement, reps: Number(count) || 1 }))
  })
  const said: Record<string, unknown> = {
    name: form.name.trim(),
    aliases: listed(form.aliases),
    patterns: Object.fromEntries(
      form.weights.filter((one) => one.pattern).map((one) => [one.pattern, (one.share ?? 0) / PERCENT]),
    ),
    position: form.position,
    plane: form.plane,
    sides: form.sides,
    rep_is: form.rep_is.trim(),
    pace_s: form.pace_s,
    speed_mps: form.speed_mps,
    met: form.met,
    met_source: form.met_source.trim(),
    landings: form.landings,
    landing_grade: form.landings ? form.landing_grade : '',
    skilled: form.skilled === 'yes' ? true : null,
    stresses: listed(form.stresses),
    kit: listed(form.kit),
    contains,
    easier: keys(form.easier),
    harder: keys(form.harder),
    kit_swaps: keys(form.kit_swaps),
    relieves: listed(form.relieves),
    cues: listed(form.cues),
    cautions: listed(form.cautions),
  }
  // What is left empty is not said; what the form has no field for stays.
  const empty = (value: unknown): boolean =>
    value === null || value === '' || (Array.isArray(value) && value.length === 0)
  const kept = Object.fromEntries(Object.entries(before ?? {}).filter(([name]) => !(name in said)))
  const written = Object.fromEntries(Object.entries(said).filter(([, value]) => !empty(value)))
  return { definition: { ...kept, ...written, key } as MovementDef, unknown }
}
