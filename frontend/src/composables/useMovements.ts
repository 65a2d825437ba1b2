import { isCancelledError, useQuery } from '@tanstack/vue-query'
import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, LASTING, queryClient } from '@/api/query'
import { Refusal } from '@/api/refusal'
import type { MovementDef, SessionDoc } from '@/api/types'

import { squadNow } from './useAccount'

/** What narrows a search for a movement; an empty word narrows nothing. */
export interface Narrowed {
  pattern: string
  kit: string
  position: string
  spare: string
}

/** A movement whose like is looked for, and the keys of what could stand for it, nearest first. */
export interface Like {
  key: string
  near: readonly string[]
}

/** What stands for the row of a movement that nobody knows yet. */
const NEW_CODE = '??'
const folded = (text: string): string => text.toLowerCase().replaceAll('-', ' ')

/** How far a name is from what was typed: called just so, a word of its name begins so, an alias does, or less. */
function distance(movement: MovementDef, typed: string): number {
  const wanted = folded(typed.trim())
  const name = folded(movement.name ?? movement.key)
  const aliases = (movement.aliases ?? []).map(folded)
  if (name === wanted || aliases.includes(wanted)) return 0
  if (` ${name}`.includes(` ${wanted}`)) return 1
  return aliases.some((alias) => alias.startsWith(wanted)) ? 2 : 3
}

/** The place of each key in a list of them; what is not in it comes after all. */
function placesIn(keys: readonly string[]): (key: string) => number {
  const places = new Map(keys.map((key, place) => [key, place]))
  return (key) => places.get(key) ?? keys.length
}

/** The movements of the squad and the rows of the stave, asked for once and shared by all that stand on a screen. */
export const useMovements = createSharedComposable(() => {
  const { data: tables, suspense } = useQuery(
    {
      queryKey: computed(() => KEYS.movements(squadNow.value)),
      queryFn: ({ queryKey }) => api.movements(Number(queryKey[1])),
      ...LASTING,
    },
    queryClient,
  )
  const all = computed(() => tables.value?.movements ?? [])
  /** The movements that the squad defined itself, by key; and what a change of them names as seen. */
  const own = computed(() => new Set(tables.value?.own ?? []))
  const version = computed(() => tables.value?.version ?? '')
  const byKey = computed(() => new Map(all.value.map((m) => [m.key, m])))
  const patterns = computed(() => tables.value?.patterns ?? [])
  const rowOf = computed(() => {
    const rows = tables.value?.rows ?? []
    return new Map(rows.flatMap((row) => row.members.map((member) => [member, row] as const)))
  })
  const listed = (pick: (m: MovementDef) => readonly string[] | null | undefined) =>
    computed(() => [...new Set(all.value.flatMap((m) => pick(m) ?? []))].sort())
  const kits = listed((m) => m.kit)
  const joints = listed((m) => m.stresses)
  const positions = listed((m) => (m.position ? [m.position] : []))
  const planes = listed((m) => (m.plane ? [m.plane] : []))

  /** The short code of the row in which a movement does most; '' while the movements are still being read. */
  function codeOf(movement: MovementDef | undefined): string {
    if (!tables.value) return ''
    const [first] = Object.entries(movement?.patterns ?? {}).sort((a, b) => b[1] - a[1])
    return first ? (rowOf.value.get(first[0])?.code ?? NEW_CODE) : NEW_CODE
  }

  function nameOf(key: string): string {
    return byKey.value.get(key)?.name ?? key
  }

  const keys = computed(
    () =>
      new Map(
        all.value.flatMap((one) => [
          [(one.name ?? one.key).toLowerCase(), one.key],
          [one.key, one.key],
        ]),
      ),
  )
  /** The key of a movement that is called just so, by its name or key. */
  const keyOf = (typed: string): string | undefined => keys.value.get(typed.trim().toLowerCase())

  /**
   * Movements whose name, key or alias holds every word typed; nearest first, the shorter name before the longer. With
   * nothing typed and a movement to replace: what could stand for it first, and never itself.
   */
  function search(typed: string, narrowed: Narrowed, own: readonly MovementDef[] = [], like?: Like): MovementDef[] {
    const blank = like !== undefined && typed.trim() === ''
    const place = placesIn(like?.near ?? [])
    const words = folded(typed).split(/\s+/).filter(Boolean)
    const names = (m: MovementDef): string[] => [m.name ?? '', m.key, ...(m.aliases ?? [])].map(folded)
    const fits = (m: MovementDef): boolean =>
      (!narrowed.pattern || narrowed.pattern in (m.patterns ?? {})) &&
      (!narrowed.kit || (narrowed.kit === 'none' ? !m.kit?.length : (m.kit ?? []).includes(narrowed.kit))) &&
      (!narrowed.position || m.position === narrowed.position) &&
      (!narrowed.spare || !(m.stresses ?? []).includes(narrowed.spare)) &&
      words.every((word) => names(m).some((name) => name.includes(word)))
    const known = new Set(own.map((m) => m.key))
    return [...own, ...all.value.filter((m) => !known.has(m.key))]
      .filter((one) => fits(one) && !(blank && one.key === like.key))
      .sort(
        (a, b) =>
          (blank ? place(a.key) - place(b.key) : distance(a, typed) - distance(b, typed)) ||
          (a.name ?? a.key).length - (b.name ?? b.key).length,
      )
  }

  /** Keys of what could stand for a movement, nearest first, as the core has it; none where it cannot be told. */
  async function nearTo(key: string, own: readonly MovementDef[] = []): Promise<readonly string[]> {
    const squad = squadNow.value
    const asked = { movement: key, definitions: [...own], squad: squad || null }
    try {
      const queryKey = [...KEYS.movements(squad), 'near', asked]
      const queryFn = () => api.nearMovements(asked)
      return (await queryClient.fetchQuery({ queryKey, queryFn, staleTime: Infinity })).keys
    } catch (error) {
      // The list is there all the same, in the order of names; called off is what was asked before the library changed.
      if (error instanceof Refusal || isCancelledError(error)) return []
      throw error
    }
  }

  const checks = computed(() => tables.value?.checks ?? [])
  /** Resolves when the movements are there, or cannot be had. */
  const ready = (): Promise<unknown> => suspense()
  /** The squad has others now. */
  const refresh = (): Promise<void> => askAgain(KEYS.movements(squadNow.value))
  return {
    all,
    own,
    version,
    byKey,
    codeOf,
    nameOf,
    keyOf,
    search,
    nearTo,
    kits,
    joints,
    positions,
    planes,
    patterns,
    checks,
    refresh,
    ready,
  }
})

/** A movement as the document or the library knows it. */
export function movementIn(
  document: SessionDoc | null,
  byKey: ReadonlyMap<string, MovementDef>,
  key: string,
): MovementDef | undefined {
  const own = document?.movements?.find((one) => one.key === key)
  const shipped = byKey.get(key)
  return own ? { ...shipped, ...own } : shipped
}
