import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { finished, stopJob } from '@/api/jobs'
import { queryClient, troubleOf } from '@/api/query'
import type { Job, LevelAsked } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'

/** What may be set otherwise for one levelling; what is null stays as the squad has it. */
export interface LevelRules {
  most_a_day: number | null
  no_two_hard: boolean
  landings_cap: number | null
  /** Whether days gone by may be changed, too. */
  gone: boolean
}

/** Proposals to level a week, any part of which can be looked at and taken. */
export function useLevelling(day: Ref<string>, squad: () => number, done: () => Promise<unknown>) {
  const picked = ref<number[]>([])
  const rules = ref<LevelRules>({ most_a_day: 2, no_two_hard: true, landings_cap: null, gone: false })
  const { trouble: refused, clear, attempt } = useAttempt()
  /** What was asked for, once for each time: null while nothing is. */
  const asked = shallowRef<LevelAsked | null>(null)
  const turn = ref(0)
  /** The job under way, as it was seen last. */
  const progress = shallowRef<Job | null>(null)

  const levelled = useQuery(
    {
      queryKey: computed(() => ['level', turn.value, asked.value]),
      async queryFn({ queryKey: [, mine, body], signal }) {
        const begun = await api.askToLevel(body as LevelAsked)
        const seen = (job: Job): void => {
          if (turn.value === mine) progress.value = job
        }
        seen(begun)
        await finished(begun, seen, signal)
        return { job: begun.id, proposal: await api.proposal(begun.id) }
      },
      enabled: computed(() => asked.value !== null),
      // Asking once more is levelling once more: only who asked may want that.
      retry: false,
      staleTime: Infinity,
      gcTime: 0,
    },
    queryClient,
  )
  const proposal = computed(() => levelled.data.value?.proposal ?? null)
  const job = computed(() => levelled.data.value?.job ?? '')
  const busy = computed(() => asked.value !== null && levelled.isFetching.value)
  watch(
    proposal,
    (made) => {
      picked.value = made?.edits.map((_, index) => index) ?? []
      progress.value = null
    },
    { flush: 'sync' },
  )

  /** What the ticked edits come to: all of them as they came with the proposal, any others looked up. */
  const all = computed(() => picked.value.length === (proposal.value?.edits.length ?? 0))
  const preview = useQuery(
    {
      queryKey: computed(() => ['level-preview', job.value, picked.value]),
      queryFn: ({ queryKey: [, id, edits], signal }) => api.previewLevel(String(id), edits as number[], signal),
      enabled: computed(() => job.value !== '' && !all.value),
      placeholderData: keepPreviousData,
      staleTime: Infinity,
      gcTime: 0,
    },
    queryClient,
  )
  const outcome = computed(() => {
    if (!proposal.value) return null
    return all.value ? (proposal.value.after ?? null) : (preview.data.value ?? proposal.value.after ?? null)
  })
  const notLevelled = troubleOf(levelled.error)
  const notLooked = troubleOf(preview.error)
  const trouble = computed(() => refused.value || notLevelled.value || notLooked.value)

  /** Stop looking: the best found so far comes as the answer. */
  const cancel = (): void => {
    if (busy.value && progress.value) void stopJob(progress.value.id).catch(() => undefined)
  }
  function close(): void {
    cancel()
    turn.value += 1
    asked.value = null
    progress.value = null
    picked.value = []
    clear()
  }
  watch(day, close)
  onScopeDispose(close)

  function propose(): void {
    close()
    asked.value = { day: day.value, squad: squad(), ...rules.value }
  }
  function pick(index: number): void {
    const now = picked.value
    picked.value = now.includes(index) ? now.filter((one) => one !== index) : [...now, index].sort((a, b) => a - b)
  }
  async function take(): Promise<void> {
    const taken = await attempt(() => api.takeLevel(job.value, picked.value))
    if (!taken) return
    close()
    await done()
  }
  return { proposal, job, picked, outcome, rules, busy, progress, trouble, propose, pick, take, cancel, close }
}
