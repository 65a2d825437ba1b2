<script setup lang="ts">
import { computed } from 'vue'

import type { Stave } from '@/api/types'
import StaveView from '@/stave/StaveView.vue'
import { STAVE_PANE as say } from '@/words/texts/bench'

import { useBench } from './bench'
import { isOf } from './light'

// The stave of the Bench: lit by what is pointed at in the lane, and telling the lane what is pointed at on it.
defineProps<{ stave: Stave | null; empty: boolean; trouble: string }>()
const { figures, wrong, lit, pointed, light } = useBench()
const openEnds = computed(() => figures.value?.spread['total_s'])
</script>

<template>
  <section class="tape" :class="{ empty }" :aria-label="say.stave">
    <StaveView
      v-if="stave"
      :stave="stave"
      :stale="wrong.size > 0"
      :open="openEnds"
      :lit="lit && ((line) => isOf(line, lit))"
      :lit-rows="lit?.block === undefined ? light.rows : undefined"
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
  /* The height of a stave with its legend on one line: nothing below moves when it arrives. */
  min-height: 257px;
}
.empty {
  min-height: 60px;
}
.quiet {
  color: var(--mute);
}
</style>
