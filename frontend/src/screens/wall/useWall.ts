import { useIntervalFn } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { Sheet, WallName, WallShown } from '@/api/types'
import { runClock } from '@/floor/runClock'
import { looksOf, stateAt, type RunState } from '@/floor/runState'
import type { Hold, Layout } from '@/timer/beats'
import type { RunEvent } from '@/timer/events'
import { replay } from '@/timer/replay'
import { tellHereIn } from '@/words/units'
import { Timer } from '@/timer/timer'

const KEY = 'wall-screen'
const ASK_MS = 1_000
const ASK_WAITING_MS = 5_000
const LOOK_MS = 50

interface Shown {
  id: string
  title: string
  begun: number
  hold: Hold
  sheet: Sheet
  last: number
  events: RunEvent[]
  layouts: Map<RunEvent, Layout>
  names: WallName[]
}

export interface Wall {
  code: Ref<string>
  lost: Ref<boolean>
  shown: ShallowRef<Shown | null>
  state: ShallowRef<RunState | null>
}

/** A screen on the wall: asks for a code, then for the run that it shows; goes on by itself where the network goes. */
export function useWall(): Wall {
  const code = ref('')
  const lost = ref(false)
  const shown = shallowRef<Shown | null>(null)
  const state = shallowRef<RunState | null>(null)
  let token = localStorage.getItem(KEY) ?? ''
  let timer = new Timer([])
  let askedAt = 0
  let busy = false

  onScopeDispose(() => tellHereIn(null))
  const now = (): number => Math.max(0, runClock.now() - (shown.value?.begun ?? 0))

  async function open(): Promise<void> {
    const made = await api.openWall()
    token = made.token
    code.value = made.code
    localStorage.setItem(KEY, token)
  }

  async function ask(): Promise<void> {
    if (busy) return
    busy = true
    askedAt = Date.now()
    try {
      if (!token) await open()
      const asked = Date.now()
      const told = await api.wall(token, shown.value?.id ?? null, shown.value?.last ?? 0)
      runClock.measure(told.now, asked)
      tellHereIn(told.units)
      lost.value = false
      take(told)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (error.status === 401) {
        // Ended, or the day is over: a new code.
        token = ''
        shown.value = state.value = null
      } else lost.value = true
    } finally {
      busy = false
    }
  }

  function take(told: WallShown): void {
    if (told.paired) code.value = ''
    else if (!code.value) token = ''
    if (!told.run) {
      shown.value = state.value = null
      return
    }
    const before = shown.value?.id === told.run.id ? shown.value : null
    const sheet = told.sheet ?? before?.sheet
    if (!sheet) return
    const { id, title, begun, hold, last } = told.run
    const layouts = before?.layouts ?? new Map<RunEvent, Layout>()
    const events = before?.events ?? []
    for (const one of told.run.events) {
      const event = one.event as unknown as RunEvent
      events.push(event)
      const layout = told.run.layouts[`${one.device}/${one.number}`]
      if (layout) layouts.set(event, layout as unknown as Layout)
    }
    const fresh = told.run.events.length > 0 || !before
    const names = told.names ?? before?.names ?? []
    shown.value = { id, title, begun, hold, sheet, last, events, layouts, names }
    if (fresh) play()
  }

  function play(): void {
    const of = shown.value
    if (!of) return
    const { events, hold, layouts, sheet } = of
    const until = events.reduce((latest, event) => Math.max(latest, event.t), now())
    timer = replay({ beats: sheet.beats, hold, events, until, layoutOf: (event) => layouts.get(event) ?? null })
    look()
  }

  function look(): void {
    if (!shown.value) return
    const seen = stateAt(timer, now())
    if (!state.value || looksOf(state.value) !== looksOf(seen)) state.value = seen
  }

  useIntervalFn(look, LOOK_MS)
  useIntervalFn(() => {
    const pause = state.value && state.value.mode !== 'waiting' ? ASK_MS : ASK_WAITING_MS
    if (Date.now() - askedAt >= pause - 50) void ask()
  }, ASK_MS)
  void ask()
  return { code, lost, shown, state }
}
