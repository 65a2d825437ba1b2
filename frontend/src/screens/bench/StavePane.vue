<script setup lang="ts">
import { computed } from 'vue'

import type { Stave } from '@/api/types'
import type { StaveLine } from '@/stave/line'
import StaveView from '@/stave/StaveView.vue'

import { useBench } from './bench'

// The stave of the Bench: lit by what is pointed at in the lane, and telling the lane what is pointed at on it.
defineProps<{ stave: Stave | null; empty: boolean; trouble: string }>()
const { figures, wrong, lit, pointed } = useBench()
const openEnds = computed(() => figures.value?.spread['total_s'])
const isLit = (line: StaveLine): boolean => {
  const one = lit.value
  if (!one) return false
  if (one.block !== undefined) return line.block === one.block
  if (one.step !== undefined) return line.step === one.step
  if (one.kind !== undefined) return line.counted === one.kind && line.reps > 0
  return one.movement !== undefined && (line.movement === one.movement || line.name === one.movement)
}
</script>

<template>
  <section class="tape" aria-label="Stave">
    <StaveView
      v-if="stave"
      :stave="stave"
      :stale="wrong.size > 0"
      :open="openEnds"
      :lit="isLit"
      :lit-row="lit?.row"
      @point="pointed = $event"
    />
    <p v-else-if="empty" class="quiet">An empty page. Add a block, or write on the board.</p>
    <p v-else-if="wrong.size === 0 && !trouble" class="quiet" role="status">Working it out …</p>
    <p v-else class="quiet">No stave while something is wrong.</p>
  </section>
</template>

<style scoped>
.tape {
  padding: 10px 20px 4px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
  min-height: 60px;
}
.quiet {
  color: var(--mute);
}
</style>
