<script setup lang="ts">
import type { Section } from '@/api/types'
import type { PathPart } from '@/composables/edits'
import { SECTION_LINE as say } from '@/words/texts/bench'

import ValueCell from './ValueCell.vue'

// What holds for blocks that are gone through together: how often, and the rests between and after.
defineProps<{ section: Section; editPath: PathPart[]; path: string }>()
const FIELDS = [
  { key: 'times', label: say.times, unit: '' },
  { key: 'rest_between_s', label: say.between, unit: 's' },
  { key: 'rest_after_s', label: say.restAfter, unit: 's' },
] as const
</script>

<template>
  <p class="section">
    <b>{{ section.section || say.together }}</b>
    <ValueCell
      v-for="field in FIELDS"
      :key="field.key"
      :label="field.label"
      :unit="field.unit"
      :value="section[field.key]"
      :edit-path="[...editPath, field.key]"
      :path="`${path}.${field.key}`"
    />
  </p>
</template>

<style scoped>
.section {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: baseline;
  margin: 12px 0 0;
}
.section b {
  font: 600 15px var(--head);
}
</style>
