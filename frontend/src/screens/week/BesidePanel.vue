<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { Week } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import { daysOn, fullDate } from '@/words/dates'
import { clock, signed, whole } from '@/words/format'
import { figureText } from '@/words/week'
import { BESIDE_PANEL as say } from '@/words/texts/week'

// This plan against another week's: what each comes to, and by how much they differ.
const props = defineProps<{ week: Week }>()
const back = ref(0)
const other = computed(() => (back.value ? daysOn(props.week.begins, back.value * 7) : ''))
const { data, error } = useQuery(
  {
    queryKey: computed(() => [...KEYS.week(), 'beside', props.week.squad, props.week.begins, other.value]),
    queryFn: ({ queryKey: [, , squad, begins, day] }) => api.beside(String(begins), String(day), Number(squad)),
    enabled: computed(() => other.value !== ''),
  },
  queryClient,
)
// Another plan of this week is another answer.
watch(
  () => props.week,
  () => void askAgain([...KEYS.week(), 'beside']),
)
const beside = computed(() => (other.value ? (data.value ?? null) : null))
const trouble = troubleOf(error)
const weeks = computed(() => [
  { value: 0, label: say.noOtherWeek },
  ...[-1, -2, -3, -4, 1].map((by) => {
    const name = by === -1 ? say.lastWeek : by === 1 ? say.nextWeek : say.weeksAgo(-by)
    return { value: by, label: `${name} (${fullDate(daysOn(props.week.begins, by * 7))})` }
  }),
])
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
  <section class="beside" :aria-label="say.besideAnotherWeek">
    <ChoiceField v-model="back" :label="say.beside" :said="say.besideSaid" :options="weeks" />
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <table v-if="lines.length">
      <thead>
        <tr>
          <td></td>
          <th scope="col">{{ say.this }}</th>
          <th scope="col">{{ say.that }}</th>
          <th scope="col">{{ say.by }}</th>
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
