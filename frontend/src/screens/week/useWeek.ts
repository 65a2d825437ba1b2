import { computed, shallowRef, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import type { PlanDetails, Week } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { squadNow } from '@/composables/useAccount'
import { useLatest } from '@/composables/useLatest'

const holds = (week: Week, day: string): boolean => week.days.some((one) => one.day === day)

/** A week of the plan: read anew after every change, since one entry changes what all make together. */
export function useWeek(day: Ref<string>, person: Ref<number>) {
  const week = shallowRef<Week | null>(null)
  const { trouble, stale, attempt } = useAttempt()
  const { ask } = useLatest()
  /** The week that is shown is not the one that was asked for: it is about to be another one. */
  const turning = computed(() => week.value !== null && !holds(week.value, day.value))

  const squad = (): number => week.value?.squad ?? squadNow.value
  const look = (): Promise<void> =>
    ask(
      () => api.week(day.value, squadNow.value, person.value),
      (answer) => (week.value = answer),
    )
  async function read(): Promise<void> {
    const done = await attempt(look)
    // What cannot be read is not another week's: its days would take what is meant for these.
    if (!done && turning.value) week.value = null
  }
  watch([day, person], read, { immediate: true })

  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    const done = await attempt(work)
    if (done) await read()
    // Somebody else was quicker: what stands is shown, with the word that nothing was changed, or what was seen before.
    else if (stale.value) await look().catch(() => undefined)
    return done
  }
  const seen = (id: string): number => week.value?.entries.find((one) => one.id === id)?.version ?? 0
  const dayNow = (which: string): string => week.value?.days.find((one) => one.day === which)?.version ?? ''
  return {
    week,
    turning,
    trouble,
    squad,
    read,
    act,
    add: (body: PlanDetails & { session?: string; title?: string }) =>
      act(() => api.planEntry({ ...body, squad: squad() })),
    change: (id: string, details: PlanDetails) => act(() => api.changeEntry(id, { ...details, version: seen(id) })),
    again: (id: string, how: { weeks?: number; day?: string }) => act(() => api.repeatEntry(id, how)),
    drop: (id: string) => act(() => api.dropEntry(id, seen(id))),
    setDay: (which: string, body: { intent: string; share: number | null; hall: boolean }) =>
      act(() => api.setDay(which, { ...body, version: dayNow(which), squad: squad() })),
  }
}
