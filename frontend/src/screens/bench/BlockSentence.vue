<script setup lang="ts">
import { computed } from 'vue'

import { useTables } from '@/composables/useTables'
import { BLOCK_SENTENCE as say } from '@/words/texts/bench'

import { blockFields, fieldValue, type FieldSpec, type PlacedBlock } from './bench'
import ValueCell from './ValueCell.vue'

// What a block is, as one sentence in numbers: each of them is a cell. What is not set is not said.
const props = defineProps<{ placed: PlacedBlock; format: string; shaping: boolean }>()
defineEmits<{ shape: [] }>()
const { labelOf } = useTables()
const block = computed(() => props.placed.block)
const fields = computed(() => blockFields(block.value).filter((spec) => fieldValue(block.value, spec) !== undefined))
const path = (spec: FieldSpec): string => [props.placed.path, ...spec.under, spec.key].join('.')
</script>

<template>
  <div class="sentence">
    <h3>
      <ValueCell
        :label="say.label"
        hide-label
        text
        :value="block.title"
        :edit-path="[...placed.editPath, 'title']"
        :path="`${placed.path}.title`"
        :placeholder="format || say.label"
        class="label-cell"
      />
    </h3>
    <ValueCell
      v-for="spec in fields"
      :key="`${spec.under.join('.')}.${spec.key}`"
      :label="spec.label"
      :unit="spec.unit"
      :first="!spec.leads"
      :value="fieldValue(block, spec)"
      :edit-path="[...placed.editPath, ...spec.under, spec.key]"
      :path="path(spec)"
      class="part"
    />
    <button
      type="button"
      class="plain format"
      :aria-expanded="shaping"
      :title="say.formatAndItsNumbers"
      @click="$emit('shape')"
    >
      {{ block.title && format && format !== block.title ? format : say.format }}
      <i aria-hidden="true">{{ shaping ? '−' : '+' }}</i>
    </button>
    <span v-if="block.optional" class="quiet">{{
      block.optional === 'exit' ? say.mayEndBefore : say.mayBeLeftOut
    }}</span>
    <span v-if="block.effort" class="quiet">{{ labelOf('efforts', block.effort) }}</span>
    <span v-if="block.talk_over" class="quiet">{{ say.peopleMoveDuringTheTalk }}</span>
  </div>
</template>

<style scoped>
.sentence {
  display: flex;
  min-width: 0;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: baseline;
  font: 500 16px/1.3 var(--head);
}
h3 {
  display: flex;
  align-items: baseline;
  max-width: 100%;
}

.format {
  margin-left: 6px;
}
.part :deep(input) {
  border-bottom: 1px dotted var(--rule);
  padding-inline: 1px;
}
.label-cell {
  min-width: 0;
}
.label-cell :deep(input) {
  font: 600 18px var(--head);
  padding-inline: 0;
  border-bottom-color: transparent;
  max-width: 100%;
  text-overflow: ellipsis;
}
.label-cell :deep(input::placeholder) {
  color: var(--ink);
  opacity: 1;
}
.label-cell :deep(input:hover) {
  border-bottom-color: var(--field);
}
/* A sentence has commas: each part but the last number ends in one. */
h3::after {
  content: ',';
}
.part:has(+ .part)::after {
  content: ',';
  order: 3;
  margin-left: -3px;
}
h3:not(:has(+ .part))::after {
  content: none;
}
.format,
.quiet {
  font-size: 14px;
  color: var(--mute);
}
.format i {
  font-style: normal;
}
</style>
