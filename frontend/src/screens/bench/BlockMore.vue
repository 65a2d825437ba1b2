<script setup lang="ts">
import { computed } from 'vue'

import type { PathPart } from '@/composables/edits'
import { useTables } from '@/composables/useTables'
import { BLOCK_MORE as say } from '@/words/texts/bench'

import { blockFields, fieldValue, useBench, type FieldSpec, type PlacedBlock } from './bench'
import EffortField from './EffortField.vue'
import ValueCell from './ValueCell.vue'

// What a block may have beside what its sentence says: numbers that are not set, effort, whether it may be left out.
const props = defineProps<{ placed: PlacedBlock }>()
const { edit } = useBench()
const { tables } = useTables()
const block = computed(() => props.placed.block)
const fields = computed(() => blockFields(block.value).filter((spec) => fieldValue(block.value, spec) === undefined))
const place = (spec: FieldSpec): PathPart[] => [...props.placed.editPath, ...spec.under, spec.key]
const path = (spec: FieldSpec): string => [props.placed.path, ...spec.under, spec.key].join('.')

function put(key: string, value: unknown): void {
  const at = [...props.placed.editPath, key]
  edit([value === '' ? { op: 'set', path: at, unset: true } : { op: 'set', path: at, value }])
}
const checked = (event: Event): boolean => (event.target as HTMLInputElement).checked
const word = (event: Event): string => (event.target as HTMLSelectElement).value
</script>

<template>
  <p class="unset">
    <ValueCell
      v-for="spec in fields"
      :key="`${spec.under.join('.')}.${spec.key}`"
      :label="spec.label"
      :unit="spec.unit"
      :value="undefined"
      :edit-path="place(spec)"
      :path="path(spec)"
    />
    <label>
      <input type="checkbox" :checked="block.talk_over ?? false" @change="put('talk_over', checked($event) || '')" />
      {{ say.peopleMoveDuringTheTalk }}
    </label>
    <EffortField :effort="block.effort" :otherwise="say.asUsual" @choose="put('effort', $event)" />
    <label>
      {{ say.optional }}
      <select :value="block.optional ?? ''" @change="put('optional', word($event))">
        <option value="">{{ say.no }}</option>
        <option v-for="one in tables.optional" :key="one.key" :value="one.key">{{ one.label }}</option>
      </select>
    </label>
    <ValueCell
      :label="say.notes"
      text
      :value="block.notes"
      :edit-path="[...placed.editPath, 'notes']"
      :path="`${placed.path}.notes`"
    />
  </p>
</template>

<style scoped>
.unset {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  background: var(--paper-2);
  padding: 6px 10px;
  margin: 2px 0;
  font-size: 13px;
}
label {
  color: var(--mute);
}
select {
  font-weight: 600;
  color: var(--ink);
}
</style>
