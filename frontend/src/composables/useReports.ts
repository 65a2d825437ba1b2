import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import type { HealthReport } from '@/api/types'

import { plansHere, squadNow } from './useAccount'

/** What somebody reports is there within so long, also on a page that stays open. */
const ASKED_EVERY_MS = 60_000

/** Open health reports of the squad, newest first; for those who plan, empty for everybody else. */
export function useReports() {
  const { data } = useQuery(
    {
      queryKey: computed(() => KEYS.reports(squadNow.value)),
      queryFn: () => api.healthReports(squadNow.value),
      enabled: computed(() => plansHere.value && squadNow.value > 0),
      refetchInterval: ASKED_EVERY_MS,
    },
    queryClient,
  )
  return computed<readonly HealthReport[]>(() => data.value ?? [])
}
