<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, onMounted, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { anew } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import DayField from '@/parts/DayField.vue'
import TimeField from '@/parts/TimeField.vue'
import { longDay, today } from '@/words/dates'
import { PLAN_PANEL as say } from '@/words/texts/bench'

import { useBench } from './bench'

const props = defineProps<{ session: string; save: () => Promise<boolean> }>()
const emit = defineEmits<{ close: [] }>()
const { squad } = useBench()

const day = ref(today())
const time = ref('')
const group = ref('')
const put = ref('')
const unsaved = ref('')
const { trouble: refused, attempt } = useAttempt()
const trouble = computed(() => refused.value || unsaved.value)
const busy = ref(false)
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())

async function add(): Promise<void> {
  busy.value = true
  put.value = unsaved.value = ''
  await attempt(async () => {
    // The plan pins the version that is saved, so what is on the Bench is saved first.
    if (!(await props.save())) {
      unsaved.value = say.itIsNotSavedAs
      return
    }
    const wanted = {
      day: day.value,
      ...(time.value ? { time: time.value } : {}),
      ...(group.value ? { group: group.value } : {}),
    }
    const entry = await api.planEntry({ ...wanted, session: props.session, squad: squad.value })
    put.value = entry.day ?? ''
    void anew(KEYS.week())
  })
  busy.value = false
}
</script>

<template>
  <form ref="form" class="strip" :aria-label="say.putOnADay" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <DayField v-model="day" :label="say.day" :said="say.day" />
    <TimeField v-model="time" :label="say.at" :said="say.at" />
    <span class="group">
      <span aria-hidden="true">{{ say.group }}</span>
      <ElInput
        v-model="group"
        :aria-label="say.group"
        maxlength="80"
        :placeholder="say.all"
        autocomplete="off"
        size="small"
      />
    </span>
    <ElButton type="primary" size="small" native-type="submit" :disabled="busy || day === ''">{{
      say.putItThere
    }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-else-if="put" role="status">
      {{ say.itStandsOnAsIt(longDay(put)) }}
      <RouterLink :to="{ name: 'week', query: { day: put } }">{{ say.toThatWeek }}</RouterLink>
    </p>
  </form>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
.group {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.group .el-input {
  width: 9em;
}
</style>
