// Rows of a comparison as people read them: values, differences, and what is wished for.
import type { Column, CompareRow, WishResult, Pick, Ranked, Reason, Wish } from '@/api/types'

import { clock, percent, signed, tenth, whole } from './format'
import { PICKS as say, WAYS } from './texts/picks'
import { inUnits, signOf } from './units'

type Unit = CompareRow['unit'] | string

/** What stands where there was nothing to divide by. */
export const ENDLESS = '∞ : 1'

/** A value with its unit; a split as 58 : 42. */
export function valueText(value: number | null | undefined, unit: Unit, endless = false): string {
  if (endless) return ENDLESS
  if (value === null || value === undefined) return '–'
  switch (unit) {
    case 's':
      return clock(value)
    case 'share':
      return percent(value)
    case 'split':
      return `${Math.round(value * 100)} : ${100 - Math.round(value * 100)}`
    case 'ratio':
      return `${tenth(value)} : 1`
    case 'effort':
    case 'per-min':
      return tenth(value)
    case 'kg':
      return `${whole(inUnits(value, 'kg'))} ${signOf('kg')}`
    default:
      return whole(value)
  }
}

/** A difference with its sign, in the row's unit; nothing for one too small to be written. */
export function deltaText(delta: number | undefined, unit: Unit): string {
  if (delta === undefined) return ''
  if (unit === 's' || unit === 'effort') return signed(delta, unit)
  if (unit === 'share') return signed(Math.round(delta * 100) / 100, unit)
  if (unit === 'split') return signed(Math.round(delta * 100), 'count')
  if (unit === 'ratio' || unit === 'per-min') return signed(Math.round(delta * 10) / 10, 'count')
  return signed(Math.round(unit === 'kg' ? inUnits(delta, 'kg') : delta), 'count')
}

const HELD: Record<string, Unit> = { total: 's', work: 's', load: 'load' }

/** What of the held figure is left over: "1:40 left over", "4 push-up, 2 swing left over". */
export function leftText(column: Column, hold: string | undefined, nameOf: (key: string) => string): string {
  if (column.left === null || column.left === undefined || !hold) return ''
  if (hold === 'reps') {
    const parts = Object.entries(column.left_reps).map(([key, reps]) => `${reps} ${nameOf(key)}`)
    return parts.length ? say.left(parts.join(', ')) : say.nothingLeft
  }
  const text = valueText(column.left, HELD[hold] ?? '')
  return /[1-9]/.test(text) ? say.left(text) : say.nothingLeft
}

/** A wish in words: "effort at most 7.0". */
export function wishText(wish: Wish, row: CompareRow | undefined): string {
  const name = (row?.label ?? wish.row).toLowerCase()
  if (wish.way !== 'at-most' && wish.way !== 'at-least') return say.wish(name, WAYS[wish.way])
  return say.wishWithin(name, WAYS[wish.way], valueText(wish.value, row?.unit ?? ''))
}

/** One row of a reason: "13:00 work against 12:20". */
export function reasonText(reason: Reason, row: CompareRow | undefined): string {
  const unit = row?.unit ?? ''
  const name = (row?.label ?? reason.row).toLowerCase()
  return say.against(name, valueText(reason.first, unit), valueText(reason.other, unit))
}

const listed = (parts: string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : say.and(parts.slice(0, -1).join(', '), parts.at(-1))

/** A value that misses its bound by less than is usually written is written closer: 7.04, not 7.0 against 7.0. */
function toldValue(judged: WishResult | undefined, wish: Wish, row: CompareRow | undefined): string {
  const text = valueText(judged?.value, row?.unit ?? '', judged?.endless)
  const close = judged && !judged.met && judged.value !== null && text === valueText(wish.value, row?.unit ?? '')
  return close ? String(Math.round((judged.value ?? 0) * 100) / 100) : text
}

/** Why the first is first and what it costs, in sentences. Every number is the core's. */
export function pickWords(
  pick: Pick,
  columns: readonly Column[],
  wishes: readonly Wish[],
  rows: ReadonlyMap<string, CompareRow>,
): { name: string; sentences: string[] } | null {
  const [first, ...others] = pick.ranked
  if (!first) return null
  const column = columns[first.column]
  const name = column?.key === 'plan' ? say.planAsItStands : (column?.name ?? '')
  const told = (wish: number): string => judgedText(first, wish, wishes, rows)
  const none = (one: WishResult): boolean => one.value === 0 && wishes[one.wish]?.way === 'high'
  const met = first.judged.filter((one) => one.met && !none(one)).map((one) => told(one.wish))
  const unmet = first.judged.filter((one) => !one.met && !first.breaks.includes(one.wish)).map((one) => told(one.wish))
  const sentences: string[] = []
  if (first.breaks.length) {
    sentences.push(say.nearest(listed(first.breaks.map(told))))
  }
  if (met.length) sentences.push(say.meets(listed(met)))
  if (unmet.length) sentences.push(say.notBest(listed(unmet)))
  const outOf = others.filter((one) => one.breaks.length > first.breaks.length).length
  if (outOf) sentences.push(outOf === 1 ? say.oneOut : say.moreOut(outOf))
  const reasoned = (reasons: readonly Reason[]): string =>
    listed(reasons.slice(0, 3).map((one) => reasonText(one, rows.get(one.row))))
  const base = columns[0]?.key === 'plan' ? say.thePlan : (columns[0]?.name ?? '')
  if (first.column !== 0 && pick.gains.length) sentences.push(say.gains(base, reasoned(pick.gains)))
  if (first.column !== 0 && pick.costs.length) sentences.push(say.costs(reasoned(pick.costs)))
  const second = others[0]
  const next = second && columns[second.column]
  const fresh = columns[0]?.key !== 'plan' && columns[0]?.key !== 'session'
  if (second && next && next.key !== 'plan' && (fresh || first.column !== 0)) {
    const closer = second.first_better.slice(0, 2).map((one) => reasonText(one, rows.get(one.row)))
    sentences.push(closer.length ? say.nextHas(next.name, listed(closer)) : say.next(next.name))
  }
  return { name, sentences }
}

/** How a column does by one wish: "effort 6.4 (effort at most 7.0)". */
function judgedText(one: Ranked, wish: number, wishes: readonly Wish[], rows: ReadonlyMap<string, CompareRow>): string {
  const of = wishes[wish]
  if (!of) return ''
  const row = rows.get(of.row)
  const judged = one.judged.find((each) => each.wish === wish)
  const [name, value] = [(row?.label ?? of.row).toLowerCase(), toldValue(judged, of, row)]
  const bound = of.way === 'at-most' || of.way === 'at-least' || of.way === 'even'
  return bound ? say.judgedBy(name, value, wishText(of, row)) : say.judged(name, value)
}

/** Why a column is not the first, in sentences: what is in its way, or in which figures the first does better. */
export function whyNotWords(
  number: number,
  pick: Pick,
  columns: readonly Column[],
  wishes: readonly Wish[],
  rows: ReadonlyMap<string, CompareRow>,
): string[] {
  const column = columns[number]
  if (!column) return []
  if (column.why) return column.causes.map((one) => `${one.text.charAt(0).toUpperCase()}${one.text.slice(1)}.`)
  const one = pick.ranked.find((each) => each.column === number)
  const first = pick.ranked[0]
  const best = first && columns[first.column]
  if (!one || !first || !best) return []
  if (one === first) return [say.isFirst]
  const reasoned = (reasons: readonly Reason[]): string =>
    listed(reasons.slice(0, 4).map((each) => reasonText(each, rows.get(each.row))))
  const sentences = [say.rank(one.rank, pick.ranked.length)]
  if (one.breaks.length)
    sentences.push(say.breaks(listed(one.breaks.map((wish) => judgedText(one, wish, wishes, rows)))))
  const behind = one.judged.filter(
    (each) =>
      !one.breaks.includes(each.wish) && each.score < (first.judged.find((o) => o.wish === each.wish)?.score ?? 0),
  )
  if (behind.length) sentences.push(say.behind(listed(behind.map((each) => judgedText(one, each.wish, wishes, rows)))))
  if (one.first_better.length) sentences.push(say.has(best.name, reasoned(one.first_better)))
  if (one.first_worse.length)
    sentences.push(
      say.speaks(reasoned(one.first_worse.map((each) => ({ ...each, first: each.other, other: each.first })))),
    )
  return sentences
}
