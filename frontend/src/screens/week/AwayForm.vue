<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { Undoable } from '@/composables/undoable'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import DayField from '@/parts/DayField.vue'
import { fullDate } from '@/words/dates'
import { AWAY_FORM as say, WEEK_DONE as done } from '@/words/texts/week'

const props = defineProps<{ begins: string; squad: number }>()
const emit = defineEmits<{ changed: [change: Undoable] }>()
const first = ref(props.begins)
const last = ref(props.begins)
const known = ref(true)
const { trouble: refused, attempt } = useAttempt()
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.away(props.squad)),
    queryFn: ({ queryKey }) => api.timesAway(Number(queryKey[1])),
  },
  queryClient,
)
const times = computed(() => data.value ?? [])
const notRead = troubleOf(error)

const note = (first: string, last: string, known: boolean) =>
  api.addAway({ first, last, known, squad: props.squad || null })
const add = () =>
  attempt(async () => {
    const before = new Set(times.value.map((one) => one.id))
    await note(first.value, last.value, known.value)
    await askAgain(KEYS.away(props.squad))
    const made = times.value.filter((one) => !before.has(one.id))
    emit('changed', { done: done.awayAdded, undo: () => Promise.all(made.map((one) => api.dropAway(one.id))) })
  })
const drop = (id: number) =>
  attempt(async () => {
    const before = times.value.find((one) => one.id === id)
    await api.dropAway(id)
    await askAgain(KEYS.away(props.squad))
    const undo = async () => {
      if (before) await note(before.first, before.last, before.known)
      await askAgain(KEYS.away(props.squad))
    }
    emit('changed', { done: done.awayRemoved, undo })
  })
const THEN = [
  { value: true, label: say.restCountsAsDaysWithout },
  { value: false, label: say.notKnownLeftOutOf },
]
</script>

<template>
  <form class="slip" :aria-label="say.whenTheSquadIsAway" @submit.prevent="add">
    <p v-if="refused || notRead" class="note-bar" role="alert">{{ refused || notRead }}</p>
    <ul v-if="times.length">
      <li v-for="one in times" :key="one.id">
        {{ say.to(fullDate(one.first), fullDate(one.last), one.known ? say.rest : say.notKnownWhatWasDone) }}
        <button type="button" class="link" @click="drop(one.id)">
          {{ say.takeItBack }}<span class="visually-hidden">{{ say.awayFrom(fullDate(one.first)) }}</span>
        </button>
      </li>
    </ul>
    <DayField v-model="first" :label="say.theSquadIsAwayFrom" :said="say.theSquadIsAwayFromSaid" />
    <DayField v-model="last" :label="say.until" :said="say.untilSaid" :from="first" />
    <ChoiceField v-model="known" :label="say.whatIsDoneThen" :options="THEN" />
    <ElButton type="primary" size="small" native-type="submit">{{ say.add }}</ElButton>
  </form>
</template>

<style scoped src="@/styles/slip.css"></style>
<style scoped>
ul,
.note-bar {
  flex-basis: 100%;
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
