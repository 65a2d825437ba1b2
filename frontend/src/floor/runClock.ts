/** Where time comes from; made up in tests. Milliseconds. */
export interface TimeSource {
  wall: () => number
  steady: () => number
  /** What was measured last, also before a reload without a network. */
  kept?: () => number | null
  keep?: (offset: number) => void
}
const REAL: TimeSource = {
  wall: () => Date.now(),
  steady: () => performance.now(),
  kept: () => {
    const kept = Number.parseFloat(localStorage.getItem(KEY) ?? '')
    return Number.isFinite(kept) ? kept : null
  },
  keep: (offset) => localStorage.setItem(KEY, String(offset)),
}

/** A device that slept lost its steady time: from so many seconds on the wall clock's difference counts. */
const SLEPT_S = 1

/** What an ear notices between a tone and its moment. */
const NOTICED_S = 0.02

/** From so many seconds on it is not the network: a clock was wrong, and time may go back. */
const WRONG_S = 5

const KEY = 'server-offset'

/** An answer that took longer says less of the server's time: it counts only once the better one is so old. */
const GOOD_FOR_MS = 600_000

/**
 * The server's time as this device knows it, in seconds since 1970: measured by the quickest answer, counted on by the
 * steady clock, and by the wall clock after a sleep. It never runs backwards.
 */
export class RunClock {
  private base: { wall: number; steady: number }
  /** Seconds that the server is ahead of this device's clock, as far as it is known; `measured`: whether it ever was. */
  offset = 0
  measured = false
  private latest = -Infinity
  /** Grows when a better answer moved the time by more than an ear would notice: what was set for it is set anew. */
  moved = 0
  /** How many runs go on here: while one does, a server whose clock is set does not move it. */
  private runs = 0
  private heard = false
  private slept = false
  private best = { tookMs: Infinity, at: -Infinity }

  constructor(private readonly source: TimeSource = REAL) {
    this.base = { wall: source.wall(), steady: source.steady() }
    const known = source.kept?.() ?? null
    if (known !== null) [this.offset, this.measured] = [known, true]
  }

  /** Take the server's time from an answer that was asked for at `asked` (of `wall`) and has come now. */
  measure(server: number, asked: number): void {
    const came = this.source.wall()
    const tookMs = came - asked
    if (tookMs > this.best.tookMs && came - this.best.at < GOOD_FOR_MS) return
    this.best = { tookMs, at: came }
    const offset = server - (asked + came) / 2000
    this.now()
    // This device's time went on as ever, and the server's did not: the server's clock was set.
    if (this.runs > 0 && this.heard && !this.slept && Math.abs(offset - this.offset) > WRONG_S) return
    this.heard = true
    this.slept = false
    if (Math.abs(offset - this.offset) > NOTICED_S) this.moved++
    if (Math.abs(offset - this.offset) > WRONG_S) this.latest = -Infinity
    this.offset = offset
    this.measured = true
    this.source.keep?.(offset)
  }

  /** A run goes on here; returns what ends that. */
  holdFor(): () => void {
    this.runs++
    return () => void this.runs--
  }

  /** Seconds since 1970, by the server's clock as far as it is known. */
  now(): number {
    const wall = this.source.wall()
    const steady = this.source.steady()
    const drift = Math.abs(wall - this.base.wall - (steady - this.base.steady)) / 1000
    if (drift > SLEPT_S) {
      this.base = { wall, steady }
      this.slept = true
    }
    const time = (this.base.wall + steady - this.base.steady) / 1000 + this.offset
    this.latest = Math.max(this.latest, time)
    return this.latest
  }
}

/** The one clock of this page. */
export const runClock = new RunClock()
