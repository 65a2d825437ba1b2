<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useId } from 'vue'

import type { Format } from '@/api/types'
import { useFormats } from '@/composables/useTables'

const props = defineProps<{ label: string }>()
const emit = defineEmits<{ pick: [format: Format]; close: [] }>()

const { search, ready } = useFormats()
const id = useId()
const typed = ref('')
const chosen = ref(0)
const field = ref<HTMLInputElement | null>(null)
const list = ref<HTMLElement | null>(null)
const found = computed(() => search(typed.value))
onMounted(() => field.value?.focus())

/** A hand that is faster than the table waits for it. */
async function take(): Promise<void> {
  await ready
  const one = found.value[chosen.value]
  if (one) emit('pick', one)
}
function keys(event: KeyboardEvent): void {
  const last = found.value.length - 1
  if (event.key === 'ArrowDown') chosen.value = Math.min(last, chosen.value + 1)
  else if (event.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
  else if (event.key === 'Enter') void take()
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
  void nextTick(() => list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }))
}
const held = (one: Format): string => {
  const most = one.most === null ? 'or more' : one.most === one.least ? '' : `to ${one.most}`
  return `${one.least} ${most} movements`.replace(/\s+/g, ' ').replace('1 movements', '1 movement')
}
</script>

<template>
  <div class="palette">
    <label :for="id">{{ props.label }}</label>
    <input
      :id="id" ref="field" v-model="typed" role="combobox" aria-expanded="true" :aria-controls="`${id}-list`"
      :aria-activedescendant="found[chosen] ? `${id}-${found[chosen]?.key}` : undefined" autocomplete="off"
      placeholder="20 10 pairs, pyramid, every minute …" @input="chosen = 0" @keydown="keys"
    />
    <button type="button" class="link" @click="$emit('close')">close</button>
    <ul :id="`${id}-list`" ref="list" role="listbox" :aria-label="props.label">
      <li
        v-for="(one, index) in found" :id="`${id}-${one.key}`" :key="one.key" role="option"
        :aria-selected="index === chosen" @mousedown.prevent="$emit('pick', one)"
      >
        <b>{{ one.name }}</b>
        <span v-if="one.trade.length">{{ one.trade.join(', ') }}</span>
        <small>{{ held(one) }}</small>
      </li>
      <li v-if="found.length === 0" class="none" role="option" aria-selected="false" aria-disabled="true">
        No format is called so.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.palette {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 4px 10px;
  align-items: baseline;
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 12px;
  margin: 8px 0;
}
label {
  font: 600 15px var(--head);
}
input {
  font: inherit;
  border: 0;
  border-bottom: 1px solid #8b8474;
  background: transparent;
  padding: 3px 2px;
  min-width: 0;
}
ul {
  grid-column: 1 / -1;
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  max-height: 260px;
  overflow: auto;
}
li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 3px 8px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--paper-2);
  box-shadow: inset 3px 0 0 var(--act);
}
span,
small {
  color: var(--mute);
}
small {
  margin-left: auto;
  white-space: nowrap;
}
.none {
  color: var(--mute);
}
</style>
