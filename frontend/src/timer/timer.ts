import { waits, type Hold, type QueuedBeat, type TimerBeat, type What } from './beats'
import { isOrder, type Order, type RunEvent } from './events'
import { BeatQueue } from './queue'

/** Times closer than this are equal. */
export const EPS_S = 1e-6
const TOO_SOON_S = 1
const BACK_TO_BEFORE_S = 3
const LATE_LAP_S = 3

export type Mode = 'before' | 'playing' | 'paused' | 'waiting' | 'over'
export type How = 'whole' | 'short' | 'long'

/** A beat that was played; `added`: it had been played before; `byClock`: it ended because its time was up. */
export interface PlayedBeat {
  item: QueuedBeat
  start: number
  end: number
  paused_s: number
  how: How
  added: boolean
  byClock: boolean
}

/**
 * What orders make of beats: a second timer for when there is no network, held to the core's (`core/floor/timer.py`)
 * by tests/cases/runs.json. Times are seconds since the start of the run.
 */
export class Timer {
  readonly queue: BeatQueue
  mode: Mode = 'before'
  played: PlayedBeat[] = []
  laps = new Map<number, number[]>()
  /** When the running beat began. */
  began = 0
  private waited = 0
  private stopped = false
  private stood = 0
  private pausedAt = 0
  private plus = 0
  private since = 0
  private readonly seen = new Set<string>()

  constructor(
    beats: readonly TimerBeat[],
    private readonly hold: Hold = 'entries',
  ) {
    this.queue = new BeatQueue(beats)
  }

  /** Seconds that the running beat has been played by `t`. */
  ranS(t: number): number {
    return Math.max(0, (this.mode === 'paused' ? this.pausedAt : t) - this.began - this.stood)
  }

  /** Seconds that are left of the running beat at `t`; null where only a tap ends it. */
  leftS(t: number): number | null {
    const item = this.queue.here
    return !item || item.beat.ends === 'tap' ? null : item.s + this.plus - this.ranS(t)
  }

  /** When the running beat ends by itself, if nothing is done; null where it does not. */
  get endsAt(): number | null {
    const item = this.queue.here
    if (this.mode !== 'playing' || !item || item.beat.ends === 'tap') return null
    return this.began + this.stood + item.s + this.plus
  }

  /** Seconds waited by `t`, the running wait included. */
  waitedBy(t: number): number {
    return this.waited + (this.mode === 'waiting' ? t - this.since : 0)
  }

  /** Seconds stood by `t`, the running pause included. */
  pausedBy(t: number): number {
    const running = this.mode === 'playing' || this.mode === 'paused' ? this.stood : 0
    const standing = this.mode === 'paused' ? t - this.pausedAt : 0
    return this.played.reduce((sum, one) => sum + one.paused_s, 0) + running + standing
  }

  /** Numbers of beats that were never played. */
  get skipped(): number[] {
    return this.queue.inForce
      .filter(([sheet, number]) => !this.seen.has(`${sheet}/${number}`))
      .map(([, number]) => number)
  }

  /** Let time run on to `t`: beats whose time is up end at that very moment, and the next begin then. */
  advance(t: number): void {
    for (let end = this.endsAt; end !== null && end <= t + EPS_S; end = this.endsAt) this.finish(end, true)
  }

  /** Take an event at its time (`advance` to it first); returns whether it did something. */
  apply(event: RunEvent): boolean {
    if (event.do === 'start') {
      if (this.mode === 'before') (this.queue.here ? this.begin : this.end).call(this, event.t)
      return false
    }
    if (event.do === 'lap') return this.lap(event.t)
    return isOrder(event) && this.order(event)
  }

  private begin(t: number): void {
    this.mode = 'playing'
    this.began = t
    this.stood = this.plus = 0
  }

  private end(t: number): void {
    this.mode = 'over'
    this.since = t
  }

  private endWait(t: number): void {
    this.waited += t - this.since
  }

  private finish(t: number, byClock = false): void {
    const item = this.record(t, byClock)
    this.queue.place++
    const following = this.queue.here
    if (!following) this.end(t)
    else if (waits(this.hold, item, following)) {
      this.mode = 'waiting'
      this.since = t
    } else this.begin(t)
  }

  private record(t: number, byClock = false): QueuedBeat {
    const item = this.queue.here
    if (!item) throw new Error('no beat is running')
    const key = `${item.sheet}/${item.number}`
    const how = howPlayed(item, t - this.began - this.stood)
    const added = this.seen.has(key)
    this.played.push({ item, start: this.began, end: t, paused_s: this.stood, how, added, byClock })
    this.seen.add(key)
    return item
  }

  private order(event: { t: number } & Order): boolean {
    const late = event.on !== undefined && event.on !== this.played.length
    if (late || this.mode === 'before' || this.stopped) return false
    if (event.do === 'pause') return this.pause(event.t)
    const ended = this.mode === 'paused'
    if (ended) {
      this.stood += event.t - this.pausedAt
      this.mode = 'playing'
    }
    return this.given(event) || ended
  }

  private pause(t: number): boolean {
    if (this.mode !== 'playing') return false
    this.mode = 'paused'
    this.pausedAt = t
    return true
  }

  private given(event: { t: number } & Order): boolean {
    const { t } = event
    switch (event.do) {
      case 'set':
        return this.set(t, event.kind, event.s)
      case 'more':
        return this.more(t, event.s)
      case 'again':
        return this.again(t, event.what ?? 'block')
      case 'skip':
        return (event.what ?? 'block') === 'block' ? this.skipBlock(t) : this.skipRound(t)
      case 'next':
        return this.next(t)
      case 'back':
        return this.back(t)
      case 'stop':
        return this.stop(t)
      default:
        return false
    }
  }

  private next(t: number): boolean {
    if (this.mode === 'waiting') {
      this.endWait(t)
      this.begin(t)
      return true
    }
    if (this.mode !== 'playing' || t - this.began < TOO_SOON_S - EPS_S) return false
    this.finish(t)
    return true
  }

  private endIfDone(t: number): void {
    const left = this.leftS(t)
    if (left !== null && left <= EPS_S) this.finish(t)
  }

  private more(t: number, seconds: number): boolean {
    if (this.mode !== 'playing' || this.leftS(t) === null || seconds === 0) return false
    this.plus += seconds
    this.endIfDone(t)
    return true
  }

  private set(t: number, kind: string, seconds: number): boolean {
    const here = this.queue.here
    if (!here || this.mode === 'over' || !this.queue.setLength(here.beat.block, kind, seconds)) return false
    if (this.mode === 'playing' && this.queue.here !== here) {
      this.plus = 0
      this.endIfDone(t)
    }
    return true
  }

  private skipBlock(t: number): boolean {
    const { queue } = this
    const here = queue.here
    if (!here || this.mode === 'over') return false
    if (this.mode === 'waiting') {
      queue.drop(queue.place, 'block', here)
      this.waitOn(t)
    } else {
      queue.drop(queue.place + 1, 'block', here)
      this.finish(t)
    }
    return true
  }

  /** While waiting, something else is to come: waiting goes on; a talk begins, and nothing ends the run. */
  private waitOn(t: number): void {
    const following = this.queue.here
    if (following && following.beat.kind !== 'talk') return
    this.endWait(t)
    if (following) this.begin(t)
    else this.end(t)
  }

  private skipRound(t: number): boolean {
    const { queue } = this
    const here = queue.here
    if (!here || here.set === null || this.mode === 'over') return false
    if (this.mode === 'waiting') {
      queue.drop(queue.place, 'round', here)
      this.waitOn(t)
      return true
    }
    const after = queue.place + 1
    if (here.beat.kind === 'work') {
      queue.drop(after, 'round', here, true)
      this.finish(t)
      return true
    }
    const within = queue.items.some((item, index) => index >= after && item.set === here.set)
    const leaving = within ? here : queue.nextSet(after, here.run, here.set)
    if (!leaving) return false
    queue.drop(after, 'round', leaving)
    const following = queue.items[after]
    if (following?.run === here.run && following.beat.kind === 'rest') this.finish(t)
    return true
  }

  private again(t: number, what: What): boolean {
    const { queue } = this
    const running = this.mode === 'playing'
    const of = running ? queue.here : (this.played.at(-1)?.item ?? null)
    const at = of ? queue.again(of, what) : -1
    if (!of || at < 0) return false
    if (running) return true
    queue.place = at
    if (this.mode !== 'over') return true
    const coming = queue.here
    if (what === 'block' && coming && waits(this.hold, of, coming)) this.mode = 'waiting'
    else {
      this.endWait(t)
      this.begin(t)
    }
    return true
  }

  private back(t: number): boolean {
    const { queue } = this
    if (this.mode === 'playing') {
      const stay = this.ranS(t) >= BACK_TO_BEFORE_S - EPS_S || queue.place === 0
      this.record(t)
      if (!stay) queue.place--
    } else {
      if (this.played.length === 0 || queue.place === 0) return false
      this.endWait(t)
      queue.place--
    }
    this.begin(t)
    return true
  }

  private stop(t: number): boolean {
    if (this.mode === 'over') return false
    if (this.mode === 'waiting') this.endWait(t)
    else {
      this.record(t)
      this.queue.place++
    }
    this.end(t)
    this.stopped = true
    return true
  }

  private lap(t: number): boolean {
    const late = this.played.findLastIndex((one) => one.item.beat.self_paced && one.byClock)
    const ended = this.played[late]
    if (ended && ended.end >= t - LATE_LAP_S - EPS_S) {
      return this.keepLap(late, ended.end - ended.start - ended.paused_s)
    }
    const live = this.mode === 'playing' || this.mode === 'paused'
    return live && !!this.queue.here?.beat.self_paced && this.keepLap(this.played.length, this.ranS(t))
  }

  private keepLap(index: number, seconds: number): true {
    this.laps.set(index, [...(this.laps.get(index) ?? []), seconds])
    return true
  }
}

/** Against the planned seconds; what ends by tap is whole, what a cap ends is never short. */
function howPlayed(item: QueuedBeat, seconds: number): How {
  const { s, ends } = item.beat
  if (ends === 'tap' || Math.abs(seconds - s) <= EPS_S) return 'whole'
  if (seconds > s) return 'long'
  return ends === 'cap' ? 'whole' : 'short'
}
