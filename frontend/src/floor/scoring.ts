// Scores: as they are typed, as they are shown, and of which window they are.
import type { EarlierScore, Sheet } from '@/api/types'
import type { RunEvent } from '@/timer/events'
import type { TimerBeat } from '@/timer/beats'
import type { BeatQueue } from '@/timer/queue'
import { SCORES as say } from '@/words/texts/floor-panels'

import { blocksNow, blocksOfSheet, type BlocksNow } from './blocksNow'

/**
 * A window that takes a score: the `index`-th of a pass through a block, by its number as the session now stands.
 * `place`: in the queue, or on the sheet; `planned`: its block's number as it was planned, null for one put in since.
 */
export interface ScoredWindow {
  place: number
  block: number
  pass: number
  index: number
  title: string
  planned: number | null
}

interface ScoredItem {
  beat: TimerBeat
  number: number
  sheet: number
  copy: boolean
}
const takesScore = (beat: TimerBeat): boolean => beat.kind === 'work' && beat.self_paced && beat.set === null

/** The windows of a sheet that take a score, in order: those at people's own pace that are one beat. */
export function scoredWindows(sheet: Pick<Sheet, 'beats' | 'blocks'>): ScoredWindow[] {
  const items = sheet.beats.map((beat, number) => ({ beat, number, sheet: 0, copy: false }))
  return windowsAmong(items, blocksOfSheet(sheet), sheet, [sheet.beats])
}

/** Those of a run as it now stands: what was skipped or taken out is not among them. */
export function windowsNow(sheet: Pick<Sheet, 'beats' | 'blocks'>, queue: BeatQueue): ScoredWindow[] {
  return windowsAmong(queue.items, blocksNow(sheet, queue), sheet, queue.sheets)
}

function windowsAmong(
  items: readonly ScoredItem[],
  now: BlocksNow,
  sheet: Pick<Sheet, 'beats' | 'blocks'>,
  sheets: readonly (readonly (TimerBeat | undefined)[])[],
): ScoredWindow[] {
  const planned = new Map(blocksOfSheet(sheet).passes)
  return items.flatMap((item, place) => {
    const { passage } = item.beat
    const block = takesScore(item.beat) && !item.copy ? now.numberOf(item.beat) : null
    if (block === null) return []
    // Counted on its sheet: one that was skipped before it keeps its number.
    const before = (sheets[item.sheet] ?? []).slice(0, item.number)
    const index = before.filter((one) => one?.passage === passage && takesScore(one)).length
    const pass = now.passes.filter(([, of]) => of === block).findIndex(([name]) => name === passage)
    const title = now.blocks[block]?.title ?? ''
    return [{ place, block, pass: Math.max(0, pass), index, title, planned: planned.get(passage) ?? null }]
  })
}

/** How a window is called where its block has several. */
export function windowTitle(windows: readonly ScoredWindow[], window: ScoredWindow): string {
  const same = windows.filter((one) => one.block === window.block)
  return same.length > 1 ? say.nth(window.title, same.indexOf(window) + 1) : window.title
}

/** Of which window a score is asked for where a run stands: the running one, else the last that began. */
export function windowNow(windows: readonly ScoredWindow[], place: number): ScoredWindow | null {
  return windows.findLast((one) => one.place <= place) ?? windows[0] ?? null
}

const sameWindow = (a: { block: number; pass?: number; index?: number }, b: ScoredWindow): boolean =>
  a.block === b.block && (a.pass ?? 0) === b.pass && (a.index ?? 0) === b.index

/** The scores of a window by person ('' for the session's own); the one given last counts. */
export function scoresMade(events: readonly RunEvent[], window: ScoredWindow): Map<string, RunEvent & { do: 'score' }> {
  const made = new Map<string, RunEvent & { do: 'score' }>()
  for (const event of events) if (event.do === 'score' && sameWindow(event, window)) made.set(event.person ?? '', event)
  return made
}

/** When somebody's rounds were counted, in seconds of the run. */
export function splitsOf(events: readonly RunEvent[], window: ScoredWindow, person: string): number[] {
  const times: number[] = []
  for (const event of events)
    if (event.do === 'score' && sameWindow(event, window) && (event.person ?? '') === person) times.push(event.t)
  return times
}

/** What somebody made in a window before. */
export function earlierOf(
  earlier: readonly EarlierScore[],
  window: ScoredWindow,
  person: string | null,
): EarlierScore | undefined {
  return earlier.find((one) => one.person === person && one.section_pass === window.pass && sameIndex(one, window))
}

const sameIndex = (one: EarlierScore, window: ScoredWindow): boolean =>
  one.block === window.planned && one.index === window.index
