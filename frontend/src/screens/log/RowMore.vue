<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref } from 'vue'

import type { LogResult, StepOption } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import { ROW_MORE as say } from '@/words/texts/log'

// What somebody did otherwise in a window: the option of each step that has some, and where they stopped.
const props = defineProps<{ name: string; steps: readonly StepOption[]; used: LogResult | undefined }>()
const emit = defineEmits<{ keep: [options: Record<string, string>, unfinished: string]; close: [] }>()
const taken = ref<Record<string, string>>({ ...props.used?.options })
const unfinished = ref(props.used?.unfinished ?? '')
const choices = (step: StepOption) => [
  { value: '', label: say.asPlanned },
  ...step.labels.map((label) => ({ value: label, label })),
]
function take(step: string, label: string | null | undefined): void {
  taken.value = { ...taken.value, [step]: label ?? '' }
}
function keep(): void {
  const options = Object.fromEntries(Object.entries(taken.value).filter(([, label]) => label))
  emit('keep', options, unfinished.value.trim())
}
</script>

<template>
  <form class="more" :aria-label="say.of(name)" @submit.prevent="keep" @keydown.esc.stop="emit('close')">
    <ChoiceField
      v-for="step in steps"
      :key="step.step"
      :model-value="taken[step.step] ?? ''"
      :label="say.instead(step.name)"
      :said="step.name"
      :options="choices(step)"
      @update:model-value="take(step.step, $event)"
    />
    <label>
      {{ say.stopped }}
      <ElInput v-model="unfinished" size="small" maxlength="80" :placeholder="say.where" />
    </label>
    <ElButton native-type="submit" type="primary" size="small">{{ say.keep }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
  </form>
</template>

<style scoped>
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  padding: 2px 0 6px;
}
label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
label :deep(.el-input) {
  width: 15em;
}
</style>
