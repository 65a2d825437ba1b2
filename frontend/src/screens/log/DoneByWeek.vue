<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PersonLog } from '@/api/types'
import { dayOfMonth } from '@/words/dates'
import { whole } from '@/words/format'
import { PERSON_LOG as say } from '@/words/texts/log'

// What was done, week by week, the latest first. How reps are known is never added up.
const props = defineProps<{ weeks: PersonLog['weeks'] }>()
const SHOWN = 8
const all = ref(false)
const latest = computed(() => [...props.weeks].reverse())
const shown = computed(() => (all.value ? latest.value : latest.value.slice(0, SHOWN)))
</script>

<template>
  <section :aria-label="say.done">
    <h2>{{ say.done }}</h2>
    <p v-if="weeks.length === 0" class="said">{{ say.nothing }}</p>
    <div v-else class="wide" tabindex="0">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ say.week }}</th>
            <th scope="col">{{ say.sessions }}</th>
            <th scope="col">{{ say.minutes }}</th>
            <th scope="col">{{ say.load }}</th>
            <th scope="col">{{ say.called }}</th>
            <th scope="col">{{ say.paced }}</th>
            <th scope="col">{{ say.guessed }}</th>
            <th scope="col">{{ say.kg }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.begins">
            <th scope="row">{{ dayOfMonth(one.begins) }}</th>
            <td>{{ one.sessions }}</td>
            <td>{{ whole(one.minutes) }}</td>
            <td>{{ whole(one.load) }}</td>
            <td>{{ one.reps.called ?? 0 }}</td>
            <td>{{ one.reps.paced ?? 0 }}</td>
            <td>{{ one.reps.estimated ?? 0 }}</td>
            <td>{{ whole(one.kg) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="!all && weeks.length > SHOWN" type="button" class="link" @click="all = true">
      {{ say.more(weeks.length - SHOWN) }}
    </button>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped src="./ledger.css"></style>
