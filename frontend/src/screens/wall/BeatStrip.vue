<script setup lang="ts">
import { computed } from 'vue'

import type { Sheet } from '@/api/types'
import { WALL as say } from '@/words/texts/floor'

// The session as a strip of work and rest, blocks apart: shown while nothing runs. `at`: the beat that is to come.
const props = defineProps<{ sheet: Sheet; at: number | null }>()
const HIGH = 100
const WIDE = 1800
const GAP = 10

const strip = computed(() => {
  const { beats } = props.sheet
  const runs = new Set(beats.map((one) => one.run)).size
  const whole = beats.reduce((sum, one) => sum + one.s, 0) || 1
  const share = (WIDE - GAP * (runs - 1)) / whole
  let x = 0
  let run = beats[0]?.run
  return beats.map((beat, number) => {
    if (beat.run !== run) x += GAP
    run = beat.run
    const wide = beat.s * share
    x += wide
    return { number, x: x - wide, wide, work: beat.kind === 'work' }
  })
})
const arrow = computed(() => strip.value.find((one) => one.number === props.at))
</script>

<template>
  <svg class="strip one-ink" :viewBox="`0 0 ${WIDE} ${HIGH + 30}`" role="img" :aria-label="say.strip">
    <template v-for="one in strip" :key="one.number">
      <rect
        :x="one.x"
        :y="one.work ? 30 : HIGH - 10"
        :width="Math.max(1, one.wide - 1)"
        :height="one.work ? HIGH : 40"
        fill="currentColor"
        :opacity="at !== null && one.number < at ? 0.35 : 1"
      />
    </template>
    <path v-if="arrow" :d="`M ${arrow.x - 12} 0 h 24 l -12 24 z`" fill="currentColor" />
  </svg>
</template>

<style scoped>
.strip {
  width: 100%;
  max-height: 16vh;
  flex: none;
}
</style>
