import { useQuery } from '@tanstack/vue-query'
import { computed, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { anew, queryClient, troubleOf } from '@/api/query'
import type { Again, DayPlan, NewEntry, PlanDetails, Week, Whose } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'

/** Whose plan `group:3` or `person:…` asks for; nothing is said of the squad's. */
export function askedFor(whose: string): Whose {
  const [kind, id = ''] = whose.split(':')
  if (kind === 'group') return { group: Number(id) }
  return kind === 'person' ? { person: id } : {}
}

/** A week of the plan: read anew after every change, since one entry changes what all make together. */
export function useWeek(day: Ref<string>, whose: Ref<string>) {
  const { trouble: refused, stale, clear, attempt } = useAttempt()
  const { data, error, isPlaceholderData, refetch } = useQuery(
    {
      queryKey: computed(() => [...KEYS.week(), squadNow.value, day.value, whose.value]),
      queryFn: ({ queryKey: [, squad, which, asked], signal }) =>
        api.week(String(which), Number(squad), askedFor(String(asked)), signal),
      // The week before stands until the next one is there, but is not to be changed meanwhile; another squad's is not.
      placeholderData: (last: Week | undefined, query) => (query?.queryKey[1] === squadNow.value ? last : undefined),
    },
    queryClient,
  )
  const week = computed(() => data.value ?? null)
  watch([day, whose], clear)
  const notRead = troubleOf(error)
  const trouble = computed(() => refused.value || notRead.value)

  const squad = (): number => week.value?.squad ?? squadNow.value
  const read = (): Promise<unknown> => refetch()
  async function act(work: () => Promise<unknown>): Promise<boolean> {
    const done = await attempt(work)
    // Somebody else was quicker: what stands is shown, with the word that nothing was changed.
    if (done || stale.value) await read()
    if (done) void anew(KEYS.season())
    return done
  }
  const seen = (id: string): number => week.value?.entries.find((one) => one.id === id)?.version ?? 0
  const dayNow = (which: string): string => week.value?.days.find((one) => one.day === which)?.version ?? ''
  return {
    week,
    turning: isPlaceholderData,
    trouble,
    squad,
    read,
    act,
    add: (body: NewEntry) => act(() => api.planEntry({ ...body, squad: squad() })),
    change: (id: string, details: PlanDetails) => act(() => api.changeEntry(id, { ...details, version: seen(id) })),
    again: (id: string, how: Again) => act(() => api.repeatEntry(id, how)),
    drop: (id: string) => act(() => api.dropEntry(id, seen(id))),
    setDay: (which: string, body: DayPlan) =>
      act(() => api.setDay(which, { ...body, version: dayNow(which), squad: squad() })),
  }
}
