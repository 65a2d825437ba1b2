import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import { finished, stopJob } from '@/api/jobs'
import type { Job, Outcome, Proposal } from '@/api/types'
import { useLatest } from '@/composables/useLatest'

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
  const proposal = shallowRef<Proposal | null>(null)
  const picked = ref<number[]>([])
  const outcome = shallowRef<Outcome | null>(null)
  const rules = ref<LevelRules>({ most_a_day: 2, no_two_hard: true, landings_cap: null, gone: false })
  const busy = ref(false)
  const progress = shallowRef<Job | null>(null)
  const trouble = ref('')
  /** The job whose answer is looked for, or on the screen. */
  let job = ''
  let asked = 0
  const { ask } = useLatest()

  /** Stop looking: the best found so far comes as the answer. */
  const cancel = (): void => {
    if (busy.value && job) void stopJob(job).catch(() => undefined)
  }
  function close(): void {
    cancel()
    asked += 1
    job = ''
    busy.value = false
    progress.value = null
    proposal.value = null
    picked.value = []
    outcome.value = null
    trouble.value = ''
  }
  watch(day, close)
  onScopeDispose(close)

  const told = (error: unknown): void => {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.told
  }
  async function propose(): Promise<void> {
    close()
    const mine = asked
    busy.value = true
    try {
      const begun = await api.askToLevel({ day: day.value, squad: squad(), ...rules.value })
      if (asked !== mine) {
        void stopJob(begun.id).catch(() => undefined)
        return
      }
      job = begun.id
      await finished(begun, (now) => {
        if (asked === mine) progress.value = now
      })
      const answer = await api.proposal(begun.id)
      if (asked !== mine) return
      proposal.value = answer
      picked.value = answer.edits.map((_, index) => index)
      outcome.value = answer.after ?? null
    } catch (error) {
      if (asked === mine) told(error)
    } finally {
      if (asked === mine) {
        busy.value = false
        progress.value = null
      }
    }
  }
  async function pick(index: number): Promise<void> {
    picked.value = picked.value.includes(index)
      ? picked.value.filter((one) => one !== index)
      : [...picked.value, index].sort((a, b) => a - b)
    try {
      await ask(
        () => api.previewLevel(job, picked.value),
        (answer) => (outcome.value = answer),
      )
    } catch (error) {
      told(error)
    }
  }
  async function take(): Promise<void> {
    try {
      await api.takeLevel(job, picked.value)
      close()
      await done()
    } catch (error) {
      told(error)
    }
  }
  return { proposal, picked, outcome, rules, busy, progress, trouble, propose, pick, take, cancel, close }
}
