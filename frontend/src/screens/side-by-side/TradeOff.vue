<script setup lang="ts">
import { computed } from 'vue'

import type { Column, CompareRow } from '@/api/types'
import { valueText } from '@/words/rows'

const props = defineProps<{
  columns: readonly Column[]
  rows: readonly CompareRow[]
  frontier: readonly number[]
  marked: number
}>()
const axes = defineModel<[string, string]>('axes', { required: true })
defineEmits<{ mark: [column: number] }>()

const WIDE = 620
const HIGH = 320
const LEFT = 64
const RIGHT = 120
const TOP = 18
const BOTTOM = 40

const rowOf = (key: string): CompareRow | undefined => props.rows.find((row) => row.key === key)
const x = computed(() => rowOf(axes.value[0]))
const y = computed(() => rowOf(axes.value[1]))
const points = computed(() =>
  props.columns.flatMap((column, number) => {
    const [a, b] = [column.values[axes.value[0]], column.values[axes.value[1]]]
    return a === null || a === undefined || b === null || b === undefined ? [] : [{ number, name: column.name, a, b }]
  }),
)
/** The span of an axis with a little air; one value alone stands in the middle. */
function spanOf(values: number[]): [number, number] {
  const low = Math.min(...values)
  const high = Math.max(...values)
  const air = (high - low || Math.abs(high) || 1) * 0.12
  return [low - air, high + air]
}
const xs = computed(() => spanOf(points.value.map((one) => one.a)))
const ys = computed(() => spanOf(points.value.map((one) => one.b)))
const across = (value: number): number => LEFT + ((value - xs.value[0]) / (xs.value[1] - xs.value[0])) * (WIDE - LEFT - RIGHT)
const up = (value: number): number => HIGH - BOTTOM - ((value - ys.value[0]) / (ys.value[1] - ys.value[0])) * (HIGH - TOP - BOTTOM)
const even = (span: [number, number]): number[] => [0.1, 0.37, 0.63, 0.9].map((share) => span[0] + share * (span[1] - span[0]))
const line = computed(() =>
  props.frontier
    .flatMap((number) => points.value.filter((one) => one.number === number))
    .map((one, index) => `${index ? 'L' : 'M'}${across(one.a).toFixed(1)} ${up(one.b).toFixed(1)}`)
    .join(''),
)
/** Labels keep out of each other's way: one that would lie on another is moved down a line. */
const labelled = computed(() => {
  const taken: { x: number; y: number }[] = []
  return [...points.value]
    .sort((one, other) => up(one.b) - up(other.b))
    .map((one) => {
      const left = across(one.a) + (one.number === props.marked ? 13 : 9)
      let top = up(one.b) + 4
      while (taken.some((each) => Math.abs(each.y - top) < 13 && Math.abs(each.x - left) < 120)) top += 13
      taken.push({ x: left, y: top })
      return { ...one, left, top }
    })
})
const better = (row: CompareRow | undefined): string =>
  ({ less: 'less is usually wished for', more: 'more is usually wished for', even: 'even is usually wished for' })[row?.sense ?? ''] ?? ''
</script>

<template>
  <section class="trade" aria-label="Trade-off">
    <h2>Trade-off</h2>
    <p class="axes">
      <label>across
        <select v-model="axes[0]" @change="axes = [...axes]">
          <option v-for="row in rows" :key="row.key" :value="row.key">{{ row.label }}</option>
        </select>
      </label>
      <label>up
        <select v-model="axes[1]" @change="axes = [...axes]">
          <option v-for="row in rows" :key="row.key" :value="row.key">{{ row.label }}</option>
        </select>
      </label>
    </p>
    <p v-if="points.length < 2" class="quiet">Two columns with both figures make a picture.</p>
    <svg
      v-else :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img"
      :aria-label="`${y?.label} against ${x?.label}; on the frontier: ${points.filter((one) => frontier.includes(one.number)).map((one) => one.name).join(', ')}`"
    >
      <path :d="`M${LEFT} ${TOP}V${HIGH - BOTTOM}H${WIDE - RIGHT}`" class="axis" />
      <g v-for="value in even(xs)" :key="`x${value}`">
        <path :d="`M${across(value)} ${TOP}V${HIGH - BOTTOM}`" class="grid" />
        <text :x="across(value)" :y="HIGH - BOTTOM + 15" text-anchor="middle">{{ valueText(value, x?.unit ?? '') }}</text>
      </g>
      <g v-for="value in even(ys)" :key="`y${value}`">
        <path :d="`M${LEFT} ${up(value)}H${WIDE - RIGHT}`" class="grid" />
        <text :x="LEFT - 6" :y="up(value) + 4" text-anchor="end">{{ valueText(value, y?.unit ?? '') }}</text>
      </g>
      <text :x="(LEFT + WIDE - RIGHT) / 2" :y="HIGH - 8" text-anchor="middle" class="name">{{ x?.label }}</text>
      <text x="4" :y="TOP - 6" class="name">{{ y?.label }}</text>
      <path :d="line" class="frontier" />
      <g v-for="one in labelled" :key="one.number" class="mark" @click="$emit('mark', one.number)">
        <title>{{ one.name }}: {{ valueText(one.a, x?.unit ?? '') }}, {{ valueText(one.b, y?.unit ?? '') }}</title>
        <rect
          v-if="one.number === 0" :x="across(one.a) - 5.5" :y="up(one.b) - 5.5" width="11" height="11"
          class="base"
        />
        <circle v-else :cx="across(one.a)" :cy="up(one.b)" r="5" :class="{ on: frontier.includes(one.number) }" />
        <circle v-if="one.number === marked" :cx="across(one.a)" :cy="up(one.b)" r="9.5" class="ring" />
        <text :x="one.left" :y="one.top" :class="{ strong: one.number === marked || one.number === 0 }">{{ one.name }}</text>
      </g>
    </svg>
    <p class="quiet">
      The square is the first column; filled marks joined by the line are beaten by none in both figures ({{ x?.label.toLowerCase() }}:
      {{ better(x) }}; {{ y?.label.toLowerCase() }}: {{ better(y) }}). The ring is the marked one.
    </p>
  </section>
</template>

<style scoped>
.trade {
  min-width: 0;
}
h2 {
  font-size: 19px;
}
.axes {
  display: flex;
  gap: 16px;
  margin: 2px 0 4px;
}
svg {
  width: 100%;
  max-width: 760px;
  display: block;
}
text {
  font: 12px var(--text);
  fill: var(--mute);
}
.name,
.strong {
  font-weight: 600;
  fill: var(--ink);
}
.mark text {
  fill: var(--ink);
  font-size: 12.5px;
}
.axis,
.grid {
  fill: none;
  stroke: var(--ink);
}
.grid {
  stroke: var(--rule);
  stroke-width: 0.6;
}
.frontier {
  fill: none;
  stroke: var(--act);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}
circle {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
circle.on {
  fill: var(--e3);
}
circle.ring {
  fill: none;
  stroke: var(--act);
  stroke-width: 2;
}
.base {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.quiet {
  color: var(--mute);
  font-size: 13px;
  margin: 2px 0;
  max-width: 70ch;
}
</style>
