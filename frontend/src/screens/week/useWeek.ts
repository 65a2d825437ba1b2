import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { LevelEdit, LevelProgress, Outcome, PlanDetails, Proposal, Week } from '@/api/types'
import { account } from '@/composables/useAccount'

/** A week of the plan: read anew after every change, since one entry changes what all make together. */
export function useWeek(day: Ref<string>, person: Ref<number>) {
  const week = shallowRef<Week | null>(null)
  const trouble = ref('')
  let asked = 0

  const squad = (): number => week.value?.squad ?? account.value?.squads[0]?.id ?? 0
  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    trouble.value = ''
    try {
      await work()
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = error.told
      return false
    }
  }
  async function read(): Promise<void> {
    const mine = ++asked
    await attempt(async () => {
      const answer = await api.week(day.value, person.value)
      if (mine === asked) week.value = answer
    })
  }
  watch([day, person], read, { immediate: true })

  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    const done = await attempt(work)
    if (done) await read()
    return done
  }
  return {
    week,
    trouble,
    squad,
    read,
    act,
    add: (body: PlanDetails & { session?: string; title?: string }) => act(() => api.planEntry({ ...body, squad: squad() })),
    change: (id: string, details: PlanDetails) => act(() => api.changeEntry(id, details)),
    again: (id: string, how: { weeks?: number; day?: string }) => act(() => api.repeatEntry(id, how)),
    drop: (id: string) => act(() => api.dropEntry(id)),
    setDay: (which: string, body: { intent: string; share: number | null; hall: boolean }) =>
      act(() => api.setDay(which, { ...body, squad: squad() })),
  }
}

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
  let previewed = 0

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
    trouble.value = error.problems[0]?.allowed ?? error.message
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
    const mine = ++previewed
    try {
      const answer = await api.previewLevel({ day: day.value, squad: squad(), edits: edits() })
      if (mine === previewed) outcome.value = answer
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
