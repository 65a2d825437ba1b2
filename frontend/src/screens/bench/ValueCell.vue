<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'

import type { PlacePart } from '@/composables/edits'
import { clock } from '@/words/format'
import { readValue, writeValue } from '@/words/values'

import { useBench } from './bench'

const props = defineProps<{
  label: string
  value: unknown
  place: PlacePart[]
  /** The place as the server names it, to find its word on it. */
  path: string
  unit?: string
  text?: boolean
  /** Write whole seconds as 45:00. */
  asClock?: boolean
  hideLabel?: boolean
}>()

const { edit, wrong } = useBench()
const id = useId()
const write = (value: unknown): string =>
  props.asClock && typeof value === 'number' ? clock(value) : writeValue(value)
const typed = ref(write(props.value))
const read = (text: string): unknown => (props.text ? text : readValue(text))

// What was typed stays as it is while it means the value; the value wins when it changed elsewhere (undo).
watch(
  () => props.value,
  (value) => {
    if (JSON.stringify(read(typed.value)) !== JSON.stringify(value)) typed.value = write(value)
  },
)

function commit(): void {
  const value = read(typed.value)
  if (JSON.stringify(value) === JSON.stringify(props.value)) return
  const key = props.place.join('/')
  edit([value === undefined ? { op: 'set', place: props.place, unset: true } : { op: 'set', place: props.place, value }], key)
}

const problem = computed(() => {
  const exact = wrong.value.get(props.path)
  if (exact) return exact
  // A list or a range is named with its part: rest_s[1], reps.low.
  for (const [path, found] of wrong.value) {
    if (path.startsWith(`${props.path}[`) || path.startsWith(`${props.path}.`)) return found
  }
  return undefined
})
const size = computed(() => Math.max(props.text ? 8 : 3, Math.min(40, typed.value.length + 1)))
</script>

<template>
  <span class="cell" :class="{ bad: problem, unset: typed === '' }">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <input
      :id="id" v-model="typed" :size="size" :inputmode="text ? 'text' : 'decimal'" autocomplete="off" spellcheck="false"
      :aria-invalid="problem ? 'true' : undefined" :aria-describedby="problem ? `${id}-why` : undefined" @input="commit"
    />
    <span v-if="unit && typed !== ''" class="unit" aria-hidden="true">{{ unit }}</span>
    <span v-if="problem" :id="`${id}-why`" class="why" role="alert">
      {{ problem.path }}: found {{ problem.found }}; allowed: {{ problem.allowed }}
    </span>
  </span>
</template>

<style scoped>
.cell {
  display: inline-flex;
  align-items: baseline;
  gap: 4px;
  flex-wrap: wrap;
}
label {
  color: var(--mute);
}
input {
  font: inherit;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  color: inherit;
  background: transparent;
  border: 0;
  border-bottom: 1px solid #8b8474;
  padding: 1px 2px;
  min-width: 0;
  max-width: 100%;
}
input:hover {
  background: var(--sheet);
}
input:focus {
  background: var(--sheet);
  outline: 2px solid var(--act);
  outline-offset: 0;
  border-radius: 2px;
}
.unset input {
  border-bottom-style: dashed;
}
.unit {
  color: var(--mute);
}
.bad input {
  border-bottom: 2px solid var(--warn);
}
.why {
  flex-basis: 100%;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
  font-size: 13px;
}
</style>
