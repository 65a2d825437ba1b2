<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { TimeAway } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { fullDate } from '@/words/dates'

const props = defineProps<{ begins: string; squad: number }>()
const emit = defineEmits<{ changed: [] }>()
const times = shallowRef<TimeAway[]>([])
const first = ref(props.begins)
const last = ref(props.begins)
const known = ref(true)
const { trouble, attempt } = useAttempt()

const read = () => attempt(async () => void (times.value = await api.timesAway(props.squad)))
void read()
const changed = (act: () => Promise<unknown>) =>
  attempt(async () => {
    await act()
    await read()
    emit('changed')
  })
const add = () =>
  changed(() => api.addAway({ first: first.value, last: last.value, known: known.value, squad: props.squad }))
const drop = (id: number) => changed(() => api.dropAway(id))
</script>

<template>
  <form class="week-form" aria-label="When the squad is away" @submit.prevent="add">
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <ul v-if="times.length">
      <li v-for="one in times" :key="one.id">
        {{ fullDate(one.first) }} to {{ fullDate(one.last) }}, {{ one.known ? 'rest' : 'not known what was done' }}
        <button type="button" class="link" @click="drop(one.id)">
          take it back<span class="visually-hidden">: away from {{ fullDate(one.first) }}</span>
        </button>
      </li>
    </ul>
    <label>the squad is away from <input v-model="first" type="date" required /></label>
    <label>until <input v-model="last" type="date" :min="first" required /></label>
    <label>
      <span class="visually-hidden">What is done then</span>
      <select v-model="known">
        <option :value="true">rest: counts as days without load</option>
        <option :value="false">not known: left out of ratios</option>
      </select>
    </label>
    <ElButton type="primary" size="small" native-type="submit">Add</ElButton>
  </form>
</template>

<style scoped src="./week-form.css"></style>
<style scoped>
ul,
.note-bar {
  flex-basis: 100%;
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
