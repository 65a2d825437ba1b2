<script setup lang="ts">
import { computed } from 'vue'

import { api } from '@/api/client'
import type { Format } from '@/api/types'
import { useFormats, useShapes } from '@/composables/useTables'
import FindField from '@/parts/FindField.vue'
import { FORMAT_PALETTE as say } from '@/words/texts/bench'

import { useBench } from './bench'

defineProps<{ label: string }>()
const emit = defineEmits<{ pick: [format: Format, params: Record<string, unknown>]; close: [] }>()

/** What can be picked: a format as it is, or a shape of one under a name of the squad's own; null: nothing is called so. */
interface Choice {
  value: string
  format: Format | null
  params: Record<string, unknown>
  shape?: number
}
const { squad } = useBench()
const { search, byKey, ready } = useFormats()
const { shapes, changed, ready: shapesReady } = useShapes(squad)
const own = computed<Choice[]>(() =>
  shapes.value.flatMap((one) => {
    const format = byKey.value.get(one.key)
    return format ? [{ value: one.name, format, params: one.params, shape: one.id }] : []
  }),
)
/** A hand that is faster than the tables waits for them. */
async function find(words: string): Promise<Choice[]> {
  await Promise.all([ready(), shapesReady()])
  const found = [
    ...own.value.filter((one) => one.value.toLowerCase().includes(words.trim().toLowerCase())),
    ...search(words).map((format) => ({ value: format.name, format, params: {} })),
  ]
  return found.length ? found : [{ value: words, format: null, params: {} }]
}
function take(one: Choice | null): void {
  if (one?.format) emit('pick', one.format, one.params)
}
async function forget(shape: number | undefined): Promise<void> {
  if (shape === undefined) return
  await api.dropShape(shape)
  await changed()
}
const held = (one: Format): string => {
  if (one.most === null) return say.orMoreMovements(one.least)
  if (one.most > one.least) return say.toMovements(one.least, one.most)
  return one.least === 1 ? say.oneMovement : say.movements(one.least)
}
</script>

<template>
  <div class="choosing" @keydown.esc.capture.stop.prevent="emit('close')">
    <p class="choosing-line">
      <b aria-hidden="true">{{ label }}</b>
      <FindField
        v-slot="{ item }: { item: Choice }"
        :label="label"
        :placeholder="say.pairsPyramidEveryMinute"
        at-once
        :find="find"
        @take="take"
      >
        <span v-if="item.format" class="found">
          <b>{{ item.value }}</b>
          <span v-if="item.shape">{{ say.ownShapeOf(item.format.name.toLowerCase()) }}</span>
          <span v-else-if="item.format.trade.length">{{ item.format.trade.join(', ') }}</span>
          <small>{{ held(item.format) }}</small>
        </span>
        <span v-else class="found none">{{ say.noFormatIsCalledSo }}</span>
      </FindField>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </p>
    <p v-if="own.length" class="own">
      {{ say.ownShapes }}
      <button v-for="one in own" :key="one.shape" type="button" class="link" @click="forget(one.shape)">
        {{ say.forget(one.value) }}
      </button>
    </p>
  </div>
</template>

<style scoped src="@/styles/choosing.css"></style>
<style scoped>
.own {
  margin: 4px 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font-size: 13px;
  color: var(--mute);
}
</style>
