import { useQuery } from '@tanstack/vue-query'
import { computed, shallowRef, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { Again, Body, DayPlan, NewEntry, PlanDetails, PlanEntry, Week, WeekRow, Whose } from '@/api/types'
import type { Undoable } from '@/composables/undoable'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { longDay } from '@/words/dates'
import { WEEK_DONE as say } from '@/words/texts/week'

/** Whose plan `group:3` or `person:…` asks for; nothing is said of the squad's. */
export function askedFor(whose: string): Whose {
  const [kind, id = ''] = whose.split(':')
  if (kind === 'group') return { group: Number(id) }
  return kind === 'person' ? { person: id } : {}
}

/** Targets of rows by their names, as the squad's methods keep them. */
export type WeekTargets = Record<string, { by: 'minutes' | 'share'; low: number | null; high: number | null }>

const targetsOf = (rows: readonly WeekRow[]): WeekTargets =>
  Object.fromEntries(
    rows
      .filter((row) => row.low != null || row.high != null)
      .map((row) => [
        row.name,
        { by: (row.target ?? 'minutes') as 'minutes' | 'share', low: row.low ?? null, high: row.high ?? null },
      ]),
  )

/** What an entry was, of what some details change. */
function as(before: PlanEntry, details: PlanDetails): PlanDetails {
  const whole: PlanDetails = { ...before, group: before.group?.id ?? null, logged_minutes: null, logged_effort: null }
  const keys = Object.keys(details).filter((key) => key !== 'newest') as (keyof PlanDetails)[]
  return Object.fromEntries(keys.map((key) => [key, whole[key]]))
}

/** A week of the plan: read again after every change, since one entry changes what all make together. */
export function useWeek(day: Ref<string>, whose: Ref<string>) {
  const { trouble: refused, stale, clear, attempt } = useAttempt()
  const { data, error, isPlaceholderData } = useQuery(
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
  /** What was changed last; whatever undoes it asks with the version that is then seen. */
  const undoable = shallowRef<Undoable | null>(null)
  watch([day, whose], () => {
    clear()
    undoable.value = null
  })
  const notRead = troubleOf(error)
  const trouble = computed(() => refused.value || notRead.value)

  const squad = (): number => week.value?.squad ?? squadNow.value
  const read = (): Promise<unknown> => askAgain(KEYS.week())
  async function act(work: () => Promise<unknown>): Promise<boolean> {
    const done = await attempt(work)
    // Somebody else was quicker: what stands is shown, with the word that nothing was changed.
    if (done || stale.value) await read()
    if (done) void askAgain(KEYS.season())
    return done
  }
  async function actUndoably(done: string, work: () => Promise<() => Promise<unknown>>): Promise<boolean> {
    undoable.value = null
    let undo: (() => Promise<unknown>) | null = null
    const acted = await act(async () => (undo = await work()))
    if (acted && undo) undoable.value = { done, undo }
    return acted
  }
  async function undone(): Promise<void> {
    undoable.value = null
    await read()
    void askAgain(KEYS.season())
  }
  const entryOf = (id: string) => week.value?.entries.find((one) => one.id === id)
  const titleOf = (id: string): string => entryOf(id)?.title ?? ''
  const phaseNow = () => week.value?.phase ?? null
  const addPhase = (body: Omit<Body<'PhaseIn'>, 'squad'>) =>
    actUndoably(say.phaseAdded, async () => {
      await api.addPhase({ ...body, squad: squad() })
      return async () => {
        const made = phaseNow()
        if (made) await api.dropPhase(made.id)
      }
    })
  function dropPhase(id: number): Promise<boolean> {
    const before = phaseNow()
    return actUndoably(say.phaseDeleted, async () => {
      await api.dropPhase(id)
      return async () => {
        if (!before) return
        const { begins, weeks, kind, load_low, load_high } = before
        await api.addPhase({ begins, weeks, kind, load_low, load_high, squad: squad() })
      }
    })
  }
  function setTargets(targets: WeekTargets): Promise<boolean> {
    const before = targetsOf(week.value?.rows ?? [])
    const set = (to: WeekTargets) =>
      api.changeMethods(squad(), { methods: { week_targets: to }, version: week.value?.methods_version ?? '' })
    return actUndoably(say.targetsSet, async () => {
      await set(targets)
      return () => set(before)
    })
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
    undoable,
    undone,
    addPhase,
    dropPhase,
    setTargets,
    add: (body: NewEntry) =>
      actUndoably(say.scheduled, async () => {
        const made = await api.planEntry({ ...body, squad: squad() })
        return () => api.dropEntry(made.id, made.version)
      }),
    change(id: string, details: PlanDetails) {
      const before = entryOf(id)
      return actUndoably(say.changed(titleOf(id)), async () => {
        const made = await api.changeEntry(id, { ...details, version: seen(id) })
        return () => api.changeEntry(id, { ...(before ? as(before, details) : {}), version: made.version })
      })
    },
    again: (id: string, how: Again) =>
      actUndoably(say.copied(titleOf(id)), async () => {
        const made = await api.repeatEntry(id, how)
        return () => Promise.all(made.map((one) => api.dropEntry(one.id, one.version)))
      }),
    drop: (id: string) =>
      actUndoably(say.removed(titleOf(id)), async () => {
        await api.dropEntry(id, seen(id))
        return () => api.restoreEntry(id)
      }),
    setDay(which: string, body: DayPlan) {
      const before = week.value?.days.find((one) => one.day === which)
      const set = ({ intent, share, hall }: DayPlan) =>
        api.setDay(which, { intent, share, hall, version: dayNow(which), squad: squad() })
      return actUndoably(say.dayChanged(longDay(which)), async () => {
        await set(body)
        return () => set({ intent: before?.intent ?? '', share: before?.share ?? null, hall: before?.hall ?? true })
      })
    },
  }
}
