<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import type { Beside, Week } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'
import { daysOn, fullDate } from '@/words/dates'
import { clock, signed, whole } from '@/words/format'
import { figureText } from '@/words/week'

// This plan against another week's: what each comes to, and by how much they differ.
const props = defineProps<{ week: Week }>()
const back = ref('')
const beside = shallowRef<Beside | null>(null)
const { trouble, attempt } = useAttempt()
const other = computed(() => (back.value ? daysOn(props.week.begins, Number(back.value) * 7) : ''))
const { ask } = useLatest()
watch([other, () => props.week], ([day, { begins, squad }]) => {
  beside.value = null
  void attempt(() =>
    ask(
      async () => (day ? api.beside(begins, day, squad) : null),
      (answer) => (beside.value = answer),
    ),
  )
})
const lines = computed(() => {
  const made = beside.value
  if (!made) return []
  const delta = (name: string, unit: 's' | 'count'): string => {
    const value = made.deltas[name]
    return value === undefined || Math.abs(value) < 0.005
      ? ''
      : signed(
          unit === 'count' ? (Math.abs(value) < 20 ? Math.round(value * 100) / 100 : Math.round(value)) : value,
          unit,
        )
  }
  return [
    {
      name: 'load',
      here: whole(made.load.totals['load'] ?? 0),
      there: whole(made.other.totals['load'] ?? 0),
      by: delta('load', 'count'),
    },
    {
      name: 'monotony',
      here: figureText(made.load.monotony, 'ratio'),
      there: figureText(made.other.monotony, 'ratio'),
      by: delta('monotony', 'count'),
    },
    ...['medium', 'high'].map((grade) => {
      const key = `landings-${grade}`
      return {
        name: `${grade} landings`,
        here: whole(made.load.totals[key] ?? 0),
        there: whole(made.other.totals[key] ?? 0),
        by: delta(key, 'count'),
      }
    }),
    ...made.rows.map((row, index) => ({
      name: row.name,
      here: clock(row.work_s),
      there: clock(made.other_rows[index]?.work_s),
      by: delta(`row.${row.name}`, 's'),
    })),
  ]
})
</script>

<template>
  <section class="beside" aria-label="Beside another week">
    <label
      >beside
      <select v-model="back">
        <option value="">no other week</option>
        <option v-for="weeks in [-1, -2, -3, -4, 1]" :key="weeks" :value="String(weeks)">
          {{ weeks === -1 ? 'last week' : weeks === 1 ? 'next week' : `${-weeks} weeks ago` }} ({{
            fullDate(daysOn(week.begins, weeks * 7))
          }})
        </option>
      </select>
    </label>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <table v-if="lines.length">
      <thead>
        <tr>
          <td></td>
          <th scope="col">this</th>
          <th scope="col">that</th>
          <th scope="col">by</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.name">
          <th scope="row">{{ line.name }}</th>
          <td>{{ line.here }}</td>
          <td>{{ line.there }}</td>
          <td>{{ line.by }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.beside {
  margin-top: 10px;
}
select {
  max-width: 100%;
}
@media print {
  .beside {
    display: none;
  }
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 4px;
}
th,
td {
  text-align: right;
  font-weight: 400;
  padding: 1px 0;
}
th:first-child {
  text-align: left;
  color: var(--mute);
}
</style>
