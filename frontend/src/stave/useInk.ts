import { computed, type Ref } from 'vue'

import type { Stave, StaveMark } from '@/api/types'

import { fitted, LEFT, ROW, sumRoom, timeScale, TOP } from './scale'

const RIGHT_HALF = 2
const LEVELS = 5

/** What of a stave is in sight, in pixels: its ink by levels, its brackets, its rows' sums. */
export function useInk(stave: Ref<Stave>, pixels: Ref<number>, from: Ref<number>, span: Ref<number>) {
  const scale = computed(() => timeScale(span.value, pixels.value, from.value))
  const bottom = computed(() => TOP + stave.value.rows.length * ROW)
  const height = computed(() => bottom.value + 48)
  const right = computed(() => Math.max(LEFT + 60, pixels.value - sumRoom(pixels.value)))
  const barRoom = computed(() => Math.max(0, sumRoom(pixels.value) - 80))
  const longest = computed(() => Math.max(1, ...stave.value.rows.map((row) => row.work_s)))
  const ribbonStep = computed(() => stave.value.total_s / Math.max(1, stave.value.ribbon.length - 1))

  const inSight = (start: number, end: number): boolean => end > from.value && start < from.value + span.value
  const marks = computed(() => stave.value.marks.filter(([, start, seconds]) => inSight(start, start + seconds)))
  // Ink is one path a level, not an element a window: a session of a thousand windows is redrawn at every keystroke.
  const inkOf = ([row, start, seconds, , half]: StaveMark): string => {
    const y = TOP + row * ROW + 1.5 + (half === RIGHT_HALF ? ROW / 2 - 1.5 : 0)
    const width = scale.value.width(seconds).toFixed(1)
    return `M${scale.value.x(start).toFixed(1)} ${y}h${width}v${half ? ROW / 2 - 1.5 : ROW - 3}h-${width}z`
  }
  const ink = computed(() => {
    const levels = Array.from({ length: LEVELS }, () => '')
    for (const mark of marks.value) levels[mark[3]] += inkOf(mark)
    return levels
  })
  const brackets = computed(() =>
    stave.value.brackets
      .map((bracket, index) => {
        const next = stave.value.brackets[index + 1]
        const begin = Math.max(LEFT, scale.value.x(bracket.start))
        const room = (next ? Math.min(right.value, scale.value.x(next.start)) : right.value) - begin - 6
        return {
          ...bracket,
          begin,
          stop: Math.min(right.value, scale.value.x(bracket.end) - 2),
          label: fitted(bracket.title, room),
        }
      })
      .filter((bracket) => inSight(bracket.start, bracket.end)),
  )
  return { scale, bottom, height, right, barRoom, longest, ribbonStep, marks, inkOf, ink, brackets }
}
