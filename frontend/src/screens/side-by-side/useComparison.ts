import { computed, nextTick, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type {
  Column,
  CompareIn,
  CompareTables,
  Pick,
  ReadMovements,
  SessionComparison,
  SessionDoc,
  Wish,
} from '@/api/types'

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

const tables = shallowRef<CompareTables | null>(null)
let asking: Promise<void> | null = null

/** The tables, once they are there. */
function tablesThere(): Promise<void> {
  asking ??= api.compareTables().then((answer) => {
    tables.value = answer
  })
  return asking
}

/** The rows of a comparison, the named wishes and the ready sentences, asked for once. */
export function useCompareTables() {
  void tablesThere()
  const byKey = computed(() => new Map((tables.value?.rows ?? []).map((row) => [row.key, row])))
  return { tables, byKey }
}

export const MOST_COLUMNS = 8

/** A comparison asked for anew with every change of what it is about; late answers are dropped. */
export function useComparison(source: Ref<Source>) {
  const session = shallowRef<{ document: SessionDoc; squad: number; title: string } | null>(null)
  const formats = ref<string[] | null>(null)
  const hold = ref<Hold>('total')
  const target = ref<number | null>(null)
  const wishes = ref<Wish[]>([])
  const axes = ref<[string, string]>(['load', 'density'])
  const answer = shallowRef<Answer | null>(null)
  const trouble = ref('')
  const busy = ref(false)
  /** A question is asked once what matters is known: its wishes stand in the tables. */
  const begun = ref(false)
  let flying: AbortController | null = null

  const body = computed<CompareIn | null>(() => {
    const about = source.value
    const rest = {
      formats: formats.value,
      hold: hold.value,
      target: target.value,
      wishes: wishes.value,
      axes: axes.value,
    }
    if (about.text) return begun.value ? { ...rest, text: about.text } : null
    if (about.movements?.length) return { ...rest, movements: about.movements }
    if (!session.value) return null
    const { document, squad } = session.value
    return { ...rest, document, squad, ...(about.block ? { source: [about.block] } : {}) }
  })
  const whole = computed(() =>
    source.value.sessions?.length ? { sessions: source.value.sessions, wishes: wishes.value, axes: axes.value } : null,
  )

  async function askFormats(asked: CompareIn, signal: AbortSignal): Promise<Answer> {
    const { comparison, read } = await api.compare(asked, signal)
    return { ...comparison, heldReps: comparison.held_reps, read: read ?? null, differences: null }
  }
  async function askSessions(asked: object, signal: AbortSignal): Promise<Answer> {
    const { comparison } = await api.compareSessions(asked, signal)
    return { ...comparison, shown: comparison.columns.length, heldReps: {}, source: [], movements: [], read: null }
  }

  const question = computed(() => JSON.stringify(whole.value ?? { ...body.value, document: undefined }))

  async function ask(): Promise<void> {
    flying?.abort()
    if (whole.value === null && body.value === null) return
    const mine = new AbortController()
    flying = mine
    busy.value = true
    try {
      const made = await (whole.value
        ? askSessions(whole.value, mine.signal)
        : askFormats(body.value ?? {}, mine.signal))
      if (flying !== mine) return
      answer.value = made
      trouble.value = ''
    } catch (error) {
      if (flying !== mine || !(error instanceof Refusal)) return
      trouble.value = error.told
      answer.value = null
    } finally {
      if (flying === mine) busy.value = false
    }
  }
  watch([question, session], () => void ask())

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

  async function begin(about: Source): Promise<void> {
    begun.value = false
    await nextTick()
    await tablesThere()
    if (JSON.stringify(source.value) !== JSON.stringify(about)) return
    wishes.value =
      tables.value?.matters.find((one) => one.key === about.matter)?.wishes.map((wish) => ({ ...wish })) ?? []
    begun.value = true
  }

  async function fetchSession(id: string | undefined): Promise<void> {
    session.value = null
    if (!id) return
    try {
      const found = await api.session(id)
      session.value = { document: found.document, squad: found.squad, title: found.title }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = error.told
    }
  }
  watch(
    source,
    (about, before) => {
      if (JSON.stringify(about) === JSON.stringify(before)) return
      formats.value = null
      target.value = about.minutes ? about.minutes * 60 : null
      answer.value = null
      trouble.value = ''
      if (about.session !== before?.session) void fetchSession(about.session)
      if (about.text) void begin(about)
      else if (about.movements?.length || about.sessions?.length) void ask()
    },
    { immediate: true },
  )
  onScopeDispose(() => flying?.abort())
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
    answer,
    trouble,
    busy,
    body,
    whole,
    again: ask,
  }
}
