<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'

import type { Stave } from '@/api/types'
import { useTables } from '@/composables/useTables'
import { clock } from '@/words/format'
import { STAVE_VIEW as say } from '@/words/texts/stave'

import { linesOf, lineText, type StaveLine } from './line'
import { LEFT, ROW, ticks, TOP } from './scale'
import StaveLegend from './StaveLegend.vue'
import StaveZoom from './StaveZoom.vue'
import { useInk } from './useInk'
import { useZoom } from './useZoom'

const props = defineProps<{
  stave: Stave
  stale: boolean
  /** Shortest and longest the session can come to, if ranges leave it open. */
  open?: { low: number; high: number }
  /** Whether a window is pointed at from elsewhere. */
  lit?: ((line: StaveLine) => boolean) | null
  /** Rows that light with what is pointed at. */
  litRows?: ReadonlySet<string>
}>()
const emit = defineEmits<{ point: [line: StaveLine | null] }>()

const { labelOf } = useTables()
const frame = ref<HTMLElement | null>(null)
const FIRST_GUESS = 1160
const { width } = useElementSize(frame, { width: FIRST_GUESS, height: 0 })
/** Nothing is drawn for a frame that is not there yet. */
const pixels = computed(() => width.value || FIRST_GUESS)

const total = computed(() => Math.max(props.stave.total_s, props.open?.high ?? 0))
const { from, span, zoomed, all, zoom, pan, show } = useZoom(total)
const { scale, bottom, height, right, barRoom, longest, ribbonStep, marks, inkOf, ink, brackets } = useInk(
  toRef(props, 'stave'),
  pixels,
  from,
  span,
)
const lines = computed(() => linesOf(props.stave))
const pointed = ref<number | null>(null)
const litSegments = computed(() => {
  const { lit } = props
  if (!lit) return new Set<number>()
  return new Set(lines.value.filter(lit).map((line) => line.segment))
})
const litInk = computed(() =>
  marks.value
    .filter(([, , , , , segment]) => segment === pointed.value || litSegments.value.has(segment))
    .map(inkOf)
    .join(''),
)
/** The window under the pointer, if there is ink. */
function pointAt(event: MouseEvent): void {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return
  const second = from.value + ((event.clientX - box.left - LEFT) / Math.max(1, right.value - LEFT)) * span.value
  const row = Math.floor((event.clientY - box.top - TOP) / ROW)
  const found = marks.value.find(([its, start, seconds]) => its === row && second >= start && second < start + seconds)
  if (found) pointed.value = found[5]
}

const pointedLine = computed(() => lines.value.find((line) => line.segment === pointed.value) ?? null)
watch(pointedLine, (line) => {
  emit('point', line)
  if (line) show(line.start, line.start + line.seconds)
})

function keys(event: KeyboardEvent): void {
  const acts: Record<string, () => void> = {
    ArrowRight: () => (event.shiftKey ? pan(0.25) : walk(1)),
    ArrowLeft: () => (event.shiftKey ? pan(-0.25) : walk(-1)),
    '+': () => zoom(true, pointedLine.value?.start),
    '=': () => zoom(true, pointedLine.value?.start),
    '-': () => zoom(false, pointedLine.value?.start),
    '0': all,
  }
  const act = event.ctrlKey || event.metaKey || event.altKey ? undefined : acts[event.key]
  if (!act) return
  event.preventDefault()
  event.stopPropagation()
  act()
}
function walk(by: number): void {
  const last = lines.value.length - 1
  const at =
    pointed.value === null ? (by > 0 ? -1 : last + 1) : lines.value.findIndex((line) => line.segment === pointed.value)
  pointed.value = lines.value[Math.min(last, Math.max(0, at + by))]?.segment ?? null
}
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey && !zoomed.value) return
  event.preventDefault()
  if (event.ctrlKey) {
    const left = frame.value?.getBoundingClientRect().left ?? 0
    const share = (event.clientX - left - LEFT) / Math.max(1, right.value - LEFT)
    zoom(event.deltaY < 0, from.value + share * span.value)
  } else pan((Math.abs(event.deltaX) > Math.abs(event.deltaY) ? event.deltaX : event.deltaY) / 1000)
}
</script>

<template>
  <div ref="frame" class="stave" :class="{ stale }">
    <!-- One stop for the keyboard; arrows walk through the windows, the line below tells what each is. -->
    <svg
      :width="pixels"
      :height="height"
      :viewBox="`0 0 ${pixels} ${height}`"
      role="img"
      tabindex="0"
      :aria-label="say.staveOfTheSessionArrow"
      @keydown="keys"
      @blur="pointed = null"
      @mousemove="pointAt"
      @mouseleave="pointed = null"
      @wheel="wheel"
    >
      <defs>
        <clipPath id="stave-time"><rect :x="LEFT" y="0" :width="right - LEFT" :height="height" /></clipPath>
      </defs>
      <g v-for="(row, index) in stave.rows" :key="row.name">
        <rect
          :x="LEFT"
          :y="TOP + index * ROW"
          :width="right - LEFT"
          :height="ROW"
          :fill="litRows?.has(row.name) ? '#efe3d2' : index % 2 ? '#fffdf8' : '#f8f5ec'"
        />
        <text x="0" :y="TOP + index * ROW + 12" class="row">{{ row.name }}</text>
        <rect
          :x="right + 12"
          :y="TOP + index * ROW + 4"
          :width="(row.work_s / longest) * barRoom"
          height="8"
          fill="var(--e2)"
        />
        <text :x="pixels" :y="TOP + index * ROW + 13" class="sum">{{ clock(row.work_s) }}</text>
      </g>
      <g v-for="tick in ticks(span, right - LEFT, from)" :key="tick">
        <line
          :x1="scale.x(tick)"
          :x2="scale.x(tick)"
          :y1="TOP - 2"
          :y2="bottom + 4"
          stroke="#ddd7c8"
          stroke-width=".6"
        />
        <text :x="scale.x(tick)" :y="height - 6" class="tick">{{ clock(tick) }}</text>
      </g>
      <g clip-path="url(#stave-time)">
        <path v-for="(drawn, level) in ink" :key="level" :d="drawn" :fill="`var(--e${level})`" />
        <path v-if="litInk" :d="litInk" class="lit" />
        <rect
          v-for="(value, index) in stave.ribbon"
          :key="`u${index}`"
          :x="scale.x(index * ribbonStep)"
          :width="scale.width(ribbonStep) + 0.9"
          :y="bottom + 16 - value * 11"
          :height="value * 22"
          fill="var(--ribbon)"
          :opacity="0.25 + 0.7 * value"
        />
        <!-- What ranges leave open: from the shortest to the longest end the paper is paler, and said in words. -->
        <g v-if="open && open.high > open.low">
          <rect
            :x="scale.x(open.low)"
            :width="Math.max(0, scale.x(open.high) - scale.x(open.low))"
            :y="TOP"
            :height="bottom - TOP"
            fill="var(--sheet)"
            opacity="0.55"
          />
          <line :x1="scale.x(open.low)" :x2="scale.x(open.low)" :y1="TOP" :y2="bottom" class="end" />
        </g>
      </g>
      <g v-for="(bracket, index) in brackets" :key="`b${index}`">
        <title>{{ bracket.title }}</title>
        <text :x="bracket.begin" y="11" class="bracket">{{ bracket.label }}</text>
        <path :d="`M${bracket.begin} 22V16H${bracket.stop}V22`" fill="none" stroke="var(--ink)" />
      </g>
      <line :x1="LEFT" :x2="right" :y1="bottom" :y2="bottom" stroke="var(--ink)" />
      <text x="0" :y="bottom + 20" class="row uptake">{{ say.uptake }}</text>
      <template v-if="barRoom > 0">
        <line :x1="pixels - 46" :x2="pixels" :y1="bottom + 3" :y2="bottom + 3" stroke="var(--ink)" stroke-width="1.5" />
        <text :x="right + 12" :y="bottom + 20" class="row quiet">{{ say.workAllRows }}</text>
        <text :x="pixels" :y="bottom + 20" class="sum">{{ clock(stave.work_s) }}</text>
      </template>
    </svg>
    <div class="under">
      <p class="line" aria-live="polite">
        {{ pointedLine ? lineText(pointedLine, (key) => labelOf('sides', key)) : say.pointAtAWindowTo }}
      </p>
      <span v-if="open && open.high > open.low" class="line">{{
        say.rangesLeaveOpenTo(clock(open.low), clock(open.high))
      }}</span>
      <StaveLegend closable />
      <StaveZoom :zoomed="zoomed" @pan="pan" @zoom="zoom" @all="all" />
    </div>
  </div>
</template>

<style scoped src="./stave.css"></style>
