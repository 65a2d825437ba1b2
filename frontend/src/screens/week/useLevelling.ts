import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { LevelEdit, LevelProgress, Outcome, Proposal } from '@/api/types'
import { useLatest } from '@/composables/useLatest'

/** What may be set otherwise for one levelling; what is null stays as the squad has it. */
export interface LevelRules {
  most_a_day: number | null
  no_two_hard: boolean
  landings_cap: number | null
  /** Whether days before today stay as they are. */
  keep_gone: boolean
}

const LOOK_MS = 700

/** Proposals to level a week, any part of which can be looked at and taken. */
export function useLevelling(day: Ref<string>, squad: () => number, done: () => Promise<unknown>) {
  const proposal = shallowRef<Proposal | null>(null)
  const picked = ref<number[]>([])
  const outcome = shallowRef<Outcome | null>(null)
  const rules = ref<LevelRules>({ most_a_day: 2, no_two_hard: true, landings_cap: null, keep_gone: false })
  const busy = ref(false)
  const progress = shallowRef<LevelProgress | null>(null)
  const trouble = ref('')
  let ticket = ''
  let timer = 0
  const { ask } = useLatest()

  /** Stop looking: the best found so far comes as the answer. */
  const cancel = (): void => {
    if (ticket) void api.stopLevel(ticket)
  }
  function close(): void {
    cancel()
    ticket = ''
    window.clearInterval(timer)
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
    const mine = crypto.randomUUID()
    ticket = mine
    busy.value = true
    timer = window.setInterval(() => {
      void api.levelProgress(mine).then((answer) => {
        if (ticket === mine) progress.value = answer
      })
    }, LOOK_MS)
    try {
      const answer = await api.levelWeek({ day: day.value, squad: squad(), ticket: mine, ...rules.value })
      if (ticket !== mine) return
      proposal.value = answer
      picked.value = answer.edits.map((_, index) => index)
      outcome.value = answer.after ?? null
    } catch (error) {
      if (ticket === mine) told(error)
    } finally {
      if (ticket === mine) {
        window.clearInterval(timer)
        busy.value = false
        ticket = ''
      }
    }
  }
  const edits = (): LevelEdit[] => picked.value.flatMap((index) => proposal.value?.edits[index] ?? [])
  async function pick(index: number): Promise<void> {
    picked.value = picked.value.includes(index) ? picked.value.filter((one) => one !== index) : [...picked.value, index].sort((a, b) => a - b)
    try {
      await ask(
        () => api.previewLevel({ day: day.value, squad: squad(), edits: edits() }),
        (answer) => (outcome.value = answer),
      )
    } catch (error) {
      told(error)
    }
  }
  async function take(): Promise<void> {
    try {
      await api.takeLevel({ day: day.value, squad: squad(), edits: edits() })
      close()
      await done()
    } catch (error) {
      told(error)
    }
  }
  return { proposal, picked, outcome, rules, busy, progress, trouble, propose, pick, take, cancel, close }
}
