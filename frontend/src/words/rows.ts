// Rows of a comparison as people read them: values, differences, and what is wished for.
import type { Column, CompareRow, WishResult, Pick, Ranked, Reason, Wish } from '@/api/types'

import { clock, percent, signed, tenth, whole } from './format'

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
      return `${whole(value)} kg`
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
  return signed(Math.round(delta), 'count')
}

const HELD: Record<string, Unit> = { total: 's', work: 's', load: 'load' }

/** What of the held figure is left over: "1:40 left over", "4 push-up, 2 swing left over". */
export function leftText(column: Column, hold: string | undefined, nameOf: (key: string) => string): string {
  if (column.left === null || column.left === undefined || !hold) return ''
  if (hold === 'reps') {
    const parts = Object.entries(column.left_reps).map(([key, reps]) => `${reps} ${nameOf(key)}`)
    return parts.length ? `${parts.join(', ')} left over` : 'nothing left over'
  }
  const text = valueText(column.left, HELD[hold] ?? '')
  return /[1-9]/.test(text) ? `${text} left over` : 'nothing left over'
}

const WAYS: Record<Wish['way'], string> = {
  'at-most': 'at most',
  'at-least': 'at least',
  low: 'as little as can be',
  high: 'as much as can be',
  even: 'even',
}

/** A wish in words: "effort at most 7.0". */
export function wishText(wish: Wish, row: CompareRow | undefined): string {
  const name = (row?.label ?? wish.row).toLowerCase()
  const bound = wish.way === 'at-most' || wish.way === 'at-least' ? ` ${valueText(wish.value, row?.unit ?? '')}` : ''
  return `${name} ${WAYS[wish.way]}${bound}`
}

/** One row of a reason: "13:00 work against 12:20". */
export function reasonText(reason: Reason, row: CompareRow | undefined): string {
  const unit = row?.unit ?? ''
  return `${(row?.label ?? reason.row).toLowerCase()} ${valueText(reason.first, unit)} against ${valueText(reason.other, unit)}`
}

const listed = (parts: string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`

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
  const name = column?.key === 'plan' ? 'The plan as it stands' : (column?.name ?? '')
  const told = (wish: number): string => judgedText(first, wish, wishes, rows)
  const none = (one: WishResult): boolean => one.value === 0 && wishes[one.wish]?.way === 'high'
  const met = first.judged.filter((one) => one.met && !none(one)).map((one) => told(one.wish))
  const unmet = first.judged.filter((one) => !one.met && !first.breaks.includes(one.wish)).map((one) => told(one.wish))
  const sentences: string[] = []
  if (first.breaks.length) {
    sentences.push(`Nothing keeps every hard wish; it comes nearest but breaks ${listed(first.breaks.map(told))}.`)
  }
  if (met.length) sentences.push(`It meets ${listed(met)}.`)
  if (unmet.length) sentences.push(`Not the best in ${listed(unmet)}.`)
  const outOf = others.filter((one) => one.breaks.length > first.breaks.length).length
  if (outOf) sentences.push(`${outOf} of the others break${outOf === 1 ? 's' : ''} a hard wish that it keeps.`)
  const say = (reasons: readonly Reason[]): string =>
    listed(reasons.slice(0, 3).map((one) => reasonText(one, rows.get(one.row))))
  const base = columns[0]?.key === 'plan' ? 'the plan' : (columns[0]?.name ?? '')
  if (first.column !== 0 && pick.gains.length) sentences.push(`Beside ${base} it gains ${say(pick.gains)}.`)
  if (first.column !== 0 && pick.costs.length) sentences.push(`It costs ${say(pick.costs)}.`)
  const second = others[0]
  const next = second && columns[second.column]
  const fresh = columns[0]?.key !== 'plan' && columns[0]?.key !== 'session'
  if (second && next && next.key !== 'plan' && (fresh || first.column !== 0)) {
    const closer = second.first_better.slice(0, 2).map((one) => reasonText(one, rows.get(one.row)))
    sentences.push(
      closer.length ? `${next.name} comes next: there it has ${listed(closer)}.` : `${next.name} comes next.`,
    )
  }
  return { name, sentences }
}

/** How a column does by one wish: "effort 6.4 (effort at most 7.0)". */
function judgedText(one: Ranked, wish: number, wishes: readonly Wish[], rows: ReadonlyMap<string, CompareRow>): string {
  const of = wishes[wish]
  if (!of) return ''
  const row = rows.get(of.row)
  const judged = one.judged.find((each) => each.wish === wish)
  const bound = of.way === 'at-most' || of.way === 'at-least' || of.way === 'even' ? ` (${wishText(of, row)})` : ''
  return `${(row?.label ?? of.row).toLowerCase()} ${toldValue(judged, of, row)}${bound}`
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
  if (one === first) return ['It is the first.']
  const say = (reasons: readonly Reason[]): string =>
    listed(reasons.slice(0, 4).map((each) => reasonText(each, rows.get(each.row))))
  const sentences = [`Place ${one.rank} of ${pick.ranked.length}.`]
  if (one.breaks.length)
    sentences.push(`It breaks what must be: ${listed(one.breaks.map((wish) => judgedText(one, wish, wishes, rows)))}.`)
  const behind = one.judged.filter(
    (each) =>
      !one.breaks.includes(each.wish) && each.score < (first.judged.find((o) => o.wish === each.wish)?.score ?? 0),
  )
  if (behind.length)
    sentences.push(
      `By your wishes it is behind in ${listed(behind.map((each) => judgedText(one, each.wish, wishes, rows)))}.`,
    )
  if (one.first_better.length) sentences.push(`${best.name} has ${say(one.first_better)}.`)
  if (one.first_worse.length)
    sentences.push(
      `For it speaks: ${say(one.first_worse.map((each) => ({ ...each, first: each.other, other: each.first })))}.`,
    )
  return sentences
}
