<script setup lang="ts">
import { computed, reactive, ref, useId } from 'vue'

import type { MovementDef } from '@/api/types'
import { useChoosing } from '@/composables/useChoosing'
import { useMovements, type Narrowed } from '@/composables/useMovements'

const props = defineProps<{
  label: string
  start?: string
  /** Movements that only this document knows. */
  own?: readonly MovementDef[]
  /** Whether what is not known can be defined here. */
  definable?: boolean
}>()
const emit = defineEmits<{ pick: [key: string]; define: [words: string]; close: [] }>()

const MOST_SHOWN = 40
const { search, codeOf, kits, joints, positions, patterns, ready } = useMovements()
const id = useId()
const typed = ref(props.start ?? '')
const narrowed = reactive<Narrowed>({ pattern: '', kit: '', position: '', spare: '' })
const found = computed(() => search(typed.value, narrowed, props.own ?? []).slice(0, MOST_SHOWN))
const { chosen, keys } = useChoosing(
  () => found.value.length - 1,
  () => void take(),
  () => emit('close'),
)

/** A hand that is faster than the library waits for it. */
async function take(): Promise<void> {
  await ready
  const one = found.value[chosen.value]
  if (one) emit('pick', one.key)
  else if (props.definable && typed.value.trim()) emit('define', typed.value)
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
  <div class="choosing">
    <p class="choosing-line">
      <label :for="id">{{ label }}</label>
      <input
        :id="id"
        ref="field"
        v-model="typed"
        role="combobox"
        aria-expanded="true"
        :aria-controls="`${id}-list`"
        :aria-activedescendant="found[chosen] ? `${id}-${found[chosen]?.key}` : undefined"
        autocomplete="off"
        placeholder="a name or a part of it"
        @input="chosen = 0"
        @keydown="keys"
      />
      <button v-if="definable" type="button" class="link" @click="$emit('define', typed)">define a new one</button>
      <button type="button" class="link" @click="$emit('close')">close</button>
    </p>
    <p class="choosing-line filters">
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
        v-for="(one, index) in found"
        :id="`${id}-${one.key}`"
        :key="one.key"
        role="option"
        :aria-selected="index === chosen"
        @mousedown.prevent="$emit('pick', one.key)"
      >
        <span class="code" aria-hidden="true">{{ codeOf(one) }}</span>
        <b>{{ one.name ?? one.key }}</b>
        <span>{{ weights(one) }}</span>
        <small
          >{{ pace(one) }}<template v-if="one.rep_is"> · {{ one.rep_is }}</template></small
        >
      </li>
      <li v-if="found.length === 0" role="option" aria-selected="false" aria-disabled="true">
        Nothing is called so here.<template v-if="definable"> Enter defines it as a new movement.</template>
      </li>
    </ul>
  </div>
</template>

<style scoped src="@/styles/choosing.css"></style>
<style scoped>
.filters select {
  font: 13px var(--text);
  color: var(--mute);
}
</style>
