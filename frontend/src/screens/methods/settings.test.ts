import { describe, expect, it } from 'vitest'

import type { MethodSetting } from '@/api/types'

import { cellsOf, withCell, type Cell } from './settings'

const setting = (shape: MethodSetting['shape'], keys: string[]): MethodSetting =>
  ({ shape, cells: keys.map((key) => ({ key, label: key, low: 0, high: 10 })) }) as unknown as MethodSetting
const first = (cells: Cell[], at: number): Cell => cells[at] as Cell

describe('the numbers of a setting', () => {
  it.each([
    ['number', [''], 5, 0, 7, 7],
    ['number', [''], null, 0, 7, 7],
    ['efforts', ['easy', 'hard'], { easy: 1, hard: 2 }, 1, 9, { easy: 1, hard: 9 }],
    [
      'scale',
      [''],
      [
        [0.1, 0],
        [1, 10],
      ],
      1,
      9,
      [
        [0.1, 0],
        [1, 9],
      ],
    ],
  ] as const)('of shape %s are read and put back', (shape, keys, value, at, number, made) => {
    const cells = cellsOf(setting(shape, [...keys]), value)
    expect(withCell(value, first(cells, at), number)).toEqual(made)
    expect(cellsOf(setting(shape, [...keys]), made)[at]?.value).toBe(number)
  })
  it('of the scale say where they stand', () => {
    const scale = [[0.4, 3]] as const
    expect(cellsOf(setting('scale', ['']), scale)[0]).toMatchObject({ share: 0.4, value: 3 })
  })
})
