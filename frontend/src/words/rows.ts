// Rows of a comparison as people read them: values, differences, and what is wished for.
import type { Column, CompareRow, Pick, Reason, Wish } from '@/api/types'

import { clock, percent, signed, tenth, whole } from './format'

type Unit = CompareRow['unit'] | string

const ratioText = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 1, maximumFractionDigits: 1 })

/** A value with its unit; a split as 58 : 42. */
export function valueText(value: number | null | undefined, unit: Unit): string {
  if (value === null || value === undefined) return '–'
  switch (unit) {
    case 's':
      return clock(value)
    case 'share':
      return percent(value)
    case 'split':
      return `${Math.round(value * 100)} : ${100 - Math.round(value * 100)}`
    case 'ratio':
      return `${ratioText.format(value)} : 1`
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
function toldValue(judged: { value: number | null; met: boolean } | undefined, wish: Wish, row: CompareRow | undefined): string {
  const text = valueText(judged?.value, row?.unit ?? '')
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
  const told = (wish: number): string => {
    const one = wishes[wish]
    if (!one) return ''
    const row = rows.get(one.row)
    const judged = first.judged.find((each) => each.wish === wish)
    const bound = one.way === 'at-most' || one.way === 'at-least' || one.way === 'even' ? ` (${wishText(one, row)})` : ''
    return `${(row?.label ?? one.row).toLowerCase()} ${toldValue(judged, one, row)}${bound}`
  }
  const met = first.judged.filter((one) => one.met).map((one) => told(one.wish))
  const unmet = first.judged.filter((one) => !one.met && !first.breaks.includes(one.wish)).map((one) => told(one.wish))
  const sentences: string[] = []
  if (first.breaks.length) {
    sentences.push(`Nothing keeps every hard wish; it comes nearest but breaks ${listed(first.breaks.map(told))}.`)
  }
  if (met.length) sentences.push(`It meets ${listed(met)}.`)
  if (unmet.length) sentences.push(`Not the best in ${listed(unmet)}.`)
  const outOf = others.filter((one) => one.breaks.length > first.breaks.length).length
  if (outOf) sentences.push(`${outOf} of the others break${outOf === 1 ? 's' : ''} a hard wish that it keeps.`)
  const say = (reasons: readonly Reason[]): string => listed(reasons.slice(0, 3).map((one) => reasonText(one, rows.get(one.row))))
  const base = columns[0]?.key === 'plan' ? 'the plan' : (columns[0]?.name ?? '')
  if (first.column !== 0 && pick.gains.length) sentences.push(`Beside ${base} it gains ${say(pick.gains)}.`)
  if (first.column !== 0 && pick.costs.length) sentences.push(`It costs ${say(pick.costs)}.`)
  const second = pick.second === null || pick.second === undefined ? undefined : columns[pick.second]
  if (second && pick.second !== 0 && first.column !== 0) {
    const closer = [...pick.over_second.slice(0, 2)].map((one) => reasonText(one, rows.get(one.row)))
    if (closer.length) sentences.push(`${second.name} comes next: there it has ${listed(closer)}.`)
  }
  return { name, sentences }
}
