import { useDocumentVisibility, useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { FloorPerson } from '@/api/types'
import { account } from '@/composables/useAccount'
import { isOrder, type Order, type RunEvent } from '@/timer/events'
import { replay } from '@/timer/replay'
import { Timer } from '@/timer/timer'

import { deviceName } from './device'
import { eventsKept, keepEvents, keepRun, runKept, waitsToBeSent, type KeptEvent, type KeptRun } from './kept'
import { layoutFor } from './layouts'
import { runClock } from './runClock'
import { presentNow } from './present'
import { looksOf, stateAt, type RunState } from './runState'
import { windowsNow, type ScoredWindow } from './scoring'
import { exchange, key, takeNews } from './sending'

/** How often the picture looks at the clock: whole seconds are shown, and nobody sees a twentieth. */
const LOOK_MS = 50
/** How often others are asked for what they did, while the page is seen. */
const ASK_MS = 2_000
const ASK_AGAIN_MS = 5_000

export interface LiveRun {
  run: ShallowRef<KeptRun | null>
  state: ShallowRef<RunState | null>
  timer: () => Timer
  events: ShallowRef<KeptEvent[]>
  /** The same without what they are kept with. */
  said: ComputedRef<RunEvent[]>
  /** Who is here now, in the order of stations. */
  here: ComputedRef<FloorPerson[]>
  /** What takes a score, as the session now stands. */
  windows: ComputedRef<ScoredWindow[]>
  /** Grows with each order and each beat: what was set for the ear is out of date. */
  turn: Ref<number>
  trouble: Ref<Refusal | null>
  waiting: Ref<boolean>
  unsent: ComputedRef<number>
  give: (event: Given) => Promise<void>
  now: () => number
  /** Send what waits, and take what is new. */
  send: () => Promise<void>
}

/** An event without its time, which it gets here. */
export type Given = RunEvent extends infer E ? (E extends { t: number } ? Omit<E, 't'> : never) : never

const NOTHING = new Timer([])

/** A run on this device: kept, played and sent. `mayGive`: whether this page runs it, or only shows. */
export function useRun(id: string, mayGive: () => boolean): LiveRun {
  const run = shallowRef<KeptRun | null>(null)
  const events = shallowRef<KeptEvent[]>([])
  const state = shallowRef<RunState | null>(null)
  const trouble = shallowRef<Refusal | null>(null)
  const waiting = ref(false)
  const turn = ref(0)
  let timer = NOTHING
  let busy = false
  let askedAt = 0

  const now = (): number => Math.max(0, runClock.now() - (run.value?.begun ?? 0))
  const said = computed(() => events.value.map((one) => one.event))
  const here = computed(() => presentNow(run.value?.with?.people ?? [], said.value))
  const windows = computed(() => {
    void turn.value
    return run.value ? windowsNow(run.value.sheet, timer.queue) : []
  })
  const unsent = computed(() => events.value.filter(waitsToBeSent).length)

  function playAll(): void {
    const of = run.value
    if (!of) return
    const known = new Map(events.value.map((one) => [one.event, key(one)]))
    timer = replay({
      beats: of.sheet.beats,
      hold: of.hold,
      events: said.value,
      // An event of a device whose clock is a little ahead counts now, not when it would be asked for next.
      until: events.value.reduce((latest, { event }) => Math.max(latest, event.t), now()),
      layoutOf: (event, at) => layoutFor(of, event, known.get(event) ?? '', at),
    })
    turn.value++
    look()
  }

  function look(): void {
    const before = timer.played.length
    const seen = stateAt(timer, now())
    // Looked at twenty times a second, drawn when something of it shows.
    if (!state.value || looksOf(state.value) !== looksOf(seen)) state.value = seen
    if (timer.played.length !== before) turn.value++
  }

  async function give(given: Given): Promise<void> {
    if (!run.value || !mayGive()) return
    const event = { ...given, t: Math.floor(now() * 1000) / 1000 } as RunEvent
    timer.advance(event.t)
    // Said with each order: tapped on a beat that runs no more, it does nothing.
    const told = isOrder(event) ? ({ ...event, on: timer.played.length } as { t: number } & Order) : event
    const device = deviceName()
    const number = events.value.reduce(
      (next, one) => (one.device === device ? Math.max(next, one.number + 1) : next),
      0,
    )
    const kept: KeptEvent = { run: id, device, number, event: told, sent: false }
    events.value = [...events.value, kept]
    playAll()
    await keepEvents([kept])
    void send()
  }

  async function send(): Promise<void> {
    const of = run.value
    if (!of || busy) return
    busy = true
    askedAt = Date.now()
    const moved = runClock.moved
    const wasRemoved = of.removed
    const laidOut = Object.keys(of.layouts).length
    try {
      const sent = await exchange(of)
      if (runClock.moved !== moved) playAll()
      waiting.value = sent.state === 'waiting'
      trouble.value = sent.state === 'refused' ? sent.why : null
      if (sent.state === 'sent') {
        const kept = await eventsKept(id)
        // What was given meanwhile is not on the disk yet.
        const fresh = events.value.filter((one) => !kept.some((other) => key(other) === key(one)))
        const changed = kept.length + fresh.length !== events.value.length || Object.keys(of.layouts).length > laidOut
        events.value = [...kept, ...fresh]
        if (changed) playAll()
        if (of.removed !== wasRemoved) run.value = { ...of }
      }
    } finally {
      busy = false
    }
    if (timer.mode === 'over' && !of.over) await keepRun({ ...of, over: true })
  }

  async function load(): Promise<void> {
    const who = account.value?.name ?? ''
    try {
      run.value = (await runKept(id, who)) ?? (await joined(id, who))
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = error
      return
    }
    events.value = await eventsKept(id)
    playAll()
    void send()
  }

  const visible = useDocumentVisibility()
  useIntervalFn(look, LOOK_MS)
  useIntervalFn(() => {
    const pause = waiting.value ? ASK_AGAIN_MS : ASK_MS
    if (visible.value === 'visible' && Date.now() - askedAt >= pause) void send()
  }, ASK_MS)
  // After a sleep the picture is right at once, and what was set for the ear is set anew.
  watch(visible, (seen) => seen === 'visible' && playAll())
  useEventListener(window, 'online', () => void send())
  onScopeDispose(() => void send())
  onScopeDispose(runClock.holdFor())
  void load()

  return {
    run,
    state,
    timer: () => timer,
    events,
    said,
    here,
    windows,
    turn,
    trouble,
    waiting,
    unsent,
    give,
    now,
    send,
  }
}

/** A run that another device began, joined by this one. */
async function joined(id: string, who: string): Promise<KeptRun> {
  const asked = Date.now()
  const news = await api.run(id, 0)
  runClock.measure(news.now, asked)
  const sheet = await api.runSheet(id)
  // People, emergency words and what was scored before come with the entry; without it the run goes on all the same.
  const told = news.entry === null ? null : await api.floorSheet(news.entry).catch(() => null)
  const { entry, title, name, begun, apart, hold } = news
  const run: KeptRun = {
    id, account: who, entry, title, name, begun, apart, hold, sheet, with: told, layouts: {}, sent: true, last: 0,
    over: false, keptAt: runClock.now(),
  } // prettier-ignore
  // Its events too, before anything is given here: a device that is known there already goes on counting.
  await takeNews(run, news, [])
  return run
}
