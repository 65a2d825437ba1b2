<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { onMounted, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import DayField from '@/parts/DayField.vue'
import TimeField from '@/parts/TimeField.vue'
import { longDay, today } from '@/words/dates'
import { told } from '@/words/refusal'

import { useBench } from './bench'

const props = defineProps<{ session: string; save: () => Promise<boolean> }>()
const emit = defineEmits<{ close: [] }>()
const { squad } = useBench()

const day = ref(today())
const time = ref('')
const group = ref('')
const put = ref('')
const trouble = ref('')
const busy = ref(false)
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())

async function add(): Promise<void> {
  busy.value = true
  trouble.value = put.value = ''
  try {
    // The plan pins the version that is saved, so what is on the Bench is saved first.
    if (!(await props.save())) {
      trouble.value = 'It is not saved as it stands, so it was not put on the day.'
      return
    }
    const wanted = {
      day: day.value,
      ...(time.value ? { time: time.value } : {}),
      ...(group.value ? { group: group.value } : {}),
    }
    const entry = await api.planEntry({ ...wanted, session: props.session, squad: squad.value })
    put.value = entry.day ?? ''
    void queryClient.invalidateQueries({ queryKey: KEYS.week() })
  } catch (error) {
    trouble.value = told(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form ref="form" class="strip" aria-label="Put on a day" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <DayField v-model="day" label="Day" said="Day" />
    <TimeField v-model="time" label="at" said="at" />
    <span class="group">
      <span aria-hidden="true">group</span>
      <ElInput v-model="group" aria-label="group" maxlength="80" placeholder="all" autocomplete="off" size="small" />
    </span>
    <ElButton type="primary" size="small" native-type="submit" :disabled="busy || day === ''">Put it there</ElButton>
    <button type="button" class="link" @click="emit('close')">close</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-else-if="put" role="status">
      It stands on {{ longDay(put) }}, as it is now.
      <RouterLink :to="{ name: 'week', query: { day: put } }">To that week</RouterLink>
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
