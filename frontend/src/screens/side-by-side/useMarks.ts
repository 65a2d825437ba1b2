import { useMediaQuery } from '@vueuse/core'
import { line } from 'd3-shape'
import { computed, type Ref } from 'vue'

import type { Column, CompareRow } from '@/api/types'

import { axisOf } from './axis'
import { placeLabels } from './labels'

export const LEFT = 64
export const RIGHT = 30
export const TOP = 24
export const BOTTOM = 44
const LETTER = 5.9

export interface Pictured {
  columns: readonly Column[]
  rows: readonly CompareRow[]
  frontier: readonly number[]
  marked: number
  /** So many of the columns stand in the table. */
  shown: number
}

/** Where the columns stand in a picture of two figures: marks with their labels, both axes, the line of the frontier. */
export function useMarks(of: Pictured, axes: Ref<[string, string]>) {
  /** On a phone the picture is drawn smaller, so that what stands in it stays as large. */
  const narrow = useMediaQuery('(max-width: 640px)')
  const wide = computed(() => (narrow.value ? 420 : 720))
  const high = computed(() => (narrow.value ? 460 : 380))
  const rowOf = (key: string): CompareRow | undefined => of.rows.find((row) => row.key === key)
  const x = computed(() => rowOf(axes.value[0]))
  const y = computed(() => rowOf(axes.value[1]))
  const valueOf = (column: Column, key: string): number | null =>
    column.endless.includes(key) ? Infinity : (column.values[key] ?? null)
  const points = computed(() =>
    of.columns.flatMap((column, number) => {
      const [a, b] = [valueOf(column, axes.value[0]), valueOf(column, axes.value[1])]
      return a === null || b === null || column.why ? [] : [{ number, column, a, b }]
    }),
  )
  const axis = (values: number[], row: CompareRow | undefined, from: number, to: number) =>
    axisOf(values, row?.unit ?? '', from, to)
  const across = computed(() =>
    axis(
      points.value.map((one) => one.a),
      x.value,
      LEFT,
      wide.value - RIGHT,
    ),
  )
  const up = computed(() =>
    axis(
      points.value.map((one) => one.b),
      y.value,
      high.value - BOTTOM,
      TOP,
    ),
  )
  const beside = (number: number): boolean => number < of.shown

  const marks = computed(() => {
    const there = points.value.map((one) => ({
      ...one,
      x: Number.isFinite(one.a) ? across.value.scale(one.a) : wide.value - RIGHT,
      y: Number.isFinite(one.b) ? up.value.scale(one.b) : TOP,
      reach: one.number === of.marked ? 10 : 6,
      width: one.column.name.length * LETTER + 2,
    }))
    const room = { left: 4, top: 2, width: wide.value - 8, height: high.value - BOTTOM - 2 }
    // Those in the table have the best places; on a phone there is room for them alone.
    const order = [...there].sort((one, other) => one.number - other.number)
    const named = narrow.value ? order.filter((one) => beside(one.number)) : order
    const labels = placeLabels(named, room)
    return order.map((one) => ({ ...one, label: labels[named.indexOf(one)] ?? null }))
  })
  const draw = line<{ x: number; y: number }>(
    (one) => one.x,
    (one) => one.y,
  )
  const frontierLine = computed(
    () => draw(of.frontier.flatMap((number) => marks.value.filter((one) => one.number === number))) ?? undefined,
  )
  return { wide, high, x, y, points, across, up, marks, frontierLine, beside }
}
