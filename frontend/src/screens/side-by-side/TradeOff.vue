<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useMediaQuery } from '@vueuse/core'
import { line } from 'd3-shape'
import { computed, ref, useTemplateRef, watch } from 'vue'

import type { Column, CompareRow } from '@/api/types'
import { saveFile } from '@/composables/useFiles'
import ChoiceField from '@/parts/ChoiceField.vue'
import { valueText } from '@/words/rows'

import { axisOf } from './axis'
import { placeLabels } from './labels'
import { pngOf, svgText } from './picture'
import PictureTable from './PictureTable.vue'

const props = defineProps<{
  columns: readonly Column[]
  rows: readonly CompareRow[]
  frontier: readonly number[]
  marked: number
  /** So many of the columns stand in the table. */
  shown: number
  places: ReadonlyMap<number, number>
}>()
const axes = defineModel<[string, string]>('axes', { required: true })
const emit = defineEmits<{ mark: [column: number]; show: [key: string] }>()

/** On a phone the picture is drawn smaller, so that what stands in it stays as large. */
const narrow = useMediaQuery('(max-width: 640px)')
const WIDE = computed(() => (narrow.value ? 420 : 720))
const HIGH = computed(() => (narrow.value ? 460 : 380))
const LEFT = 64
const RIGHT = 30
const TOP = 24
const BOTTOM = 44
const LETTER = 5.9

const rowOf = (key: string): CompareRow | undefined => props.rows.find((row) => row.key === key)
const x = computed(() => rowOf(axes.value[0]))
const y = computed(() => rowOf(axes.value[1]))
const valueOf = (column: Column, key: string): number | null =>
  column.endless.includes(key) ? Infinity : (column.values[key] ?? null)
const points = computed(() =>
  props.columns.flatMap((column, number) => {
    const [a, b] = [valueOf(column, axes.value[0]), valueOf(column, axes.value[1])]
    return a === null || b === null || column.why ? [] : [{ number, column, a, b }]
  }),
)

const across = computed(() =>
  axisOf(
    points.value.map((one) => one.a),
    x.value?.unit ?? '',
    LEFT,
    WIDE.value - RIGHT,
  ),
)
const up = computed(() =>
  axisOf(
    points.value.map((one) => one.b),
    y.value?.unit ?? '',
    HIGH.value - BOTTOM,
    TOP,
  ),
)
const marks = computed(() => {
  const there = points.value.map((one) => ({
    ...one,
    x: Number.isFinite(one.a) ? across.value.scale(one.a) : WIDE.value - RIGHT,
    y: Number.isFinite(one.b) ? up.value.scale(one.b) : TOP,
    reach: one.number === props.marked ? 10 : 6,
    width: one.column.name.length * LETTER + 2,
  }))
  const room = { left: 4, top: 2, width: WIDE.value - 8, height: HIGH.value - BOTTOM - 2 }
  // Those in the table have the best places; on a phone there is room for them alone.
  const order = [...there].sort((one, other) => one.number - other.number)
  const named = narrow.value ? order.filter((one) => beside(one.number)) : order
  const labels = placeLabels(named, room)
  return order.map((one) => ({ ...one, label: labels[named.indexOf(one)] ?? null }))
})
type Drawn = (typeof marks.value)[number]
const drawLine = line<Drawn>(
  (one) => one.x,
  (one) => one.y,
)
const frontierLine = computed(() =>
  drawLine(props.frontier.flatMap((number) => marks.value.filter((one) => one.number === number))),
)
const choices = computed(() => props.rows.map((row) => ({ value: row.key, label: row.label })))
const better = (row: CompareRow | undefined): string =>
  ({ less: 'less is usually wished for', more: 'more is usually wished for', even: 'even is usually wished for' })[
    row?.sense ?? ''
  ] ?? ''
const told = (value: number, row: CompareRow | undefined): string =>
  valueText(value, row?.unit ?? '', !Number.isFinite(value))

const openedKey = ref('')
const opened = computed(() => marks.value.find((one) => one.column.key === openedKey.value) ?? null)
watch(axes, () => (openedKey.value = ''))
function open(number: number): void {
  const key = props.columns[number]?.key ?? ''
  openedKey.value = openedKey.value === key ? '' : key
}
const beside = (number: number): boolean => number < props.shown
function use(number: number): void {
  const column = props.columns[number]
  if (!column) return
  if (beside(number)) emit('mark', number)
  else emit('show', column.key)
}

const picture = useTemplateRef<SVGSVGElement>('picture')
async function save(kind: 'svg' | 'png'): Promise<void> {
  if (!picture.value) return
  saveFile(`trade-off.${kind}`, kind === 'svg' ? svgText(picture.value) : await pngOf(picture.value), 'image/svg+xml')
}
</script>

<template>
  <section class="trade" aria-label="Trade-off">
    <h2>Trade-off</h2>
    <p class="axes">
      <ChoiceField
        :model-value="axes[0]"
        label="across"
        said="across"
        :options="choices"
        @update:model-value="$event && (axes = [$event, axes[1]])"
      />
      <ChoiceField
        :model-value="axes[1]"
        label="up"
        said="up"
        :options="choices"
        @update:model-value="$event && (axes = [axes[0], $event])"
      />
      <template v-if="points.length > 1">
        <button type="button" class="link" @click="save('svg')">.svg</button>
        <button type="button" class="link" @click="save('png')">.png</button>
      </template>
    </p>
    <p v-if="points.length < 2" class="quiet">Two columns with both figures make a picture.</p>
    <svg
      v-else
      ref="picture"
      :viewBox="`0 0 ${WIDE} ${HIGH}`"
      role="group"
      :aria-label="`${y?.label} against ${x?.label}`"
    >
      <g v-for="value in across.ticks" :key="`x${value}`" aria-hidden="true">
        <path :d="`M${across.scale(value)} ${TOP}V${HIGH - BOTTOM}`" class="grid" />
        <text :x="across.scale(value)" :y="HIGH - BOTTOM + 16" text-anchor="middle" class="tick">
          {{ valueText(value, x?.unit ?? '') }}
        </text>
      </g>
      <g v-for="value in up.ticks" :key="`y${value}`" aria-hidden="true">
        <path :d="`M${LEFT} ${up.scale(value)}H${WIDE - RIGHT}`" class="grid" />
        <text :x="LEFT - 7" :y="up.scale(value) + 4" text-anchor="end" class="tick">
          {{ valueText(value, y?.unit ?? '') }}
        </text>
      </g>
      <path :d="`M${LEFT} ${TOP}V${HIGH - BOTTOM}H${WIDE - RIGHT}`" class="axis" />
      <text :x="(LEFT + WIDE - RIGHT) / 2" :y="HIGH - 8" text-anchor="middle" class="name">{{ x?.label }}</text>
      <text x="4" :y="TOP - 10" class="name">{{ y?.label }}</text>
      <path :d="frontierLine ?? undefined" class="frontier" />
      <g
        v-for="one in marks"
        :key="one.number"
        class="mark"
        tabindex="0"
        role="button"
        :aria-expanded="opened?.number === one.number"
        :aria-label="`${one.column.name}: ${x?.label} ${told(one.a, x)}, ${y?.label} ${told(one.b, y)}${frontier.includes(one.number) ? ', on the frontier' : ''}`"
        @click="open(one.number)"
        @keydown.enter.prevent="open(one.number)"
        @keydown.space.prevent="open(one.number)"
      >
        <path
          v-if="one.label?.far"
          :d="`M${one.x} ${one.y}L${one.label.x + (one.label.x < one.x ? one.width : 0)} ${one.label.y}`"
          class="lead"
        />
        <rect v-if="one.column.key === 'plan'" :x="one.x - 5.5" :y="one.y - 5.5" width="11" height="11" class="base" />
        <circle
          v-else
          :cx="one.x"
          :cy="one.y"
          :r="beside(one.number) ? 5.5 : 4"
          :class="{ on: frontier.includes(one.number) }"
        />
        <circle v-if="one.number === marked" :cx="one.x" :cy="one.y" r="9.5" class="ring" />
        <text
          v-if="one.label"
          :x="one.label.x"
          :y="one.label.y + 4"
          :class="{ strong: one.number === marked || one.column.key === 'plan', faint: !beside(one.number) }"
        >
          {{ one.column.name }}
        </text>
      </g>
    </svg>
    <div v-if="opened" class="opened" role="status">
      <p>
        <b>{{ opened.column.name }}</b>
        <span v-if="places.get(opened.number)"> · place {{ places.get(opened.number) }}</span>
        · {{ x?.label.toLowerCase() }} {{ told(opened.a, x) }} · {{ y?.label.toLowerCase() }} {{ told(opened.b, y) }}
      </p>
      <p class="quiet">{{ opened.column.wall.join('; ') }}</p>
      <ElButton v-if="opened.column.key !== 'plan' && opened.column.key !== 'session'" @click="use(opened.number)">
        {{ beside(opened.number) ? 'Mark it' : 'Show it beside' }}
      </ElButton>
    </div>
    <p class="quiet">
      Filled marks joined by the line are beaten by none in both figures ({{ x?.label.toLowerCase() }}: {{ better(x) }};
      {{ y?.label.toLowerCase() }}: {{ better(y) }}). Small ones are not in the table. The ring is the marked
      one<template v-if="columns[0]?.key === 'plan'">, the square the plan</template>.
    </p>
    <PictureTable v-if="points.length > 1" :marks="marks" :x="x" :y="y" :frontier="frontier" />
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
  max-width: 900px;
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
.mark {
  cursor: pointer;
}
.mark:focus-visible {
  outline: 2px solid var(--act);
  outline-offset: 2px;
}
.mark text {
  fill: var(--ink);
  font-size: 12.5px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.mark text.faint {
  fill: var(--mute);
}
.lead {
  stroke: var(--mute);
  stroke-width: 0.7;
}
.opened {
  margin: 4px 0;
  padding: 6px 14px 8px;
  border-left: 3px solid var(--act);
  background: var(--sheet);
}
.opened p {
  margin: 0 0 4px;
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
