import { useQuery } from '@tanstack/vue-query'
import { createSharedComposable } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { LASTING, queryClient, troubleOf } from '@/api/query'
import type { Body, Column, CompareIn, PaceOf, Pick, ReadMovements, SessionComparison, Wish } from '@/api/types'

export type Hold = NonNullable<CompareIn['hold']>

/**
 * What is compared: blocks of a kept session (its main part, if none is named), movements (by key, or `text` as typed on a
 * wall) in so many minutes, or whole sessions. `matter`: the key of a ready sentence that says what matters.
 */
export interface Source {
  session?: string
  block?: string
  movements?: string[]
  text?: string
  minutes?: number
  matter?: string
  sessions?: string[]
}

/** The answer, in whichever way it was asked. */
export interface Answer {
  columns: readonly Column[]
  /** So many columns stand in the table; those after them are ranked, or say why they cannot be. */
  shown: number
  frontier: readonly number[]
  pick: Pick
  hold?: Hold
  target?: number | null
  heldReps: Record<string, number>
  source: readonly number[]
  movements: readonly string[]
  read: ReadMovements | null
  differences: SessionComparison['differences'] | null
}

/** The rows of a comparison, the named wishes and the ready sentences, asked for once. */
export const useCompareTables = createSharedComposable(() => {
  const { data } = useQuery({ queryKey: KEYS.compareTables(), queryFn: api.compareTables, ...LASTING }, queryClient)
  const byKey = computed(() => new Map((data.value?.rows ?? []).map((row) => [row.key, row])))
  return { tables: computed(() => data.value ?? null), byKey }
})

/** A comparison that is left is kept for a moment, for whoever comes back to it. */
const KEPT_MS = 60_000
export const MOST_COLUMNS = 8

async function askFormats(body: CompareIn, signal: AbortSignal): Promise<Answer> {
  const { comparison, read } = await api.compare(body, signal)
  return { ...comparison, heldReps: comparison.held_reps, read: read ?? null, differences: null }
}
async function askSessions(body: Body<'SessionsIn'>, signal: AbortSignal): Promise<Answer> {
  const { comparison } = await api.compareSessions(body, signal)
  return { ...comparison, shown: comparison.columns.length, heldReps: {}, source: [], movements: [], read: null }
}

/** A comparison, asked for anew with every change of what it is about; the one before stands meanwhile. */
export function useComparison(source: Ref<Source>) {
  const formats = ref<string[] | null>(null)
  const hold = ref<Hold>('total')
  const target = ref<number | null>(null)
  const wishes = ref<Wish[]>([])
  /** At whose pace: '' the squad's, for anyone. */
  const paceOf = ref<PaceOf | ''>('')
  const axes = ref<[string, string]>(['load', 'density'])
  /** What the source is, so that two that are alike are one. */
  const about = computed(() => JSON.stringify(source.value))

  const kept = useQuery(
    {
      queryKey: computed(() => KEYS.session(source.value.session ?? '')),
      queryFn: ({ queryKey }) => api.session(String(queryKey[1])),
      enabled: computed(() => Boolean(source.value.session)),
      // The Bench may have changed it since.
      gcTime: 0,
    },
    queryClient,
  )
  const session = computed(() => (source.value.session ? (kept.data.value ?? null) : null))

  const { tables } = useCompareTables()
  /** The question of which format is asked once what matters is known: its wishes stand in the tables. */
  const begun = ref('')
  watch(
    [about, tables],
    ([now, known]) => {
      if (!source.value.text || known === null || begun.value === now) return
      const matter = known.matters.find((one) => one.key === source.value.matter)
      wishes.value = matter?.wishes.map((wish) => ({ ...wish })) ?? []
      begun.value = now
    },
    { immediate: true, flush: 'sync' },
  )
  watch(
    about,
    () => {
      formats.value = null
      target.value = source.value.minutes ? source.value.minutes * 60 : null
    },
    { immediate: true, flush: 'sync' },
  )

  const body = computed<CompareIn | null>(() => {
    const { text, movements, block } = source.value
    const rest = {
      formats: formats.value,
      hold: hold.value,
      target: target.value,
      wishes: wishes.value,
      axes: axes.value,
      pace_of: paceOf.value || null,
    }
    if (text) return begun.value === about.value ? { ...rest, text } : null
    if (movements?.length) return { ...rest, movements }
    if (!session.value) return null
    const { document, squad } = session.value
    return { ...rest, document, squad, ...(block ? { source: [block] } : {}) }
  })
  const whole = computed<Body<'SessionsIn'> | null>(() =>
    source.value.sessions?.length
      ? {
          sessions: source.value.sessions,
          wishes: wishes.value,
          axes: axes.value,
          pace_of: paceOf.value || null,
        }
      : null,
  )
  const question = computed(() => (whole.value || body.value ? JSON.stringify(whole.value ?? body.value) : ''))
  const compared = useQuery(
    {
      queryKey: computed(() => ['compare', about.value, whole.value ? 'sessions' : 'formats', question.value]),
      queryFn: ({ queryKey: [, , which, text], signal }) => {
        const asked: unknown = JSON.parse(String(text))
        return which === 'sessions'
          ? askSessions(asked as Body<'SessionsIn'>, signal)
          : askFormats(asked as CompareIn, signal)
      },
      enabled: computed(() => question.value !== ''),
      placeholderData: (before: Answer | undefined, query) => (query?.queryKey[1] === about.value ? before : undefined),
      gcTime: KEPT_MS,
    },
    queryClient,
  )
  const answer = computed(() => (compared.isError.value ? null : (compared.data.value ?? null)))
  const refused = troubleOf(compared.error)
  const missing = troubleOf(kept.error)
  const trouble = computed(() => missing.value || refused.value)

  /** What stands in the table: as the coach chose, or else as the server does by what matters. */
  const shown = computed(() => (answer.value?.columns ?? []).slice(0, answer.value?.shown))
  const chosen = (): string[] => shown.value.filter((one) => one.key !== 'plan').map((one) => one.key)
  /** Put a format beside the others; where there is no room, in the place of the last. */
  function show(key: string): void {
    const room = MOST_COLUMNS - (shown.value.length - chosen().length)
    const others = chosen().filter((one) => one !== key)
    formats.value = [...others.slice(0, room - 1), key]
  }
  const takeOut = (key: string): void => {
    formats.value = chosen().filter((one) => one !== key)
  }
  return {
    session,
    formats,
    shown,
    show,
    takeOut,
    hold,
    target,
    wishes,
    axes,
    paceOf,
    answer,
    trouble,
    busy: compared.isFetching,
    body,
    whole,
  }
}
