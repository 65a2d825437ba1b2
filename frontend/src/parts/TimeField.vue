<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElInput, ElTimePicker } from 'element-plus'
import { computed } from 'vue'

import { TIME_FIELD as say } from '@/words/texts/parts'

// A time of day, 18:30; '' for none. A phone has a picker of its own.
defineProps<{ label: string; said?: string }>()
const time = defineModel<string>({ required: true })
const phone = useMediaQuery('(pointer: coarse)')
const picked = computed({ get: () => time.value || null, set: (one: string | null) => (time.value = one ?? '') })
</script>

<template>
  <span class="time">
    <span v-if="said" aria-hidden="true">{{ said }}</span>
    <ElInput v-if="phone" v-model="time" type="time" :aria-label="label" />
    <ElTimePicker
      v-else
      v-model="picked"
      :aria-label="label"
      value-format="HH:mm"
      format="HH:mm"
      :placeholder="say.anyTime"
      size="small"
    />
  </span>
</template>

<style scoped>
.time {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.time :deep(.el-date-editor),
.el-input {
  width: 8em;
}
</style>
