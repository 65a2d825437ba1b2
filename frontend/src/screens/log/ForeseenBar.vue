<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

import type { BesideExpected } from '@/api/types'
import { SCORE_TABLE as say } from '@/words/texts/log'

// What was foreseen, 8 in 10, as a bar with its middle; what was made, as a dot. To the right is quicker.
const props = defineProps<{ beside: BesideExpected; text: string }>()
const WIDE = 150
/** What is shown to either side, as logarithm of pace: half as quick again, or two thirds. */
const SIDE = 0.42
const x = scaleLinear([-SIDE, SIDE], [6, WIDE - 6]).clamp(true)
const said = computed(() => {
  const { place, reach } = props.beside
  if (place === null) return props.text
  const how = place > reach ? say.quicker : place < -reach ? say.slower : say.within
  return `${props.text}; ${how}`
})
</script>

<template>
  <span>
    <svg :width="WIDE" height="18" aria-hidden="true">
      <line :x1="x(-beside.reach)" :x2="x(beside.reach)" y1="9" y2="9" class="bar" />
      <line :x1="x(0)" :x2="x(0)" y1="3" y2="15" class="middle" />
      <circle v-if="beside.place !== null" :cx="x(beside.place)" cy="9" r="4.5" />
    </svg>
    <span class="visually-hidden">{{ said }}</span>
  </span>
</template>

<style scoped>
svg {
  display: block;
}
.bar {
  stroke: var(--e0);
  stroke-width: 4;
}
.middle {
  stroke: var(--ink);
  stroke-width: 2;
}
circle {
  fill: var(--act);
}
</style>
