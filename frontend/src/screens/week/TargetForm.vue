<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import type { WeekRow } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { TARGET_FORM as say } from '@/words/texts/week'

// What rows are to get in a week, in minutes or as a share of all: a habit of the squad, so the head coach sets it.
type By = 'minutes' | 'share'
const props = defineProps<{ rows: readonly WeekRow[] }>()
const emit = defineEmits<{
  save: [targets: Record<string, { by: By; low: number | null; high: number | null }>]
  close: []
}>()
const made = ref(
  props.rows.map((row) => ({
    name: row.name,
    by: (row.target ?? 'minutes') as By,
    low: row.low ?? null,
    high: row.high ?? null,
  })),
)
const BY = [
  { value: 'minutes' as const, label: say.min },
  { value: 'share' as const, label: say.share },
]
function save(): void {
  const kept = made.value.filter((one) => one.low !== null || one.high !== null)
  emit('save', Object.fromEntries(kept.map(({ name, by, low, high }) => [name, { by, low, high }])))
}
</script>

<template>
  <form class="slip" :aria-label="say.weekSTargets" @submit.prevent="save" @keydown.esc.stop="emit('close')">
    <fieldset v-for="one in made" :key="one.name">
      <legend>{{ one.name }}</legend>
      <NumberField v-model="one.low" :label="say.atLeast(one.name)" :placeholder="say.from" />
      <NumberField v-model="one.high" :label="say.atMost(one.name)" :placeholder="say.to" />
      <ChoiceField v-model="one.by" :label="say.in(one.name)" :options="BY" />
    </fieldset>
    <p>
      <ElButton type="primary" size="small" native-type="submit">{{ say.setTheTargets }}</ElButton>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
      <span class="quiet">{{ say.aShareIsFromTo }}</span>
    </p>
  </form>
</template>

<style scoped src="@/styles/slip.css"></style>
<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 6px;
  align-items: center;
}
legend {
  float: left;
  padding: 0 4px 0 0;
  font-weight: 600;
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
