<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { PersonOut, PlanDetails, PlanEntry } from '@/api/types'
import { longDay } from '@/words/dates'
import { tenth, whole } from '@/words/format'

import WhoCame from './WhoCame.vue'

const props = defineProps<{ entry: PlanEntry; days: readonly string[]; people: readonly PersonOut[] }>()
const emit = defineEmits<{
  change: [details: PlanDetails]
  again: [how: { weeks?: number; day?: string }]
  drop: []
  close: []
  attended: []
}>()
const loggedMinutes = ref<number | null>(null)
const loggedEffort = ref<number | null>(null)
watch(
  () => props.entry.id,
  () => {
    loggedMinutes.value = loggedEffort.value = null
  },
)
const router = useRouter()
async function keep(): Promise<void> {
  const made = await api.keepEntry(props.entry.id)
  await router.push({ name: 'bench', params: { id: made.id } })
}
const value = (event: Event): string => (event.target as HTMLInputElement | HTMLSelectElement).value
function log(): void {
  if (loggedMinutes.value === null || loggedEffort.value === null) return
  emit('change', { logged_minutes: loggedMinutes.value, logged_effort: loggedEffort.value })
}
</script>

<template>
  <section class="editor" :aria-label="`Change ${entry.title}`" @keydown.esc.stop="$emit('close')">
    <b>{{ entry.title }}</b>
    <label
      >on
      <select :value="entry.day" @change="emit('change', { day: value($event) })">
        <option v-for="day in days" :key="day" :value="day">{{ longDay(day) }}</option>
      </select></label
    >
    <label
      >at
      <input
        type="time"
        :value="entry.time?.slice(0, 5) ?? ''"
        @change="emit('change', { time: value($event) || null })"
    /></label>
    <label
      >group
      <input :value="entry.group" placeholder="all" maxlength="80" @change="emit('change', { group: value($event) })"
    /></label>
    <label
      >person
      <select
        :value="entry.person ?? ''"
        @change="emit('change', { person: value($event) ? Number(value($event)) : null })"
      >
        <option value="">all</option>
        <option v-for="one in people" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select></label
    >
    <label
      >copy to
      <select value="" @change="value($event) && emit('again', { day: value($event) })">
        <option value="">day …</option>
        <option v-for="day in days" :key="day" :value="day">{{ longDay(day) }}</option>
      </select></label
    >
    <label
      >repeat for
      <select value="" @change="value($event) && emit('again', { weeks: Number(value($event)) })">
        <option value="">weeks …</option>
        <option v-for="weeks in [1, 2, 3, 4, 6, 8]" :key="weeks" :value="weeks">
          {{ weeks }} week{{ weeks > 1 ? 's' : '' }}
        </option>
      </select></label
    >
    <form @submit.prevent="log">
      <label
        >done, min
        <input v-model.number="loggedMinutes" type="number" min="0" max="1440" :placeholder="whole(entry.minutes)"
      /></label>
      <label
        >effort
        <input
          v-model.number="loggedEffort"
          type="number"
          min="0"
          max="10"
          step="0.5"
          :placeholder="tenth(entry.effort)"
      /></label>
      <button type="submit" class="link">log</button>
    </form>
    <RouterLink v-if="entry.session" :to="{ name: 'bench', params: { id: entry.session } }">Bench</RouterLink>
    <button
      v-if="entry.session"
      type="button"
      class="link"
      title="What stands on this day, as a session of its own"
      @click="keep"
    >
      as a new session
    </button>
    <button v-if="entry.newer" type="button" class="link" @click="emit('change', { newest: true })">
      take the newer
    </button>
    <button type="button" class="link" @click="emit('change', { locked: !entry.locked })">
      {{ entry.locked ? 'unlock' : 'lock' }}
    </button>
    <button type="button" class="link" @click="emit('change', { skipped: !entry.skipped })">
      {{ entry.skipped ? 'do it after all' : 'skip' }}
    </button>
    <button type="button" class="link" @click="emit('drop')">
      take off<span class="visually-hidden"> {{ entry.title }}</span>
    </button>
    <button type="button" class="link" @click="emit('close')">close</button>
    <WhoCame :entry="entry.id" @changed="emit('attended')" />
  </section>
</template>

<style scoped>
.editor {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 12px;
  margin-bottom: 10px;
  font-size: 13px;
}
b {
  font: 600 16px var(--head);
}
input,
select {
  max-width: 180px;
}
input[type='number'] {
  width: 52px;
}
form {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
