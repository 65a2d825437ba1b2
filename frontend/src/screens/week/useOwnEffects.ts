import { useQueries } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import type { Outcome, Proposal } from '@/api/types'

/** Of so many edits each is looked up by itself; longer proposals are read as a whole. */
const MOST = 12

/** What each edit of a proposal would do by itself, in their order; null until it is known. */
export function useOwnEffects(job: Ref<string>, proposal: Ref<Proposal | null>): Ref<(Outcome | null)[]> {
  const count = computed(() => proposal.value?.edits.length ?? 0)
  const asked = computed(() =>
    job.value && count.value > 1 && count.value <= MOST ? [...Array(count.value).keys()] : [],
  )
  const looked = useQueries(
    {
      queries: computed(() =>
        asked.value.map((index) => ({
          queryKey: ['level-preview', job.value, [index]],
          queryFn: ({ signal }: { signal: AbortSignal }) => api.previewLevel(job.value, [index], signal),
          staleTime: Infinity,
          gcTime: 0,
          retry: false,
        })),
      ),
    },
    queryClient,
  )
  return computed(() => {
    if (count.value === 1) return [proposal.value?.after ?? null]
    return looked.value.map((one) => (one.data as Outcome | undefined) ?? null)
  })
}
