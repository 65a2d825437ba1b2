<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PersonLog } from '@/api/types'
import { useMovements } from '@/composables/useMovements'
import { whole } from '@/words/format'
import { PERSON_LOG as say } from '@/words/texts/log'

// What was done of each movement in a year, and how long ago it was last.
const props = defineProps<{ movements: PersonLog['movements'] }>()
const { nameOf } = useMovements()
const SHOWN = 10
const all = ref(false)
const shown = computed(() => (all.value ? props.movements : props.movements.slice(0, SHOWN)))
const ago = (days: number): string => (days === 0 ? say.today : days === 1 ? say.yesterday : say.daysAgo(days))
</script>

<template>
  <section v-if="movements.length" :aria-label="say.movements">
    <h2>{{ say.movements }}</h2>
    <div class="wide" tabindex="0">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ say.movement }}</th>
            <th scope="col">{{ say.last }}</th>
            <th scope="col">{{ say.sessions }}</th>
            <th scope="col">{{ say.sets }}</th>
            <th scope="col">{{ say.called }}</th>
            <th scope="col">{{ say.paced }}</th>
            <th scope="col">{{ say.guessed }}</th>
            <th scope="col">{{ say.kg }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.key">
            <th scope="row">{{ nameOf(one.key) }}</th>
            <td>{{ ago(one.days_ago) }}</td>
            <td>{{ one.sessions }}</td>
            <td>{{ one.sets }}</td>
            <td>{{ one.reps.called ?? 0 }}</td>
            <td>{{ one.reps.paced ?? 0 }}</td>
            <td>{{ one.reps.estimated ?? 0 }}</td>
            <td>{{ whole(one.kg) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="!all && movements.length > SHOWN" type="button" class="link" @click="all = true">
      {{ say.more(movements.length - SHOWN) }}
    </button>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped src="./ledger.css"></style>
