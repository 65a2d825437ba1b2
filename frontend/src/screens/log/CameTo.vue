<script setup lang="ts">
import { computed } from 'vue'

import type { LogEntry, LoggedRun } from '@/api/types'
import { clock, percent, tenth, whole } from '@/words/format'
import { CAME_TO as say } from '@/words/texts/log'

// Planned and done beside each other. What was counted is never mixed with what is estimated.
const props = defineProps<{ page: LogEntry; run: LoggedRun | null }>()
type Row = [name: string, planned: string, done: string]
const done = computed(() => props.run?.figures ?? props.page.done ?? (props.page.logged ? props.page.planned : null))
const effortName = computed(() => {
  switch (props.page.effort_from) {
    case 'ratings':
      return say.ratedBy(props.page.ratings)
    case 'group':
      return say.groupRated
    case 'typed':
      return say.typedEffort
    default:
      return say.effort
  }
})
const rows = computed<Row[]>(() => {
  const { page } = props
  const planned = page.planned
  const made = done.value
  const minutes = page.minutes === null ? '' : clock(page.minutes * 60)
  const length = page.logged ? minutes : made ? clock(props.run?.session_s ?? made.total_s) : ''
  const effort = page.logged ? tenth(page.effort ?? 0) : made ? tenth(made.effort) : ''
  const load = page.logged ? whole(page.load ?? 0) : made ? whole(made.load) : ''
  const first: Row[] = [
    [say.length, clock(planned?.total_s ?? page.planned_minutes * 60), length],
    [effortName.value, tenth(planned?.effort ?? page.planned_effort), effort],
    [say.load, whole(planned?.load ?? page.planned_load), load],
  ]
  if (!planned) return first
  const reps = (['counted', 'called', 'paced', 'estimated'] as const)
    .filter((kind) => (planned.reps[kind] ?? 0) + (made?.reps[kind] ?? 0) > 0)
    .map((kind): Row => {
      const name = kind === 'estimated' ? say.guessed : say[kind]
      return [name, String(planned.reps[kind] ?? 0), made ? String(made.reps[kind] ?? 0) : '']
    })
  return [
    first[0] as Row,
    [say.work, clock(planned.work_s), made ? clock(made.work_s) : ''],
    [say.density, percent(planned.density), made ? percent(made.density) : ''],
    ...reps,
    ...first.slice(1),
  ]
})
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="page.planned?.told_s" class="said">{{ say.told(clock(page.planned.told_s)) }}</p>
    <table>
      <thead>
        <tr>
          <th scope="col">
            <span class="visually-hidden">{{ say.what }}</span>
          </th>
          <th scope="col">{{ say.planned }}</th>
          <th scope="col">{{ say.done }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[name, planned, made] in rows" :key="name">
          <th scope="row">{{ name }}</th>
          <td class="planned">{{ planned }}</td>
          <td>{{ made }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
h2 {
  border: 0;
  margin: 0;
}
thead th {
  font: 500 13px var(--head);
  text-align: right;
  color: var(--mute);
}
tbody th {
  font-weight: 400;
  text-align: left;
}
tbody tr {
  border-top: 1px dotted var(--rule);
}
td,
tbody th {
  padding: 4px 0;
}
td {
  font: 600 17px/1.2 var(--head);
  text-align: right;
  padding-left: 12px;
}
.planned {
  color: var(--mute);
}
</style>
