// The week's figures in words. Every number is the core's.
import type { Clash, LoadFigure } from '@/api/types'

import { shortDay } from './dates'
import { hundredth, percent, tenth, whole } from './format'
import { CLASHES as say } from './texts/week'

export type FigureKind = 'ratio' | 'load' | 'change'

/** A figure of the week; a dash where there is none. */
export function figureText(figure: LoadFigure, kind: FigureKind): string {
  if (figure.value === null) return '–'
  if (kind === 'load') return whole(figure.value)
  if (kind === 'change')
    return `${figure.value > 0 ? '+' : figure.value < 0 ? '−' : ''}${percent(Math.abs(figure.value))}`
  return figure.value < 1.995 ? hundredth(figure.value) : tenth(figure.value)
}

/** What a figure was made of, or why there is none. */
export function termsText(figure: LoadFigure): string {
  if (figure.why) return figure.why
  return Object.entries(figure.terms)
    .map(([name, value]) => `${name} ${value < 20 ? hundredth(value) : whole(value)}`)
    .join(' · ')
}

/** "Tue 8 and Wed 9, 24 h apart: squat, knee" */
export function clashText(clash: Clash): string {
  const [first = '', second = ''] = clash.days
  const what = [...clash.patterns, ...clash.joints].join(', ')
  return say.clash(shortDay(first), shortDay(second), whole(clash.hours), what)
}
