<script setup lang="ts">
import type { KindOff } from '@/api/types'
import { hundredth, tenth } from '@/words/format'
import { OFF_PANEL as say } from '@/words/texts/log'

// Movements and formats whose estimates have been off three sessions running, and the pace that would fit.
defineProps<{ all: readonly KindOff[] }>()
function text(one: KindOff): string {
  const factors = one.off.factors.map(hundredth).join(', ')
  return one.off.fits > 1 ? say.slower(one.name, factors) : say.quicker(one.name, factors)
}
const fits = (one: KindOff): string =>
  one.rep_s !== null && one.fits_s !== null
    ? say.fitsRep(tenth(one.fits_s), tenth(one.rep_s))
    : say.fits(hundredth(one.off.fits))
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <ul>
      <li v-for="one in all" :key="one.of + one.key">{{ text(one) }} {{ fits(one) }}</li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
