<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput } from 'element-plus'
import { computed, onMounted, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import type { NewEntry } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import TimeField from '@/parts/TimeField.vue'
import { longDay } from '@/words/dates'
import { clock, whole } from '@/words/format'
import { ADD_ENTRY as say } from '@/words/texts/week'

const props = defineProps<{ day: string }>()
const emit = defineEmits<{ add: [body: NewEntry]; close: [] }>()

const OTHER = 'other'
const { data: sessions } = useQuery({ queryKey: [...KEYS.sessions(), 'names'], queryFn: api.sessionNames }, queryClient)
const choices = computed(() => [
  ...(sessions.value ?? []).map((one) => ({
    value: one.id,
    label: [
      `${one.title} (${clock(one.total_s)}, ${one.load === null ? '–' : whole(one.load)})`,
      ...(one.done_days === null ? [] : [one.done_days > 0 ? say.lastDone(one.done_days) : say.doneToday]),
    ].join(' · '),
  })),
  { value: OTHER, label: say.otherTraining },
])
const what = ref<string | null>(null)
const title = ref('')
const minutes = ref<number | null>(60)
const effort = ref<number | null>(4)
const time = ref('')
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())
const other = computed(() => what.value === OTHER)
const ready = computed(() => what.value !== null && (!other.value || title.value.trim() !== ''))
function add(): void {
  if (!ready.value) return
  const when = { day: props.day, ...(time.value ? { time: time.value } : {}) }
  const training = { title: title.value, minutes: minutes.value ?? 0, effort: effort.value ?? 0 }
  emit('add', other.value ? { ...when, ...training } : { ...when, session: what.value })
}
</script>

<template>
  <form
    ref="form"
    class="adding"
    :aria-label="say.putSomethingOn(longDay(day))"
    @submit.prevent="add"
    @keydown.esc.stop="emit('close')"
  >
    <ChoiceField v-model="what" :label="say.what" :placeholder="say.session" :options="choices" class="what" />
    <template v-if="other">
      <ElInput v-model="title" :aria-label="say.title" :placeholder="say.hikeMatch" maxlength="200" size="small" />
      <NumberField v-model="minutes" :label="say.minutes" :said="say.min" :min="1" :max="1440" />
      <NumberField v-model="effort" :label="say.effort" :said="say.effortSaid" :max="10" :step="0.5" />
    </template>
    <TimeField v-model="time" :label="say.at" :said="say.atSaid" />
    <span class="acts">
      <ElButton type="primary" size="small" native-type="submit" :disabled="!ready">{{ say.putItThere }}</ElButton>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </span>
  </form>
</template>

<style scoped>
.adding {
  display: grid;
  gap: 4px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  padding: 6px;
  font-size: 13px;
  min-width: 0;
}
.what :deep(.el-select) {
  width: 100% !important;
}
/* As narrow as its day: what is in it gives way. */
.adding :deep(.time),
.adding :deep(.number) {
  display: flex;
  min-width: 0;
}
.adding :deep(.el-date-editor) {
  width: 100%;
  min-width: 0;
}
.adding :deep(.el-input__prefix) {
  display: none;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
}
</style>
