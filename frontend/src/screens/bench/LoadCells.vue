<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Step } from '@/api/types'
import type { PathPart } from '@/composables/edits'
import { useTables } from '@/composables/useTables'
import { fromUnits, inUnits, signOf, typedIn } from '@/words/units'
import { readValue, valueFromUnits, valueInUnits, writeValue } from '@/words/values'
import { LOAD_CELLS as say } from '@/words/texts/bench'

import { useBench } from './bench'
import { useChosenWhole } from './useChosenWhole'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ step: Step; editPath: PathPart[]; path: string; more: boolean }>()
const { edit } = useBench()
const id = useId()
const { pointAt, chooseAll } = useChosenWhole()

// The document keeps kilograms, and remembers what was typed; a mass that says no unit is told in this person's.
const { tables } = useTables()
const load = computed(() => (Array.isArray(props.step.load) ? undefined : props.step.load))
const list = computed(() => (Array.isArray(props.step.load) ? props.step.load.map((one) => one.kg) : null))
const kind = computed(() => {
  const one = load.value
  if (one?.pct_1rm !== undefined) return 'pct_1rm'
  if (one?.bodyweight !== undefined) return 'bodyweight'
  return one?.unit ?? signOf('kg')
})
const shown = computed(() => {
  const one = load.value
  if (!one) return ''
  if (kind.value === 'pct_1rm') return writeValue(one.pct_1rm)
  if (kind.value === 'bodyweight') return writeValue(one.bodyweight)
  return typeof one.kg !== 'number' ? '' : writeValue(inUnits(one.kg, 'kg', typedIn(kind.value)))
})

function put(text: string, unit: string): void {
  const value = readValue(text)
  const place = [...props.editPath, 'load']
  if (value === undefined) {
    edit([{ op: 'set', path: place, unset: true }], place.join('/'))
    return
  }
  const more = load.value?.count !== undefined ? { count: load.value.count } : {}
  edit([{ op: 'set', path: place, value: made(value, unit, more) }], place.join('/'))
}
function made(value: unknown, unit: string, more: { count?: number | null }): unknown {
  if (unit === 'pct_1rm' || unit === 'bodyweight') return { [unit]: value, ...more }
  if (Array.isArray(value)) return value.map((one) => ({ kg: valueFromUnits(one, 'kg', typedIn(unit)), ...more }))
  // Kilograms need no word of it, but to somebody who reads pounds.
  const typed = unit === 'lb' || signOf('kg') !== 'kg' ? { unit } : {}
  return { kg: typeof value === 'number' ? fromUnits(value, 'kg', typedIn(unit)) : value, ...typed, ...more }
}
const text = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
  <span v-if="list" class="load">
    <label :for="id" :class="{ 'visually-hidden': !more }">{{ say.loadByRound }}</label>
    <input
      :id="id"
      :value="writeValue(valueInUnits(list, 'kg'))"
      size="14"
      autocomplete="off"
      @change="put(text($event), signOf('kg'))"
    />
    {{ signOf('kg') }}
  </span>
  <template v-else-if="load || more">
    <span v-if="load && (load.count !== undefined || more)" class="load">
      <ValueCell
        :label="say.ofThem"
        :hide-label="!more"
        first
        :value="load.count"
        :edit-path="[...editPath, 'load', 'count']"
        :path="`${path}.load.count`"
      />
      <span aria-hidden="true">×</span>
    </span>
    <span class="load">
      <label :for="id" :class="{ 'visually-hidden': !more }">{{ say.load }}</label>
      <input
        :id="id"
        :value="shown"
        :size="Math.max(2, shown.length)"
        inputmode="decimal"
        autocomplete="off"
        @input="put(text($event), kind)"
        @mousedown="pointAt"
        @click="chooseAll"
      />
      <select :value="kind" :aria-label="say.unitOfTheLoad" @change="put(shown, text($event))">
        <option v-for="one in tables.load_units" :key="one.key" :value="one.key">{{ one.label }}</option>
      </select>
    </span>
  </template>
</template>

<style scoped>
.load {
  display: inline-flex;
  gap: 3px;
  align-items: baseline;
}
label {
  color: var(--mute);
}
input {
  font-weight: 600;
  field-sizing: content;
  min-width: 24px;
  padding-inline: 1px;
  text-align: center;
  border-bottom: 1px dotted var(--rule);
}
@media (max-width: 600px) {
  input:focus {
    min-width: 64px;
    min-height: 44px;
    font-size: 22px;
  }
}
select {
  appearance: none;
  field-sizing: content;
  min-width: 24px;
  color: var(--mute);
  border-bottom-color: transparent;
  padding-inline: 0;
}
select:hover,
select:focus {
  border-bottom-color: var(--field);
}
</style>
