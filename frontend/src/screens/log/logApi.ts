// What the log's screens ask for and change: each change asks anew for all that it made out of date.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { OWN_KINDS, Refusal, UNREACHABLE } from '@/api/refusal'
import type { LogResult, ResultIn } from '@/api/types'
import { sendWaitingRuns, waitingRuns } from '@/floor/waitingRuns'
import { scoreText } from '@/words/scores'
import { LOG_SCREEN as say } from '@/words/texts/log'

/** How often a page looks whether scores are worked out. */
const LOOK_MS = 1000

export function useLogEntry(id: () => string) {
  const { data, error } = useQuery(
    {
      queryKey: computed(() => KEYS.logEntry(id())),
      queryFn: () => api.logEntry(id()),
      refetchInterval: (query) => (query.state.data?.working ? LOOK_MS : false),
    },
    queryClient,
  )
  return { page: computed(() => data.value ?? null), trouble: troubleOf(error) }
}

/** Where a result stands: a block, a pass through it, a place. */
type Place = Pick<ResultIn, 'block' | 'section_pass' | 'index'>

/** A result of somebody (null: of all together) with what changed; of what is `kept` of them there the rest stays. */
export function resultWith(
  place: Place,
  person: string | null,
  kept: LogResult | undefined,
  changed: Partial<ResultIn>,
): ResultIn {
  return {
    block: place.block,
    section_pass: place.section_pass,
    index: place.index,
    person,
    score: kept && scoreText(kept.score) ? kept.score : null,
    unfinished: kept?.unfinished ?? '',
    options: kept?.options ?? {},
    sets: kept?.sets ?? [],
    ...changed,
  }
}

/** Before something is logged: what was run on this phone is sent first. Refuses where a run of it cannot be sent. */
export async function withRunsSent(entries: readonly string[]): Promise<void> {
  await sendWaitingRuns()
  if (waitingRuns.value.some((one) => one.entry !== null && entries.includes(one.entry)))
    throw new Refusal(UNREACHABLE, OWN_KINDS.unreachable, say.runWaits)
}

/** After a change of the log: the page, the list, people, and the week, which takes what was done. */
export async function logChanged(id: string): Promise<void> {
  await Promise.all([
    askAgain(KEYS.logEntry(id)),
    askAgain(KEYS.log()),
    askAgain(KEYS.lastDone()),
    askAgain(KEYS.personLog()),
    askAgain(KEYS.week()),
    askAgain(KEYS.season()),
    askAgain(KEYS.today()),
  ])
}
