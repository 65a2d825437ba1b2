<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { LoggedPicture } from '@/api/types'
import { ticks, timeScale } from '@/stave/scale'
import { clock } from '@/words/format'
import { DONE_STAVE as say } from '@/words/texts/log'

// Planned and done on one stave: the upper half of each row as planned, pale, the lower half as done, in ink.
const props = defineProps<{ planned: LoggedPicture; done: LoggedPicture | null }>()
const ROW = 18
const TOP = 6
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const names = computed(() => [...new Set([...props.planned.rows, ...(props.done?.rows ?? [])])])
const span = computed(() => Math.max(props.planned.total_s, props.done?.total_s ?? 0))
const scale = computed(() => timeScale(span.value, width.value))
const marks = computed(() => ticks(span.value, width.value))
const bottom = computed(() => TOP + names.value.length * ROW)
/** One path for each picture: a long session has thousands of marks. */
function inkOf(picture: LoggedPicture | null, half: 0 | 1): string {
  if (!picture) return ''
  return picture.marks
    .map(([row, start, seconds]) => {
      const y = TOP + names.value.indexOf(picture.rows[row] ?? '') * ROW + 1.5 + half * (ROW / 2)
      const across = scale.value.width(seconds).toFixed(1)
      return `M${scale.value.x(start).toFixed(1)} ${y}h${across}v${ROW / 2 - 2.5}h-${across}z`
    })
    .join('')
}
</script>

<template>
  <figure ref="frame">
    <svg
      :width="width"
      :height="bottom + 20"
      :viewBox="`0 0 ${width} ${bottom + 20}`"
      role="img"
      :aria-label="say.picture"
    >
      <template v-for="(name, index) in names" :key="name">
        <rect
          v-if="index % 2 === 0"
          x="70"
          :y="TOP + index * ROW"
          :width="Math.max(0, width - 70)"
          :height="ROW"
          class="band"
        />
        <text x="0" :y="TOP + index * ROW + 13" class="row">{{ name }}</text>
      </template>
      <path :d="inkOf(planned, 0)" class="planned" />
      <path :d="inkOf(done, 1)" class="done" />
      <text v-for="at in marks" :key="at" :x="scale.x(at)" :y="bottom + 15" class="tick">{{ clock(at) }}</text>
    </svg>
    <figcaption>{{ done ? say.halves : say.onlyPlanned }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
}
.band {
  fill: var(--paper);
}
.row {
  font: 12.5px var(--text);
  fill: var(--ink);
}
.planned {
  fill: var(--e0);
}
.done {
  fill: var(--e3);
}
.tick {
  font: 11.5px var(--text);
  fill: var(--mute);
  text-anchor: middle;
}
figcaption {
  font-size: 11.5px;
  color: var(--mute);
  text-align: right;
}
</style>
