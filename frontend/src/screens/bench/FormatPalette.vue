<script setup lang="ts">
import { computed, ref, useId } from 'vue'

import { api } from '@/api/client'
import type { Format } from '@/api/types'
import { useChoosing } from '@/composables/useChoosing'
import { useFormats, useShapes } from '@/composables/useTables'

import { useBench } from './bench'

const props = defineProps<{ label: string }>()
const emit = defineEmits<{ pick: [format: Format, params: object]; close: [] }>()

/** What can be picked: a format as it is, or a shape of one under a name of the squad's own. */
interface Choice {
  key: string
  name: string
  format: Format
  params: object
  shape?: number
}
const { squad } = useBench()
const { search, byKey, ready } = useFormats()
const { shapes, fetchShapes } = useShapes()
void fetchShapes(squad.value)
const id = useId()
const typed = ref('')
const own = computed<Choice[]>(() =>
  shapes.value.flatMap((one) => {
    const format = byKey.value.get(one.key)
    const fits = one.name.toLowerCase().includes(typed.value.trim().toLowerCase())
    return format && fits ? [{ key: `own-${one.id}`, name: one.name, format, params: one.params, shape: one.id }] : []
  }),
)
const found = computed<Choice[]>(() => [
  ...own.value,
  ...search(typed.value).map((format) => ({ key: format.key, name: format.name, format, params: {} })),
])
const { chosen, keys } = useChoosing(
  () => found.value.length - 1,
  () => void take(),
  () => emit('close'),
)

/** A hand that is faster than the table waits for it. */
async function take(): Promise<void> {
  await ready
  const one = found.value[chosen.value]
  if (one) emit('pick', one.format, one.params)
}
async function forget(shape: number | undefined): Promise<void> {
  if (shape === undefined) return
  await api.dropShape(shape)
  await fetchShapes(squad.value)
}
const held = (one: Format): string => {
  const most = one.most === null ? 'or more' : one.most === one.least ? '' : `to ${one.most}`
  return `${one.least} ${most} movements`.replace(/\s+/g, ' ').replace('1 movements', '1 movement')
}
</script>

<template>
  <div class="choosing">
    <p class="choosing-line">
      <label :for="id">{{ props.label }}</label>
      <input
        :id="id"
        ref="field"
        v-model="typed"
        role="combobox"
        aria-expanded="true"
        :aria-controls="`${id}-list`"
        :aria-activedescendant="found[chosen] ? `${id}-${found[chosen]?.key}` : undefined"
        autocomplete="off"
        placeholder="20 10 pairs, pyramid, every minute …"
        @input="chosen = 0"
        @keydown="keys"
      />
      <button type="button" class="link" @click="$emit('close')">close</button>
    </p>
    <ul :id="`${id}-list`" ref="list" role="listbox" :aria-label="props.label">
      <li
        v-for="(one, index) in found"
        :id="`${id}-${one.key}`"
        :key="one.key"
        role="option"
        :aria-selected="index === chosen"
        @mousedown.prevent="$emit('pick', one.format, one.params)"
      >
        <b>{{ one.name }}</b>
        <span v-if="one.shape">own shape of {{ one.format.name.toLowerCase() }}</span>
        <span v-else-if="one.format.trade.length">{{ one.format.trade.join(', ') }}</span>
        <small>{{ held(one.format) }}</small>
      </li>
      <li v-if="found.length === 0" role="option" aria-selected="false" aria-disabled="true">
        No format is called so.
      </li>
    </ul>
    <p v-if="own.length" class="own">
      Own shapes:
      <button v-for="one in own" :key="one.key" type="button" class="link" @click="forget(one.shape)">
        forget “{{ one.name }}”
      </button>
    </p>
  </div>
</template>

<style scoped src="@/styles/choosing.css"></style>
<style scoped>
.own {
  margin: 6px 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  color: var(--mute);
  font-size: 13px;
}
small {
  white-space: nowrap;
}
</style>
