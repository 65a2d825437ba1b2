// Figures as people read them. Only the writing of numbers; no figure is worked out here.
// By d3-format: the browser's own needs a tenth of a second to load what it knows of languages, before anything is drawn.
import { formatLocale } from 'd3-format'

import type { Term } from '@/api/types'

import { inUnits, told, typedIn, type Measured, type Units } from './units'

/** 930 → 15:30, 3725 → 1:02:05. */
export function clock(seconds: number | null | undefined): string {
  if (seconds === null || seconds === undefined) return '–'
  const whole = Math.round(seconds)
  const minutes = Math.floor(whole / 60)
  const rest = String(whole % 60).padStart(2, '0')
  if (minutes < 60) return `${minutes}:${rest}`
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`
}

const { format } = formatLocale({ decimal: '.', thousands: ',', grouping: [3], currency: ['', ''], minus: '-' })
/** At most two decimals. */
const free = format(',.2~f')

export const whole: (value: number) => string = format(',.0f')
export const tenth: (value: number) => string = format(',.1f')
export const hundredth: (value: number) => string = format(',.2f')
export const percent = (share: number | null | undefined): string =>
  share === null || share === undefined ? '–' : `${Math.round(share * 100)} %`
export const ratio = (value: number | null | undefined): string =>
  value === null || value === undefined ? '–' : `${tenth(value)} : 1`

/** A mass or a distance in this person's units, or in those that it was typed in: 16 kg, 35.27 lb. */
export function measured(value: number, of: Measured, system?: Units): string {
  const [number, sign] = told(value, of, system)
  return `${free(number)} ${sign}`
}

/** What is lifted, or what it is made of: what was typed in a unit keeps it. */
export function weightText(load: { kg: number; unit?: string | null }): string {
  return measured(load.kg, 'kg', typedIn(load.unit))
}

/** A number with its unit, as explanations give them. */
export function amount(value: number, unit: Term['unit']): string {
  switch (unit) {
    case 's':
      return Math.abs(value) >= 60 ? clock(value) : `${free(value)} s`
    case 'min':
      return `${free(value)} min`
    case 'kg':
    case 'm':
      return measured(value, unit)
    case 'share':
      return percent(value)
    case 'effort':
      return free(value)
    default:
      return free(value)
  }
}

/** A difference with its sign: +0:40, −3, +0.4; nothing where it would read as none. */
export function signed(value: number, unit: Term['unit']): string {
  const size = Math.abs(unit === 'kg' || unit === 'm' ? inUnits(value, unit) : value)
  const text = unit === 's' ? clock(size) : unit === 'effort' ? tenth(size) : free(unit === 'share' ? size * 100 : size)
  if (/^[0.:]+$/.test(text)) return ''
  // Shares differ by points: half as much again and half a point more must not read alike.
  return `${value < 0 ? '−' : '+'}${text}${unit === 'share' ? ' pts' : ''}`
}
