import type { LaidBlock, Layout, QueuedBeat, TimerBeat, What } from './beats'

type Sheet = readonly (TimerBeat | undefined)[]

/**
 * Beats in order, played and to come, with the copies that orders put in. `place` is the running one, while waiting
 * the one to come. The same as the core's `BeatQueue`, held to it by tests/cases/runs.json.
 */
export class BeatQueue {
  items: QueuedBeat[]
  place = 0
  /** What was laid out last while it runs; the blocks that were told last. */
  laidOut: Layout | null = null
  blocks: readonly LaidBlock[] | null = null
  inForce: (readonly [sheet: number, number: number])[]
  /** The beats of each sheet that the run was laid out on, by number; of later ones those that changed. */
  readonly sheets: Sheet[]
  private readonly lengths = new Map<string, number>()
  private readonly newest = new Map<string, number>()
  private keys: number
  private sets: number

  constructor(beats: readonly TimerBeat[]) {
    this.sheets = [beats]
    this.keys = greatest(beats.map((beat) => beat.run)) + 1
    this.sets = greatest(beats.map((beat) => beat.set ?? 0)) + 1
    this.items = beats.map((beat, number) => this.item(beat, 0, number, beat.run, beat.set))
    this.inForce = beats.map((_, number) => [0, number] as const)
  }

  /** The running beat, or the one to come; null at the end. */
  get here(): QueuedBeat | null {
    return this.items[this.place] ?? null
  }

  /** Take out what is left from place `first` on of an item's run or set. */
  drop(first: number, what: What, of: QueuedBeat, keepClosingRest = false): void {
    const going = new Set<number>()
    let last = -1
    this.items.forEach((item, index) => {
      if (index >= first && alike(item, of, what)) going.add((last = index))
    })
    if (keepClosingRest && this.items[last]?.beat.kind === 'rest') going.delete(last)
    this.items = this.items.filter((_, index) => !going.has(index))
  }

  /** The first beat from place `first` on of another set of the same run. */
  nextSet(first: number, run: number, of: number | null): QueuedBeat | null {
    return (
      this.items.find((item, at) => at >= first && item.run === run && item.set !== null && item.set !== of) ?? null
    )
  }

  /** Put an item's run or set in once more, right after its last beat; returns where (-1: nothing comes). */
  again(of: QueuedBeat, what: What): number {
    const copies = what === 'block' ? this.runCopy(of) : this.setCopy(of)
    if (copies.length === 0) return -1
    const at = this.items.findLastIndex((item) => alike(item, of, what)) + 1 || this.place
    this.items = [...this.items.slice(0, at), ...copies, ...this.items.slice(at)]
    return at
  }

  /**
   * Give the beats of a block that are like the first of that kind from here on another length, those that come later
   * as copies, too. Returns whether there are any.
   */
  setLength(block: number, kind: string, seconds: number): boolean {
    let planned: number | null = null
    const items = this.items.map((item, index) => {
      const beat = item.beat
      const like = beat.block === block && beat.kind === kind && beat.ends === 'clock' && item.set !== null
      if (index < this.place || !like) return item
      planned ??= beat.s
      return beat.s === planned ? { ...item, s: seconds } : item
    })
    if (planned === null) return false
    this.lengths.set(lengthKey(block, kind, planned), seconds)
    this.items = items
    return true
  }

  /** Replace what has not begun by what a new layout has there; what was skipped stays so. */
  layOut(layout: Layout, running: boolean): void {
    const laid: (TimerBeat | undefined)[] = []
    for (const { number, beat } of layout.beats) laid[number] = beat
    this.sheets.push(laid)
    this.laidOut = layout
    this.blocks = layout.blocks ?? this.blocks
    const sheet = this.sheets.length - 1
    const after = this.place + Number(running)
    const now = this.items[after - 1] ?? null
    const kept = this.items.slice(0, after)
    const split = splitAt(this.items.slice(after), now)
    let mine = split.mine
    for (const passage of layout.changed) this.newest.set(passage, sheet)
    if (now && layout.changed.includes(now.beat.passage)) {
      const copies = new Set(mine.map((item) => item.run).filter((run) => run !== now.run))
      mine = this.laid(layout, sheet, now, copies.size)
    } else if (now && !layout.order.includes(now.beat.passage)) mine = []
    this.items = [...kept, ...mine, ...this.coming(layout, sheet, now, split.later)]
    this.keys += 1 + greatest(layout.beats.map(({ beat }) => beat.run))
    this.sets += 1 + greatest(layout.beats.map(({ beat }) => beat.set ?? 0))
    this.force(layout, kept)
  }

  private force(layout: Layout, kept: readonly QueuedBeat[]): void {
    const name = (sheet: number, number: number): string => `${sheet}/${number}`
    const begun = new Set(kept.map((item) => name(item.sheet, item.number)))
    const there = new Set(this.items.map((item) => name(item.sheet, item.number)))
    const old = this.inForce.filter(([sheet, number]) => {
      const passage = this.sheets[sheet]?.[number]?.passage ?? ''
      const key = name(sheet, number)
      const stays = there.has(key) || !layout.changed.includes(passage)
      return stays && (layout.order.includes(passage) || begun.has(key))
    })
    const known = new Set(old.map(([sheet, number]) => name(sheet, number)))
    const fresh = new Map<string, readonly [number, number]>()
    for (const item of this.items) {
      const key = name(item.sheet, item.number)
      if (!known.has(key)) fresh.set(key, [item.sheet, item.number])
    }
    this.inForce = [...old, ...fresh.values()]
  }

  private laid(layout: Layout, sheet: number, now: QueuedBeat, copies: number): QueuedBeat[] {
    const own = layout.beats.filter(({ beat }) => beat.passage === now.beat.passage)
    let left = own.slice(this.begun(now))
    const last = own.at(-1)
    // More was done than there now is: the rest after the block is still to come.
    if (left.length === 0 && last && restsAfter(last.beat) && !restsAfter(now.beat)) left = [last]
    const laid = left.map(({ number, beat }) => this.item(beat, sheet, number, now.run, this.moved(beat.set)))
    for (let copy = 0; copy < copies; copy++) laid.push(...this.copyOf(own, sheet))
    return laid
  }

  private copyOf(own: readonly { number: number; beat: TimerBeat }[], sheet: number): QueuedBeat[] {
    const run = ++this.keys
    const fresh = new Map<number, number>()
    return own
      .filter(({ beat }) => beat.kind !== 'talk')
      .map(({ number, beat }) => this.item(beat, sheet, number, run, this.freshSet(beat.set, fresh), true))
  }

  private coming(layout: Layout, sheet: number, now: QueuedBeat | null, later: readonly QueuedBeat[]): QueuedBeat[] {
    const known = new Set(now ? this.inForce.map(([at, number]) => this.sheets[at]?.[number]?.passage ?? '') : [])
    const standing = groupedBy(later, (item) => item.beat.passage)
    const fresh = groupedBy(layout.beats, ({ beat }) => beat.passage)
    const start = now ? layout.order.indexOf(now.beat.passage) + 1 : 0
    return layout.order.slice(start).flatMap((passage) => {
      if (known.has(passage) && !standing.has(passage)) return []
      if (!layout.changed.includes(passage)) return standing.get(passage) ?? []
      return (fresh.get(passage) ?? []).map(({ number, beat }) =>
        this.item(beat, sheet, number, this.keys + 1 + beat.run, this.moved(beat.set)),
      )
    })
  }

  private begun(now: QueuedBeat): number {
    const before = (this.sheets[now.sheet] ?? []).slice(0, now.number + 1)
    return before.filter((beat) => beat?.passage === now.beat.passage).length
  }

  private moved(set: number | null): number | null {
    return set === null ? null : this.sets + 1 + set
  }

  private runCopy(of: QueuedBeat): QueuedBeat[] {
    const sheet = this.newest.get(of.beat.passage) ?? 0
    const own: { number: number; beat: TimerBeat }[] = []
    this.sheets[sheet]?.forEach((beat, number) => {
      if (beat?.passage === of.beat.passage) own.push({ number, beat })
    })
    return this.copyOf(own, sheet)
  }

  private freshSet(old: number | null, fresh: Map<number, number>): number | null {
    if (old === null) return null
    if (!fresh.has(old)) fresh.set(old, ++this.sets)
    return fresh.get(old) ?? null
  }

  /** The round as it stands in the queue; where it ends in work, with the rest that stood before it. */
  private setCopy(of: QueuedBeat): QueuedBeat[] {
    if (of.set === null) return []
    const round = this.items.filter((item) => item.set === of.set)
    const first = this.items.findIndex((item) => item.set === of.set)
    const before = this.items[first - 1]
    const set = ++this.sets
    const copies = round.map((item) => this.once(item, set))
    const stood = before?.run === of.run && before.beat.kind === 'rest'
    if (before && stood && round.at(-1)?.beat.kind === 'work') copies.unshift(this.once(before, of.set))
    return copies
  }

  private once(item: QueuedBeat, set: number): QueuedBeat {
    return { ...item, set, s: this.length(item.beat) }
  }

  private item(
    beat: TimerBeat,
    sheet: number,
    number: number,
    run: number,
    set: number | null,
    copy = false,
  ): QueuedBeat {
    return { beat, sheet, number, run, set, s: this.length(beat), copy }
  }

  private length(beat: TimerBeat): number {
    if (beat.ends !== 'clock' || beat.set === null) return beat.s
    return this.lengths.get(lengthKey(beat.block, beat.kind, beat.s)) ?? beat.s
  }
}

const lengthKey = (block: number, kind: string, planned: number): string => `${block} ${kind} ${planned}`

const greatest = (numbers: readonly number[]): number => numbers.reduce((most, one) => Math.max(most, one), 0)

const alike = (item: QueuedBeat, of: QueuedBeat, what: What): boolean =>
  what === 'block' ? item.run === of.run : item.set === of.set

/** What is left of the running pass with the copies that follow it, and what comes after them. */
function splitAt(rest: readonly QueuedBeat[], now: QueuedBeat | null): { mine: QueuedBeat[]; later: QueuedBeat[] } {
  const ends = rest.findIndex((item) => item.run !== now?.run && !item.copy)
  const place = !now ? 0 : ends < 0 ? rest.length : ends
  return { mine: rest.slice(0, place), later: rest.slice(place) }
}

const restsAfter = (beat: TimerBeat): boolean => beat.kind === 'rest' && beat.set === null

function groupedBy<T>(items: readonly T[], name: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of items) {
    const group = groups.get(name(item))
    if (group) group.push(item)
    else groups.set(name(item), [item])
  }
  return groups
}
