<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'

import { api, Refusal } from '@/api/client'
import { longDay, today } from '@/words/dates'

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
const field = ref<HTMLInputElement | null>(null)
onMounted(() => field.value?.focus())

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
    put.value = entry.day
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.told
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="strip" aria-label="Put on a day" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <label>Day <input ref="field" v-model="day" type="date" required /></label>
    <label>at <input v-model="time" type="time" /></label>
    <label>group <input v-model="group" size="12" maxlength="80" placeholder="all" autocomplete="off" /></label>
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
