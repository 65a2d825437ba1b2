/** Where time comes from; made up in tests. Milliseconds. */
export interface TimeSource {
  wall: () => number
  steady: () => number
}
const REAL: TimeSource = { wall: () => Date.now(), steady: () => performance.now() }

/** A device that slept lost its steady time: from so many seconds on the wall clock's difference counts. */
const SLEPT_S = 1

/** What an ear notices between a tone and its moment. */
const NOTICED_S = 0.02

/** An answer that took longer says less of the server's time: it counts only once the better one is so old. */
const GOOD_FOR_MS = 600_000

/**
 * The server's time as this device knows it, in seconds since 1970: measured by the quickest answer, counted on by the
 * steady clock, and by the wall clock after a sleep. It never runs backwards.
 */
export class RunClock {
  private base: { wall: number; steady: number }
  private offset = 0
  private latest = -Infinity
  /** Grows when a better answer moved the time by more than an ear would notice: what was set for it is set anew. */
  moved = 0
  private best = { tookMs: Infinity, at: -Infinity }

  constructor(private readonly source: TimeSource = REAL) {
    this.base = { wall: source.wall(), steady: source.steady() }
  }

  /** Take the server's time from an answer that was asked for at `asked` (of `wall`) and has come now. */
  measure(server: number, asked: number): void {
    const came = this.source.wall()
    const tookMs = came - asked
    if (tookMs > this.best.tookMs && came - this.best.at < GOOD_FOR_MS) return
    this.best = { tookMs, at: came }
    const offset = server - (asked + came) / 2000
    if (Math.abs(offset - this.offset) > NOTICED_S) this.moved++
    this.offset = offset
  }

  /** Seconds since 1970, by the server's clock as far as it is known. */
  now(): number {
    const wall = this.source.wall()
    const steady = this.source.steady()
    const drift = Math.abs(wall - this.base.wall - (steady - this.base.steady)) / 1000
    if (drift > SLEPT_S) this.base = { wall, steady }
    const time = (this.base.wall + steady - this.base.steady) / 1000 + this.offset
    this.latest = Math.max(this.latest, time)
    return this.latest
  }
}

/** The one clock of this page. */
export const runClock = new RunClock()
