<script setup lang="ts">
import { computed } from 'vue'

import type { LogLine } from '@/api/types'
import { longDay, shortDay } from '@/words/dates'
import { tenth, whole } from '@/words/format'
import { LOG_LINES as say, LOG_SCREEN } from '@/words/texts/log'

// What was logged, week by week, the latest first.
const props = defineProps<{ lines: readonly LogLine[]; own: boolean }>()
const weeks = computed(() => {
  const found = new Map<string, LogLine[]>()
  for (const line of props.lines) found.set(line.week, [...(found.get(line.week) ?? []), line])
  return [...found]
})
const HOW: Readonly<Record<string, string>> = { run: say.wasRun, planned: say.asPlanned }
const marks = (one: LogLine): string =>
  [
    HOW[one.how] ?? '',
    one.results > 1 ? say.scores(one.results) : one.results ? say.oneScore : '',
    one.away ? say.away(one.away) : '',
    one.notes > 1 ? say.notes(one.notes) : one.notes ? say.oneNote : '',
  ]
    .filter(Boolean)
    .join(' · ')
const rated = (one: LogLine): string =>
  one.rated === null ? '–' : props.own ? say.own(tenth(one.rated)) : String(one.ratings)
const differs = (one: number | null, other: number): boolean => one !== null && Math.abs(one - other) >= 0.5
</script>

<template>
  <section v-for="[begins, entries] in weeks" :key="begins" :aria-label="LOG_SCREEN.weekOf(longDay(begins))">
    <h2>{{ LOG_SCREEN.weekOf(longDay(begins)) }}</h2>
    <table>
      <thead>
        <tr>
          <th scope="col" class="day">{{ say.day }}</th>
          <th scope="col">{{ say.session }}</th>
          <th scope="col" class="number">{{ say.minutes }}</th>
          <th scope="col" class="number">{{ say.effort }}</th>
          <th scope="col" class="number">{{ say.load }}</th>
          <th scope="col" class="number">{{ say.rated }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in entries" :key="one.id">
          <td class="day">{{ shortDay(one.day) }}</td>
          <td>
            <RouterLink :to="{ name: 'logged', params: { id: one.id } }">{{ one.title }}</RouterLink>
            <small>
              {{ marks(one) }}
              <b v-if="one.disputed" class="look">· {{ say.disputed(one.disputed) }}</b>
            </small>
          </td>
          <td class="number">
            <b>{{ whole(one.minutes ?? 0) }}</b>
            <small v-if="differs(one.minutes, one.planned_minutes)">{{
              say.ofPlanned(whole(one.planned_minutes))
            }}</small>
          </td>
          <td class="number">
            <b>{{ tenth(one.effort ?? 0) }}</b>
            <small v-if="differs(one.effort, one.planned_effort)">{{ say.ofPlanned(tenth(one.planned_effort)) }}</small>
          </td>
          <td class="number">
            <b>{{ whole(one.load ?? 0) }}</b>
          </td>
          <td class="number">{{ rated(one) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  table-layout: fixed;
}
th.number {
  width: 96px;
  text-align: right;
  padding-right: 10px;
}
th.day {
  width: 4.8em;
}
th {
  text-align: left;
  font: 500 13px var(--head);
  color: var(--mute);
}
td {
  border-top: 1px solid var(--rule);
  padding: 4px 10px 4px 0;
  vertical-align: top;
}
.number {
  text-align: right;
  white-space: nowrap;
}
b {
  font: 600 17px/1.2 var(--head);
}
small {
  color: var(--mute);
  margin-left: 6px;
}
.look {
  font: 600 13px var(--text);
  color: var(--warn);
}
@media (max-width: 700px) {
  small {
    display: block;
    margin: 0;
  }
  td {
    padding-right: 6px;
  }
  th.number {
    width: 48px;
    padding-right: 6px;
  }
  th.day {
    width: 3.9em;
  }
}
</style>
