import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, shallowRef, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import { Refusal } from '@/api/refusal'
import type { BlockFormat, FiguresIn, FiguresOut, Given, ProblemItem, SessionDoc } from '@/api/types'
import { sentenceOf } from '@/words/refusal'

const PAUSE_MS = 15
/** Figures of what was typed a while ago are not kept for long: each is as large as its session. */
const KEPT_MS = 60_000

/** What figures are asked with, besides the document; `against` asks for differences. */
export interface AskedWith {
  squad: Ref<number>
  given: Ref<Given>
  /** As whom it is figured; '' for anyone. */
  person?: Ref<string>
  methods: Ref<Record<string, unknown>>
  against: Ref<FiguresIn['against']>
}

/**
 * Figures of a document, asked anew shortly after each change; the previous ones stand meanwhile, and while a document is
 * refused.
 */
export function useFigures(document: Ref<SessionDoc | null>, asked: AskedWith) {
  const question = computed<FiguresIn | null>(() =>
    document.value === null
      ? null
      : {
          document: document.value,
          squad: asked.squad.value,
          given: asked.given.value,
          methods: asked.methods.value,
          ...(asked.person?.value ? { person: asked.person.value } : {}),
          ...(asked.against.value ? { against: asked.against.value } : {}),
        },
  )
  const settled = refDebounced(question, PAUSE_MS)
  // The first question waits for nothing.
  const wanted = computed(() => settled.value ?? question.value)
  const { data, error } = useQuery(
    {
      // The key is the question itself, the document and all it is figured with.
      queryKey: computed(() => ['figures', JSON.stringify(wanted.value)]),
      queryFn: ({ queryKey, signal }) => api.figures(JSON.parse(String(queryKey[1])) as FiguresIn, signal),
      enabled: computed(() => wanted.value !== null),
      placeholderData: keepPreviousData,
      staleTime: Infinity,
      gcTime: KEPT_MS,
    },
    queryClient,
  )
  const last = shallowRef<FiguresOut | null>(null)
  watch(data, (answer) => (last.value = answer ?? last.value), { immediate: true, flush: 'sync' })

  const refused = computed(() => (error.value instanceof Refusal ? error.value : null))
  const problems = computed<readonly ProblemItem[]>(() => refused.value?.problems ?? [])
  return {
    figures: computed(() => last.value?.figures ?? null),
    stave: computed(() => last.value?.stave ?? null),
    /**
     * What each block is by its numbers, by its id, or its number where it has none. Not by its place: blocks that were
     * moved meanwhile are still what they were.
     */
    formats: computed<ReadonlyMap<string, BlockFormat>>(() => {
      const { figures, formats } = last.value ?? { figures: { blocks: [] }, formats: [] }
      return new Map(formats.map((one, number) => [String(figures.blocks[number]?.id ?? number), one]))
    }),
    /** Scores of earlier sessions that it goes on from, by block. */
    taken: computed(() => last.value?.taken ?? {}),
    deltas: computed(() => last.value?.deltas ?? null),
    problems,
    /** Why there are no figures, where no place of the document is to blame. */
    trouble: computed(() => (refused.value && problems.value.length === 0 ? sentenceOf(refused.value) : '')),
  }
}
