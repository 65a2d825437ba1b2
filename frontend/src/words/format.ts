// Figures as people read them. Only the writing of numbers; no figure is worked out here.
import type { Term } from '@/api/types'

/** 930 → 15:30, 3725 → 1:02:05. */
export function clock(seconds: number | null | undefined): string {
  if (seconds === null || seconds === undefined) return '–'
  const whole = Math.round(seconds)
  const minutes = Math.floor(whole / 60)
  const rest = String(whole % 60).padStart(2, '0')
  if (minutes < 60) return `${minutes}:${rest}`
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`
}

const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 })
const oneDecimal = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 1, maximumFractionDigits: 1 })
const free = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 2 })

export const whole = (value: number): string => grouped.format(value)
export const tenth = (value: number): string => oneDecimal.format(value)
export const percent = (share: number | null | undefined): string =>
  share === null || share === undefined ? '–' : `${Math.round(share * 100)} %`
export const ratio = (value: number | null | undefined): string =>
  value === null || value === undefined ? '–' : `${oneDecimal.format(value)} : 1`

/** A number with its unit, as explanations give them. */
export function amount(value: number, unit: Term['unit']): string {
  switch (unit) {
    case 's':
      return Math.abs(value) >= 60 ? clock(value) : `${free.format(value)} s`
    case 'min':
      return `${free.format(value)} min`
    case 'kg':
      return `${free.format(value)} kg`
    case 'm':
      return `${free.format(value)} m`
    case 'share':
      return percent(value)
    case 'effort':
      return free.format(value)
    default:
      return free.format(value)
  }
}

/** A difference with its sign: +0:40, −3, +0.4; nothing where it would read as none. */
export function signed(value: number, unit: Term['unit']): string {
  const size = Math.abs(value)
  const text =
    unit === 's'
      ? clock(size)
      : unit === 'effort'
        ? oneDecimal.format(size)
        : free.format(unit === 'share' ? size * 100 : size)
  if (/^[0.:]+$/.test(text)) return ''
  // Shares differ by points: half as much again and half a point more must not read alike.
  return `${value < 0 ? '−' : '+'}${text}${unit === 'share' ? ' pts' : ''}`
}
