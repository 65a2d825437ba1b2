<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElDatePicker, ElInput } from 'element-plus'

import { dateOf } from '@/words/dates'

// A day, 2026-12-07, without a time zone. A phone has a picker of its own.
const props = defineProps<{ label: string; said?: string; /** The first day that can be chosen. */ from?: string }>()
const day = defineModel<string>({ required: true })
const phone = useMediaQuery('(pointer: coarse)')
const tooEarly = (date: Date): boolean => props.from !== undefined && dateOf(date) < props.from
</script>

<template>
  <span class="day">
    <span v-if="said" aria-hidden="true">{{ said }}</span>
    <ElInput v-if="phone" v-model="day" type="date" :aria-label="label" :min="from" required />
    <ElDatePicker
      v-else
      v-model="day"
      type="date"
      :aria-label="label"
      value-format="YYYY-MM-DD"
      format="D MMM YYYY"
      :clearable="false"
      :disabled-date="tooEarly"
      size="small"
    />
  </span>
</template>

<style scoped>
.day {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.day :deep(.el-date-editor),
.el-input {
  width: 9.6em;
}
</style>
