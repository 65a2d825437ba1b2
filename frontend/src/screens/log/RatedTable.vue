<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PersonLog } from '@/api/types'
import { dayOfMonth } from '@/words/dates'
import { tenth } from '@/words/format'
import { PERSON_LOG as say } from '@/words/texts/log'

// Ratings against what was estimated of what this person did, the latest first.
const props = defineProps<{ rated: PersonLog['rated'] }>()
const SHOWN = 6
const all = ref(false)
const latest = computed(() => [...props.rated].reverse())
const shown = computed(() => (all.value ? latest.value : latest.value.slice(0, SHOWN)))
</script>

<template>
  <section v-if="rated.length" :aria-label="say.ratedAgainst">
    <h2>{{ say.ratedAgainst }}</h2>
    <table>
      <thead>
        <tr>
          <th scope="col">{{ say.work }}</th>
          <th scope="col">{{ say.estimated }}</th>
          <th scope="col">{{ say.ratedCol }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in shown" :key="one.entry">
          <th scope="row">
            {{ dayOfMonth(one.on) }}
            <RouterLink :to="{ name: 'logged', params: { id: one.entry } }">{{ one.title }}</RouterLink>
          </th>
          <td>{{ one.estimated === null ? '–' : tenth(one.estimated) }}</td>
          <td>{{ tenth(one.rated) }}</td>
        </tr>
      </tbody>
    </table>
    <button v-if="!all && rated.length > SHOWN" type="button" class="link" @click="all = true">
      {{ say.more(rated.length - SHOWN) }}
    </button>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped src="./ledger.css"></style>
