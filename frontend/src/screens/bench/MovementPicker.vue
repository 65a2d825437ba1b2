<script setup lang="ts">
import { computed, nextTick, onMounted, reactive, ref, useId } from 'vue'

import type { MovementDef } from '@/api/types'
import { useMovements, type Narrowed } from '@/composables/useMovements'

import { useBench } from './bench'
import MovementForm from './MovementForm.vue'

const props = defineProps<{ label: string; start?: string }>()
const emit = defineEmits<{ pick: [key: string]; close: [] }>()

const MOST_SHOWN = 40
const { document } = useBench()
const { search, codeOf, kits, joints, positions, patterns, ready } = useMovements()
const id = useId()
const typed = ref(props.start ?? '')
const narrowed = reactive<Narrowed>({ pattern: '', kit: '', position: '', spare: '' })
const chosen = ref(0)
const defining = ref(false)
const field = ref<HTMLInputElement | null>(null)
const list = ref<HTMLElement | null>(null)
const found = computed(() => search(typed.value, narrowed, document.value?.movements ?? []).slice(0, MOST_SHOWN))
onMounted(() => field.value?.focus())

/** A hand that is faster than the library waits for it. */
async function take(): Promise<void> {
  await ready
  const one = found.value[chosen.value]
  if (one) emit('pick', one.key)
  else if (typed.value.trim()) defining.value = true
}
function keys(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown') chosen.value = Math.min(found.value.length - 1, chosen.value + 1)
  else if (event.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
  else if (event.key === 'Enter') void take()
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
  void nextTick(() => list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }))
}
const weights = (m: MovementDef): string =>
  Object.entries(m.patterns ?? {})
    .map(([name, weight]) => (weight === 1 ? name : `${name} ${Math.round(weight * 100)} %`))
    .join(', ')
const pace = (m: MovementDef): string =>
  m.pace_s ? `${m.pace_s} s a rep` : m.speed_mps ? `${m.speed_mps} m a second` : 'no reps'
const FILTERS = computed(() => [
  { name: 'pattern' as const, label: 'pattern', any: 'any pattern', choices: patterns.value },
  { name: 'kit' as const, label: 'kit', any: 'any kit', choices: ['none', ...kits.value] },
  { name: 'position' as const, label: 'position', any: 'any position', choices: positions.value },
  { name: 'spare' as const, label: 'joint to spare', any: 'no joint to spare', choices: joints.value },
])
</script>

<template>
  <div class="picker">
    <MovementForm
      v-if="defining" :words="typed" @made="$emit('pick', $event)" @close="defining = false"
    />
    <template v-else>
      <p class="line">
        <label :for="id">{{ label }}</label>
        <input
          :id="id" ref="field" v-model="typed" role="combobox" aria-expanded="true" :aria-controls="`${id}-list`"
          :aria-activedescendant="found[chosen] ? `${id}-${found[chosen]?.key}` : undefined" autocomplete="off"
          placeholder="a name or a part of it" @input="chosen = 0" @keydown="keys"
        />
        <button type="button" class="link" @click="defining = true">define a new one</button>
        <button type="button" class="link" @click="$emit('close')">close</button>
      </p>
      <p class="line filters">
        <label v-for="filter in FILTERS" :key="filter.name">
          <span class="visually-hidden">{{ filter.label }}</span>
          <select v-model="narrowed[filter.name]" @change="chosen = 0">
            <option value="">{{ filter.any }}</option>
            <option v-for="one in filter.choices" :key="one" :value="one">
              {{ filter.name === 'spare' ? `spare the ${one}` : one === 'none' ? 'no kit' : one }}
            </option>
          </select>
        </label>
      </p>
      <ul :id="`${id}-list`" ref="list" role="listbox" :aria-label="label">
        <li
          v-for="(one, index) in found" :id="`${id}-${one.key}`" :key="one.key" role="option"
          :aria-selected="index === chosen" @mousedown.prevent="$emit('pick', one.key)"
        >
          <span class="code" aria-hidden="true">{{ codeOf(one) }}</span>
          <b>{{ one.name ?? one.key }}</b>
          <span>{{ weights(one) }}</span>
          <small>{{ pace(one) }}<template v-if="one.rep_is"> · {{ one.rep_is }}</template></small>
        </li>
        <li v-if="found.length === 0" class="none" role="option" aria-selected="false" aria-disabled="true">
          Nothing is called so here. Enter defines it as a new movement.
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.picker {
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 6px 12px;
  margin: 4px 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  margin: 2px 0;
}
label {
  font: 600 14px var(--head);
}
input {
  flex: 1;
  min-width: 120px;
  font: inherit;
  border: 0;
  border-bottom: 1px solid #8b8474;
  background: transparent;
  padding: 2px;
}
.filters select {
  font: 13px var(--text);
  color: var(--mute);
  background: transparent;
  border: 0;
  border-bottom: 1px dashed #8b8474;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  max-height: 230px;
  overflow: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  padding: 2px 8px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--paper-2);
  box-shadow: inset 3px 0 0 var(--act);
}
li span:not(.code),
small,
.none {
  color: var(--mute);
}
small {
  margin-left: auto;
}
</style>
