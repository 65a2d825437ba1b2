<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import type { WeekRow } from '@/api/types'

// What rows are to get in a week, in minutes or as a share of all: a habit of the squad, so the head coach sets it.
const props = defineProps<{ rows: readonly WeekRow[] }>()
const emit = defineEmits<{
  save: [targets: Record<string, { by: 'minutes' | 'share'; low: number | null; high: number | null }>]
  close: []
}>()
const made = ref(
  props.rows.map((row) => ({
    name: row.name,
    by: (row.target ?? 'minutes') as 'minutes' | 'share',
    low: row.low ?? ('' as number | ''),
    high: row.high ?? ('' as number | ''),
  })),
)
const number = (value: number | ''): number | null => (value === '' ? null : value)
function save(): void {
  const kept = made.value.filter((one) => one.low !== '' || one.high !== '')
  emit(
    'save',
    Object.fromEntries(kept.map((one) => [one.name, { by: one.by, low: number(one.low), high: number(one.high) }])),
  )
}
</script>

<template>
  <form class="targets" aria-label="Week's targets" @submit.prevent="save" @keydown.esc.stop="$emit('close')">
    <fieldset v-for="one in made" :key="one.name">
      <legend>{{ one.name }}</legend>
      <label
        ><span class="visually-hidden">{{ one.name }}: at least</span
        ><input v-model="one.low" type="number" min="0" step="any" placeholder="from"
      /></label>
      <label
        ><span class="visually-hidden">{{ one.name }}: at most</span
        ><input v-model="one.high" type="number" min="0" step="any" placeholder="to"
      /></label>
      <label
        ><span class="visually-hidden">{{ one.name }}: in</span
        ><select v-model="one.by">
          <option value="minutes">min</option>
          <option value="share">share</option>
        </select></label
      >
    </fieldset>
    <p>
      <ElButton type="primary" size="small" native-type="submit">Set the targets</ElButton>
      <button type="button" class="link" @click="$emit('close')">close</button>
      <span class="quiet">a share is from 0 to 1; empty is no target</span>
    </p>
  </form>
</template>

<style scoped>
.targets {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 12px;
  margin-bottom: 10px;
  font-size: 13px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 6px;
  align-items: baseline;
}
legend {
  float: left;
  padding: 0 4px 0 0;
  font-weight: 600;
}
input {
  width: 48px;
}
p {
  flex-basis: 100%;
  margin: 0;
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.quiet {
  color: var(--mute);
}
</style>
