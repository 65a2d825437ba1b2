<script setup lang="ts">
import { ElInputNumber } from 'element-plus'

// A number that is typed; empty is null.
defineProps<{
  label: string
  /** What stands before it, and after it, to be seen. */
  said?: string
  unit?: string
  min?: number
  max?: number
  step?: number
  placeholder?: string
}>()
const number = defineModel<number | null>()
defineEmits<{ change: [value: number | null] }>()
</script>

<template>
  <span class="number">
    <span v-if="said" aria-hidden="true">{{ said }}</span>
    <ElInputNumber
      v-model="number"
      :aria-label="label"
      :min="min ?? 0"
      :max="max"
      :step="step ?? 1"
      :placeholder="placeholder"
      :controls="false"
      :value-on-clear="null"
      size="small"
      @change="(value) => $emit('change', value ?? null)"
    />
    <span v-if="unit" aria-hidden="true">{{ unit }}</span>
  </span>
</template>

<style scoped>
.number {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.el-input-number {
  width: 5.2em;
}
</style>
