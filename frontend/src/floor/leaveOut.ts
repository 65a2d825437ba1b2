// Short of time without a network: whole steps only, summed from the beats. What is to be left out is kept with the
// run, and given as a skip when its turn comes.
import type { LaidBlock, QueuedBeat } from '@/timer/beats'
import type { Timer } from '@/timer/timer'

import type { BlocksNow } from './blocksNow'

/** What a session is cut by: a pass left out whole, or its last rounds from the work beat `after` on. */
export interface LeaveOut {
  run: number
  title: string
  /** The beat of the pass, by sheet and number, that is the last one kept; null where none is. */
  after: { sheet: number; number: number } | null
}

/** Steps in order, and the seconds from now on that are left after them. */
export interface WholeSteps {
  steps: LeaveOut[]
  s: number
}

interface Pass {
  run: number
  of: LaidBlock | undefined
  items: QueuedBeat[]
  begun: boolean
}

/** Seconds that are left as planned: of the running beat, and of all that come. */
export function secondsLeft(timer: Timer, t: number): number {
  const { queue } = timer
  const here = queue.here
  if (!here || timer.mode === 'over') return 0
  const running = timer.mode === 'playing' || timer.mode === 'paused'
  const first = running ? (timer.leftS(t) ?? Math.max(0, here.s - timer.ranS(t))) : here.s
  return first + sum(queue.items.slice(queue.place + 1))
}

/** Optional parts, then rounds one by one, then blocks, last ones first, until what is left fits; all steps if none do. */
export function wholeSteps(timer: Timer, t: number, leftS: number, now: BlocksNow): WholeSteps {
  let over = secondsLeft(timer, t) - leftS
  const steps: LeaveOut[] = []
  const take = (step: LeaveOut, saved: number): void => {
    // A further round of the same pass takes the place of the one before it.
    const same = steps.findIndex((one) => one.run === step.run)
    if (same >= 0) steps.splice(same, 1)
    steps.push(step)
    over -= saved
  }
  const passes = passesOf(timer, now)
  const spare = passes.filter((one) => !one.begun && one.of?.part !== 'cool-down')
  for (const pass of [...spare].reverse())
    if (over > 0 && pass.of?.optional === 'skip') take(whole(pass), sum(pass.items))
  const gone = new Set(steps.map((one) => one.run))
  const kept = passes.filter((one) => !gone.has(one.run) && one.of?.part !== 'cool-down')
  for (;;) {
    const cuts = kept.map(shorter).filter((one) => one !== null)
    const longest = cuts.sort((a, b) => b.sets - a.sets || b.at - a.at)[0]
    if (over <= 0 || !longest) break
    take(longest.step, longest.saved)
    longest.pass.items = longest.items
  }
  for (const pass of [...spare].reverse()) if (over > 0 && !gone.has(pass.run)) take(whole(pass), sum(pass.items))
  return { steps, s: over + leftS }
}

/** What is due now of what was to be left out: the pass that runs or comes, from here on; null where nothing is. */
export function dueToLeave(timer: Timer, steps: readonly LeaveOut[]): LeaveOut | null {
  const here = timer.queue.here
  if (!here || (timer.mode !== 'playing' && timer.mode !== 'waiting')) return null
  const step = steps.find((one) => one.run === here.run)
  if (!step) return null
  const { after } = step
  if (!after) return step
  const { items, place } = timer.queue
  const last = items.findIndex(
    (one) => one.run === here.run && one.sheet === after.sheet && one.number === after.number,
  )
  return last >= 0 && place > last ? step : null
}

const sum = (items: readonly QueuedBeat[]): number => items.reduce((all, one) => all + one.s, 0)
const whole = (pass: Pass): LeaveOut => ({ run: pass.run, title: pass.of?.title ?? '', after: null })

/** The passes that run or are to come, with their beats; of the running one what comes after its beat. */
function passesOf(timer: Timer, now: BlocksNow): Pass[] {
  const { items, place } = timer.queue
  const running = timer.mode === 'playing' || timer.mode === 'paused'
  const passes = new Map<number, Pass>()
  for (const item of items.slice(place + (running ? 1 : 0))) {
    const pass = passes.get(item.run) ?? {
      run: item.run,
      of: now.blocks[now.numberOf(item.beat) ?? -1],
      items: [],
      begun: false,
    }
    pass.items.push(item)
    passes.set(item.run, pass)
  }
  const here = running ? passes.get(items[place]?.run ?? -1) : undefined
  if (here) here.begun = true
  return [...passes.values()]
}

/** A pass with its last round off: what goes is all behind the last work that stays. */
function shorter(
  pass: Pass,
  at: number,
): { step: LeaveOut; saved: number; items: QueuedBeat[]; sets: number; at: number; pass: Pass } | null {
  const sets = [...new Set(pass.items.filter((one) => one.beat.kind === 'work').map((one) => one.set))]
  if (sets.length < 2 || sets.includes(null)) return null
  const last = sets.at(-1)
  const stays = pass.items.findLastIndex((one) => one.beat.kind === 'work' && one.set !== last)
  const keeps = pass.items[stays]
  if (!keeps) return null
  const step = { run: pass.run, title: pass.of?.title ?? '', after: { sheet: keeps.sheet, number: keeps.number } }
  const items = pass.items.slice(0, stays + 1)
  return { step, saved: sum(pass.items.slice(stays + 1)), items, sets: sets.length, at, pass }
}
