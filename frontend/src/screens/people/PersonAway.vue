<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import DayField from '@/parts/DayField.vue'
import { fullDate, today } from '@/words/dates'
import { AWAY_PANEL as say } from '@/words/texts/people'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const first = ref(today())
const last = ref(today())
const known = ref(true)
const THEN = [
  { value: true, label: say.rest },
  { value: false, label: say.unknown },
]
const { trouble, attempt } = useAttempt()
const changed = (work: () => Promise<unknown>) =>
  attempt(async () => {
    await work()
    emit('changed')
  })
const add = () =>
  changed(() =>
    api.addAway({
      first: first.value,
      last: last.value,
      known: known.value,
      squad: props.person.squad,
      person: props.person.id,
    }),
  )
</script>

<template>
  <section :aria-label="say.away">
    <h2>{{ say.away }}</h2>
    <p v-if="!person.times_away.length" class="said">{{ say.none }}</p>
    <ul class="lines">
      <li v-for="one in person.times_away" :key="one.id">
        <b>{{ say.span(fullDate(one.first), fullDate(one.last)) }}</b>
        <span class="said grow">{{ one.known ? say.rest : say.unknown }}</span>
        <button type="button" class="link" @click="changed(() => api.dropAway(one.id))">
          {{ say.takeBack }}<span class="visually-hidden">: {{ fullDate(one.first) }}</span>
        </button>
      </li>
    </ul>
    <form class="line" @submit.prevent="add">
      <DayField v-model="first" :label="say.from" :said="say.from" />
      <DayField v-model="last" :label="say.until" :said="say.until" :from="first" />
      <ChoiceField v-model="known" :label="say.then" :options="THEN" />
      <ElButton native-type="submit" size="small">{{ say.add }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
