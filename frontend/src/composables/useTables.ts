import { useQuery } from '@tanstack/vue-query'
import { createSharedComposable } from '@vueuse/core'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, LASTING, queryClient } from '@/api/query'
import type { Format, Named, Tables } from '@/api/types'
import type { Choice } from '@/parts/ChoiceField.vue'

const NOTHING: Tables = {
  parts: [],
  efforts: [],
  sides: [],
  optional: [],
  levels: [],
  landing_grades: [],
  load_units: [],
  intents: [],
  phases: [],
  severities: [],
  currencies: [],
  joints: [],
  limit_sides: [],
  splits: [],
  roles: [],
  marks: [],
  field_tests: [],
  schools: [],
  phrases: { heads: [], phrases: [], qualities: [] },
  figures: [],
}

/**
 * All that has a name in every squad: parts, efforts, sides, schools, currencies, phrases. Empty while `isPending`, and
 * if loading fails.
 */
export const useTables = createSharedComposable(() => {
  const { data, isPending } = useQuery({ queryKey: KEYS.tables(), queryFn: api.tables, ...LASTING }, queryClient)
  const tables = computed<Tables>(() => data.value ?? NOTHING)
  const labels = computed(() => {
    const lists = Object.entries(tables.value).filter((pair): pair is [string, Named[]] => Array.isArray(pair[1]))
    return new Map(lists.flatMap(([name, list]) => list.map((one) => [`${name}/${one.key}`, one.label] as const)))
  })
  /** The words for a key of a list. */
  const labelOf = (list: ListName, key: string): string => labels.value.get(`${list}/${key}`) ?? key
  /** A list as a field offers it; `none`: what stands for no choice. */
  const choicesOf = (list: ListName, none?: string): Choice<string>[] => [
    ...(none === undefined ? [] : [{ value: '', label: none }]),
    ...tables.value[list].map((one) => ({ value: one.key, label: one.label })),
  ]
  return { tables, isPending, labelOf, choicesOf }
})
/** The lists of the tables that are keys with their words. */
export type ListName = Exclude<keyof Tables, 'schools' | 'phrases' | 'figures' | 'field_tests'>

/** The table of named formats, asked for once. */
export const useFormats = createSharedComposable(() => {
  const { data, suspense } = useQuery({ queryKey: KEYS.formats(), queryFn: api.formats, ...LASTING }, queryClient)
  const formats = computed<readonly Format[]>(() => data.value?.formats ?? [])
  const byKey = computed(() => new Map(formats.value.map((one) => [one.key, one])))

  /** Formats whose name or trade word holds every word typed, or whose numbers do ("20 10"). */
  function search(typed: string): Format[] {
    const words = typed
      .toLowerCase()
      .split(/[\s/:,]+/)
      .filter(Boolean)
    const text = (one: Format): string => [one.name, one.key, ...one.trade].join(' ').toLowerCase()
    // What is called just so comes first; otherwise the table's own order, the narrower before the wider.
    const exact = (one: Format): number =>
      [one.name, ...one.trade].some((name) => name.toLowerCase() === typed.trim().toLowerCase()) ? 0 : 1
    return formats.value
      .filter((one) => words.every((word) => text(one).includes(word)))
      .sort((a, b) => exact(a) - exact(b))
  }
  /** Resolves when the formats are there, or cannot be had. */
  const ready = (): Promise<unknown> => suspense()
  return { formats, byKey, search, ready }
})

/** The people of a squad; nobody for those who may not see them, and nobody of squad 0. */
export function usePeople(squad: MaybeRefOrGetter<number>) {
  const { data } = useQuery(
    {
      queryKey: computed(() => KEYS.people(toValue(squad))),
      queryFn: ({ queryKey }) => api.people(Number(queryKey[1])),
      enabled: computed(() => toValue(squad) > 0),
    },
    queryClient,
  )
  return { people: computed(() => data.value ?? []) }
}

/** How many days ago each movement was last logged, by key; nothing for whoever does not plan. */
export function useLastDone(squad: MaybeRefOrGetter<number>) {
  const { data } = useQuery(
    {
      queryKey: computed(() => KEYS.lastDone(toValue(squad))),
      queryFn: ({ queryKey }) => api.lastDone(Number(queryKey[1])),
      enabled: computed(() => toValue(squad) > 0),
    },
    queryClient,
  )
  return computed<Readonly<Record<string, number>>>(() => data.value ?? {})
}

/** The groups of a squad that can be chosen; none of squad 0. */
export function useGroups(squad: MaybeRefOrGetter<number>) {
  const { data } = useQuery(
    {
      queryKey: computed(() => KEYS.groups(toValue(squad))),
      queryFn: ({ queryKey }) => api.groups(Number(queryKey[1])),
      enabled: computed(() => toValue(squad) > 0),
    },
    queryClient,
  )
  return { groups: computed(() => data.value ?? []) }
}

/** The squad's own shapes of formats. */
export function useShapes(squad: MaybeRefOrGetter<number>) {
  const { data, suspense } = useQuery(
    {
      queryKey: computed(() => KEYS.shapes(toValue(squad))),
      queryFn: ({ queryKey }) => api.shapes(Number(queryKey[1])),
    },
    queryClient,
  )
  const changed = (): Promise<void> => askAgain(KEYS.shapes(toValue(squad)))
  /** Resolves when the shapes are there, or cannot be had; those that are there are not asked for again. */
  const ready = async (): Promise<void> => {
    if (data.value === undefined) await suspense()
  }
  return { shapes: computed(() => data.value ?? []), changed, ready }
}
