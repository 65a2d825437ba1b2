<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElInput, ElTimePicker } from 'element-plus'
import { computed, useTemplateRef } from 'vue'

import { TIME_FIELD as say } from '@/words/texts/parts'

// A time of day, 18:30; '' for none. A phone has a picker of its own. The picker has arrows and no wheels: wheels take
// their own turning for a hand's, so that merely coming through the field would put the time it is now, also over what
// was typed. What it shows when open is marked whole, so that typing takes its place.
defineProps<{ label: string; said?: string }>()
const time = defineModel<string>({ required: true })
const phone = useMediaQuery('(pointer: coarse)')
const OFFERED = '18:00'
const offered = new Date(`2000-01-01T${OFFERED}`)
const field = useTemplateRef<HTMLElement>('field')
const text = (): HTMLInputElement | null | undefined => field.value?.querySelector('input')
const picked = computed({ get: () => time.value || null, set: (one: string | null) => (time.value = one ?? '') })
const markWhole = (open: boolean): void => {
  // What has been typed by then stays as it is.
  if (open && text()?.value === (time.value || OFFERED)) text()?.select()
}
const takeOffered = (event: Event | KeyboardEvent): void => {
  if ('key' in event && event.key === 'Enter' && !time.value && text()?.value === OFFERED) time.value = OFFERED
}
</script>

<template>
  <span ref="field" class="time">
    <span v-if="said" aria-hidden="true">{{ said }}</span>
    <ElInput v-if="phone" v-model="time" type="time" :aria-label="label" />
    <ElTimePicker
      v-else
      v-model="picked"
      :aria-label="label"
      value-format="HH:mm"
      format="HH:mm"
      arrow-control
      :default-value="offered"
      :placeholder="say.anyTime"
      size="small"
      @keydown="takeOffered"
      @visible-change="markWhole"
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
