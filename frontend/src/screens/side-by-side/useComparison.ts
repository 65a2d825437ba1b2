import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { Column, CompareIn, CompareTables, Pick, SessionComparison, SessionDoc, Wish } from '@/api/types'

export type Hold = NonNullable<CompareIn['hold']>

/** What is compared: blocks of a kept session (its main part, if none is named), fresh movements, or whole sessions. */
export interface Source {
  session?: string
  block?: string
  movements?: string[]
  sessions?: string[]
}

/** The answer, in whichever way it was asked. */
export interface Answer {
  columns: readonly Column[]
  frontier: readonly number[]
  pick: Pick
  hold?: Hold
  target?: number | null
  heldReps: Record<string, number>
  source: readonly number[]
  movements: readonly string[]
  bent: readonly string[]
  differences: SessionComparison['differences'] | null
}

const tables = shallowRef<CompareTables | null>(null)
let asking: Promise<void> | null = null

/** The rows of a comparison and the named wishes, asked for once. */
export function useCompareTables() {
  asking ??= api.compareTables().then((answer) => {
    tables.value = answer
  })
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
  const holding = shallowRef<Record<string, string | null>>({})
  const trouble = ref('')
  const busy = ref(false)
  let flying: AbortController | null = null

  const body = computed<CompareIn | null>(() => {
    const about = source.value
    const rest = { formats: formats.value, hold: hold.value, target: target.value, wishes: wishes.value, axes: axes.value }
    if (about.movements?.length) return { ...rest, movements: about.movements }
    if (!session.value) return null
    const { document, squad } = session.value
    return { ...rest, document, squad, ...(about.block ? { source: [about.block] } : {}) }
  })
  const whole = computed(() =>
    source.value.sessions?.length ? { sessions: source.value.sessions, wishes: wishes.value, axes: axes.value } : null,
  )

  async function askFormats(asked: CompareIn, signal: AbortSignal): Promise<Answer> {
    const { comparison, holding: held } = await api.compare(asked, signal)
    holding.value = held
    return { ...comparison, heldReps: comparison.held_reps, differences: null }
  }
  async function askSessions(asked: object, signal: AbortSignal): Promise<Answer> {
    const { comparison } = await api.compareSessions(asked, signal)
    return { ...comparison, heldReps: {}, source: [], movements: [], bent: [] }
  }

  const question = computed(() => JSON.stringify(whole.value ?? { ...body.value, document: undefined }))
  let asked = ''

  async function ask(): Promise<void> {
    flying?.abort()
    if (whole.value === null && body.value === null) return
    asked = question.value
    const mine = new AbortController()
    flying = mine
    busy.value = true
    try {
      const made = await (whole.value ? askSessions(whole.value, mine.signal) : askFormats(body.value ?? {}, mine.signal))
      if (flying !== mine) return
      answer.value = made
      trouble.value = ''
      // What the server chose to begin with is from now on what was chosen.
      if (!whole.value && formats.value === null)
        formats.value = made.columns.filter((one) => one.key !== 'plan').map((one) => one.key)
    } catch (error) {
      if (flying !== mine || !(error instanceof Refusal)) return
      trouble.value = error.told
      answer.value = null
    } finally {
      if (flying === mine) busy.value = false
    }
  }
  watch([question, session], ([now]) => {
    // Taking over the server's own choice of formats is no new question.
    const taken = answer.value && formats.value && asked === JSON.stringify({ ...JSON.parse(now), formats: null })
    if (taken) asked = now
    else void ask()
  })

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
      target.value = null
      answer.value = null
      trouble.value = ''
      if (about.session !== before?.session) void fetchSession(about.session)
      if (about.movements?.length || about.sessions?.length) void ask()
    },
    { immediate: true },
  )
  onScopeDispose(() => flying?.abort())
  return { session, formats, hold, target, wishes, axes, answer, holding, trouble, busy, body, whole, again: ask }
}
