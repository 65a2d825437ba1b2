import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import type { Otherwise, SessionDoc } from '@/api/types'
import { Refusal } from '@/api/refusal'
import { byStep } from '@/words/otherwise'
import { sentenceOf } from '@/words/refusal'
import { RESTRICTIONS } from '@/words/texts/restrictions'

/** A while after the last letter: who does what otherwise follows the figures, and never holds them up. */
const PAUSE_MS = 400
const KEPT_MS = 60_000

/** Who of a squad does which steps of a session otherwise today, as limits choose it. */
export function useOtherwise(document: Ref<SessionDoc | null>, squad: Ref<number>) {
  const settled = refDebounced(document, PAUSE_MS)
  const wanted = computed(() => (squad.value && settled.value ? { document: settled.value, squad: squad.value } : null))
  const { data, error } = useQuery(
    {
      queryKey: computed(() => ['otherwise', JSON.stringify(wanted.value)]),
      queryFn({ queryKey, signal }) {
        const asked = JSON.parse(String(queryKey[1])) as { document: SessionDoc; squad: number }
        return api.otherwise(asked.document, asked.squad, signal)
      },
      enabled: computed(() => wanted.value !== null),
      // A document that is refused has no steps that could be told of: what was told last stands.
      placeholderData: keepPreviousData,
      gcTime: KEPT_MS,
    },
    queryClient,
  )
  const all = computed<readonly Otherwise[]>(() => data.value ?? [])
  const steps = computed(() => byStep(all.value))
  /** Why nobody can be shown as restricted; what is wrong with the document itself is told beside it. */
  const trouble = computed(() => {
    const refusal = error.value
    if (!(refusal instanceof Refusal) || refusal.status === 422) return ''
    return RESTRICTIONS.unknown(sentenceOf(refusal))
  })
  return { all, byStep: steps, trouble }
}
