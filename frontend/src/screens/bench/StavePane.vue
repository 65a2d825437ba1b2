<script setup lang="ts">
import { computed } from 'vue'

import type { Stave } from '@/api/types'
import type { StaveLine } from '@/stave/line'
import StaveView from '@/stave/StaveView.vue'
import { STAVE_PANE as say } from '@/words/texts/bench'

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
  <section class="tape" :aria-label="say.stave">
    <StaveView
      v-if="stave"
      :stave="stave"
      :stale="wrong.size > 0"
      :open="openEnds"
      :lit="isLit"
      :lit-row="lit?.row"
      @point="pointed = $event"
    />
    <p v-else-if="empty" class="quiet">{{ say.anEmptyPageAddA }}</p>
    <p v-else-if="wrong.size === 0 && !trouble" class="quiet" role="status">{{ say.workingItOut }}</p>
    <p v-else class="quiet">{{ say.noStaveWhileSomethingIs }}</p>
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
