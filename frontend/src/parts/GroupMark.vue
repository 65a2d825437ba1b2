<script setup lang="ts">
import type { Group } from '@/api/types'
import { GROUP_MARK as say } from '@/words/texts/parts'

// The sign of a group: a shape, so that groups are told apart without a colour; its name beside it.
defineProps<{ group: Pick<Group, 'name' | 'mark'>; bare?: boolean }>()
const SHAPES: Record<string, string> = {
  ring: 'M8 2a6 6 0 1 0 .01 0z',
  bar: 'M3 8h10',
  peak: 'M2 13L8 3l6 10z',
  cross: 'M3 3l10 10M13 3L3 13',
  step: 'M2 13h4V9h4V5h4',
  wave: 'M1 9c2-5 4-5 7 0s5 5 7 0',
  frame: 'M3 3h10v10H3z',
  star: 'M8 2v12M2 8h12M4 4l8 8M12 4l-8 8',
}
</script>

<template>
  <span class="mark">
    <svg viewBox="0 0 16 16" role="img" :aria-label="say.group(group.name, group.mark)">
      <path :d="SHAPES[group.mark]" />
    </svg>
    <span v-if="!bare" aria-hidden="true">{{ group.name }}</span>
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  gap: 4px;
  align-items: center;
  white-space: nowrap;
}
svg {
  width: 14px;
  height: 14px;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}
</style>
