<script setup lang="ts">
import { computed } from 'vue'

import { fromUnits, inUnits, signOf, type Measured } from '@/words/units'

import NumberField from './NumberField.vue'

// A mass or a distance that is typed in this person's units: the model, and its bounds, are in kilograms or metres.
const props = defineProps<{ of: Measured; label: string; said?: string; min?: number; max?: number; step?: number }>()
const model = defineModel<number | null>()
const shown = computed({
  get: () => (model.value === null || model.value === undefined ? null : inUnits(model.value, props.of)),
  set: (typed) => {
    model.value = typed === null ? null : fromUnits(typed, props.of)
  },
})
/** A bound that is not converted stays as it is; others go to the whole number that is still inside. */
const least = computed(() => props.min && Math.ceil(inUnits(props.min, props.of)))
const most = computed(() => props.max && Math.floor(inUnits(props.max, props.of)))
</script>

<template>
  <NumberField v-model="shown" :label="label" :said="said" :unit="signOf(of)" :min="least" :max="most" :step="step" />
</template>
