import { computed, type ComputedRef } from 'vue'

import type { LiveRun } from '@/floor/useRun'
import { isOrder } from '@/timer/events'

const OFFERED_S = 10

/** Whether taking the last order or lap back is offered: for ten seconds after it. */
export function useUndo(live: LiveRun): { offered: ComputedRef<boolean> } {
  const offered = computed(() => {
    const now = live.state.value?.t ?? 0
    const last = live.events.value.findLast(({ event }) => isOrder(event) || event.do === 'lap' || event.do === 'undo')
    return !!last && last.event.do !== 'undo' && now - last.event.t < OFFERED_S
  })
  return { offered }
}
