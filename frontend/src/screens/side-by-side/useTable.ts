import { computed, ref, watch } from 'vue'

import type { Column, CompareRow } from '@/api/types'
import { useFormats } from '@/composables/useTables'
import { pickWords } from '@/words/rows'

import { useCompareTables, type useComparison } from './useComparison'

/** Rows that are left out until somebody asks for them. */
const HIDDEN_FIRST = ['timetable', 'work-to-rest', 'oxygen-gap', 'volume', 'knee-hip', 'mean-uptake']
const NEXT_SHOWN = 3

/** What the table shows of an answer: its rows, places by the wishes, the marked column, and what did not come into it. */
export function useTable({ answer, shown, wishes, whole, trouble }: ReturnType<typeof useComparison>) {
  const { tables, byKey } = useCompareTables()
  const { formats } = useFormats()
  const columns = computed(() => answer.value?.columns ?? [])
  const ranked = computed(() => (wishes.value.length ? (answer.value?.pick.ranked ?? []) : []))

  const hidden = ref<string[]>(HIDDEN_FIRST)
  // A row that is nothing in every column says nothing.
  const isNothing = (row: CompareRow): boolean =>
    shown.value.every((one) => !one.values[row.key] && !one.endless.includes(row.key))
  const rows = computed(() =>
    (tables.value?.rows ?? []).filter((row) => !hidden.value.includes(row.key) && !isNothing(row)),
  )
  const places = computed(() => new Map(ranked.value.map((one) => [one.column, one.rank])))

  // The first by the wishes is the marked one, until the coach marks another.
  const chosen = ref<string | null>(null)
  const usable = (one: Column | undefined): boolean => one !== undefined && one.key !== 'plan' && !one.why
  const marked = computed(() => {
    const own = shown.value.findIndex((one) => one.key === chosen.value && usable(one))
    if (own >= 0) return own
    const first = ranked.value.find((one) => one.column < shown.value.length && usable(shown.value[one.column]))
    return first?.column ?? shown.value.findIndex(usable)
  })
  watch(wishes, () => (chosen.value = null))
  const mark = (number: number): void => {
    const one = columns.value[number]
    if (one && one.key !== 'plan') chosen.value = one.key
  }
  const markedColumn = computed(() => {
    const one = columns.value[marked.value]
    return one && one.key !== 'plan' && one.key !== 'session' && !one.why ? one : null
  })

  const verdict = computed(() =>
    answer.value && wishes.value.length && !trouble.value
      ? pickWords(answer.value.pick, columns.value, wishes.value, byKey.value)
      : null,
  )
  const outside = computed(() => columns.value.slice(shown.value.length))
  /** What is not in the table: all that fit or do not, and the format that the plan itself is. */
  const free = computed(() => {
    const known = new Set(columns.value.map((one) => one.key))
    const plan = formats.value.filter((one) => !known.has(one.key))
    return [
      ...outside.value.map((one) => ({ key: one.key, name: one.name, fits: !one.why })),
      ...plan.map((one) => ({ key: one.key, name: one.name, fits: true })),
    ]
  })
  /** The best of those that are not in the table. */
  const nextBest = computed(() =>
    (whole.value ? [] : ranked.value)
      .filter((one) => one.column >= shown.value.length)
      .slice(0, NEXT_SHOWN)
      .flatMap((one) => {
        const column = columns.value[one.column]
        return column ? [{ key: column.key, name: column.name, rank: one.rank }] : []
      }),
  )
  const cannot = computed(() => outside.value.filter((one) => one.why).length)
  const none = computed(() => !whole.value && answer.value !== null && !columns.value.some(usable))
  /** Of those that do not fit, one that would with another amount: its reason helps the most. */
  const nearest = computed(
    () =>
      columns.value.find((one) => one.causes.every((cause) => ['left', 'least', 'bound'].includes(cause.kind))) ??
      columns.value.find((one) => one.why),
  )
  /** What could not be carried over, each once, with the formats that leave it off. */
  const losses = computed(() => {
    const found = new Map<string, string[]>()
    for (const column of shown.value)
      for (const text of column.losses) found.set(text, [...(found.get(text) ?? []), column.name])
    return [...found].map(([text, names]) => ({ text, names: names.join(', ') }))
  })
  return {
    tables,
    byKey,
    columns,
    hidden,
    isNothing,
    rows,
    places,
    marked,
    mark,
    markedColumn,
    verdict,
    free,
    nextBest,
    cannot,
    none,
    nearest,
    losses,
  }
}
