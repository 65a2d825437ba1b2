<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import type { Week } from '@/api/types'
import { fullDate } from '@/words/dates'
import { whole } from '@/words/format'

const props = defineProps<{ begins: string; phase: Week['phase'] | null }>()
const emit = defineEmits<{
  add: [body: { begins: string; weeks: number; kind: string; load_low: number; load_high: number }]
  drop: [id: number]
  close: []
}>()
const KINDS = ['build', 'hold', 'ease', 'test'] as const
const kind = ref<(typeof KINDS)[number]>('build')
const weeks = ref(4)
const low = ref(1000)
const high = ref(1150)
const add = (): void =>
  emit('add', {
    begins: props.begins,
    weeks: weeks.value,
    kind: kind.value,
    load_low: low.value,
    load_high: high.value,
  })
</script>

<template>
  <form class="week-form" aria-label="Phase" @submit.prevent="add" @keydown.esc.stop="$emit('close')">
    <template v-if="phase">
      <span
        >{{ phase.kind }}, {{ phase.weeks }} weeks from {{ fullDate(phase.begins) }}: load
        {{ whole(phase.load_low) }} to {{ whole(phase.load_high) }} a week</span
      >
      <button type="button" class="link" @click="emit('drop', phase.id)">take the phase away</button>
    </template>
    <template v-else>
      <label
        >from {{ fullDate(begins) }}:
        <select v-model="kind">
          <option v-for="one in KINDS" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <label>weeks <input v-model.number="weeks" type="number" min="1" max="52" required /></label>
      <label>load from <input v-model.number="low" type="number" min="0" required /></label>
      <label>to <input v-model.number="high" type="number" min="0" required /></label>
      <ElButton type="primary" size="small" native-type="submit">Set</ElButton>
    </template>
    <button type="button" class="link" @click="$emit('close')">close</button>
  </form>
</template>

<style scoped src="./week-form.css"></style>
<style scoped>
input {
  width: 70px;
}
</style>
