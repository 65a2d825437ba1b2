<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import type { Stave } from '@/api/types'
import { clock } from '@/words/format'

import { lineText } from './line'
import { fitted, LEFT, ROW, sumRoom, ticks, timeScale, TOP } from './scale'

const props = defineProps<{ stave: Stave; stale: boolean }>()

const frame = ref<HTMLElement | null>(null)
const pixels = ref(1160)
let watcher: ResizeObserver | null = null
onMounted(() => {
  watcher = new ResizeObserver(([entry]) => {
    if (entry) pixels.value = entry.contentRect.width
  })
  if (frame.value) watcher.observe(frame.value)
})
onBeforeUnmount(() => watcher?.disconnect())

const scale = computed(() => timeScale(props.stave.total_s, pixels.value))
const bottom = computed(() => TOP + props.stave.rows.length * ROW)
const height = computed(() => bottom.value + 62)
const barRoom = computed(() => Math.max(0, sumRoom(pixels.value) - 80))
const right = computed(() => scale.value.x(props.stave.total_s))
const longest = computed(() => Math.max(1, ...props.stave.rows.map((row) => row.work_s)))
const brackets = computed(() =>
  props.stave.brackets.map((bracket, index) => {
    const next = props.stave.brackets[index + 1]
    const room = (next ? scale.value.x(next.start) : right.value) - scale.value.x(bracket.start) - 6
    return { ...bracket, label: fitted(bracket.title, room) }
  }),
)
const ribbonStep = computed(() => props.stave.total_s / Math.max(1, props.stave.ribbon.length - 1))

const windows = computed(() => Object.keys(props.stave.lines).map(Number))
const pointed = ref<number | null>(null)
const line = computed(() => {
  const found = pointed.value === null ? undefined : props.stave.lines[String(pointed.value)]
  return found ? lineText(found) : ''
})

function walk(event: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  if (by === undefined || windows.value.length === 0) return
  event.preventDefault()
  const at = pointed.value === null ? (by > 0 ? -1 : windows.value.length) : windows.value.indexOf(pointed.value)
  pointed.value = windows.value[Math.min(windows.value.length - 1, Math.max(0, at + by))] ?? null
}
</script>

<template>
  <div ref="frame" class="stave" :class="{ stale }">
    <!-- One stop for the keyboard; arrows walk through the windows, the line below tells what each is. -->
    <svg
      :width="pixels" :height="height" role="img" tabindex="0"
      aria-label="Stave of the session. Arrow keys walk through its windows." @keydown="walk"
      @blur="pointed = null" @mouseleave="pointed = null"
    >
      <g v-for="(row, index) in stave.rows" :key="row.name">
        <rect
          :x="LEFT" :y="TOP + index * ROW" :width="right - LEFT" :height="ROW"
          :fill="index % 2 ? '#fffdf8' : '#f8f5ec'"
        />
        <text x="0" :y="TOP + index * ROW + 12" class="row">{{ row.name }}</text>
        <rect
          :x="right + 12" :y="TOP + index * ROW + 4" :width="(row.work_s / longest) * barRoom" height="8" fill="var(--e2)"
        />
        <text :x="pixels" :y="TOP + index * ROW + 13" class="sum">{{ clock(row.work_s) }}</text>
      </g>
      <g v-for="tick in ticks(stave.total_s, right - LEFT)" :key="tick">
        <line :x1="scale.x(tick)" :x2="scale.x(tick)" :y1="TOP - 2" :y2="bottom + 4" stroke="#ddd7c8" stroke-width=".6" />
        <text :x="scale.x(tick)" :y="height - 6" class="tick">{{ clock(tick) }}</text>
      </g>
      <rect
        v-for="(mark, index) in stave.marks" :key="index" :x="scale.x(mark.start)" :width="scale.width(mark.seconds)"
        :y="TOP + mark.row * ROW + 1.5 + (mark.half === 'right' ? ROW / 2 - 1.5 : 0)"
        :height="mark.half ? ROW / 2 - 1.5 : ROW - 3" :fill="`var(--e${mark.level})`"
        :class="{ lit: mark.segment === pointed }" @mouseenter="pointed = mark.segment"
      />
      <g v-for="(bracket, index) in brackets" :key="`b${index}`">
        <title>{{ bracket.title }}</title>
        <text :x="scale.x(bracket.start)" y="11" class="bracket">{{ bracket.label }}</text>
        <path
          :d="`M${scale.x(bracket.start)} 22V16H${scale.x(bracket.end) - 2}V22`" fill="none" stroke="var(--ink)"
        />
      </g>
      <line :x1="LEFT" :x2="right" :y1="bottom" :y2="bottom" stroke="var(--ink)" />
      <text x="0" :y="bottom + 20" class="row uptake">uptake</text>
      <rect
        v-for="(value, index) in stave.ribbon" :key="`u${index}`" :x="scale.x(index * ribbonStep)"
        :width="scale.width(ribbonStep) + 0.9" :y="bottom + 16 - value * 11" :height="value * 22" fill="var(--ribbon)"
        :opacity="0.25 + 0.7 * value"
      />
    </svg>
    <p class="line" aria-live="polite">{{ line || 'Point at a window to read its line.' }}</p>
  </div>
</template>

<style scoped>
.stave {
  position: relative;
}
.stale {
  filter: grayscale(0.9);
  opacity: 0.8;
}
svg {
  display: block;
}
text {
  font-family: var(--text);
  fill: var(--ink);
}
.row {
  font-size: 12.5px;
}
.uptake {
  fill: var(--warn);
}
.sum {
  font: 600 14.5px var(--head);
  text-anchor: end;
  font-variant-numeric: tabular-nums;
}
.tick {
  font-size: 11.5px;
  fill: var(--mute);
  text-anchor: middle;
}
.bracket {
  font: 600 13px var(--head);
}
.lit {
  stroke: var(--ribbon);
  stroke-width: 2;
}
.line {
  margin: 0;
  height: 20px;
  font-size: 13px;
  color: var(--mute);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
