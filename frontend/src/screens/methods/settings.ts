// The numbers of a setting, whatever its shape: read one by one, and put back into it.
import type { MethodSetting } from '@/api/types'

export interface Cell {
  /** Where it is within the setting: a key, a place, or '' for the setting itself. */
  key: string
  label: string
  low: number
  high: number
  value: number | null
  /** Of a point of the effort scale, the share of capacity it stands at. */
  share: number | null
}

/** The numbers of a setting's value, in the order in which they are shown. */
export function cellsOf(one: MethodSetting, value: unknown): Cell[] {
  const [first] = one.cells
  if (one.shape === 'scale' && first && Array.isArray(value)) {
    return (value as [number, number][]).map(([share, effort], index) => ({
      key: String(index),
      label: first.label,
      low: first.low,
      high: first.high,
      value: effort,
      share,
    }))
  }
  const of = (key: string): number | null =>
    key === '' ? ((value as number | null) ?? null) : ((value as Record<string, number>)[key] ?? null)
  return one.cells.map((cell) => ({ ...cell, value: of(cell.key), share: null }))
}

/** The setting with one of its numbers changed. */
export function withCell(value: unknown, cell: Cell, number: number | null): unknown {
  if (cell.share !== null)
    return (value as [number, number][]).map((point, index) =>
      String(index) === cell.key ? [point[0], number ?? point[1]] : point,
    )
  return cell.key === '' ? number : { ...(value as Record<string, number>), [cell.key]: number }
}
