<script setup lang="ts">
import { scaleLinear } from 'd3-scale'

import type { ScoreLine } from '@/api/types'
import { scoreText } from '@/words/scores'
import { dayOfMonth } from '@/words/dates'
import { PERSON_LOG as say } from '@/words/texts/log'

// Scores of the same work over time: the latest, the best, and the course of the pace, higher is quicker.
defineProps<{ lines: readonly ScoreLine[] }>()
const WIDE = 130
const HIGH = 34
/** More would be a scribble. */
const MOST_POINTS = 40
function course(line: ScoreLine): string {
  const factors = line.points.slice(-MOST_POINTS).flatMap((one) => (one.factor === null ? [] : [one.factor]))
  const low = Math.min(...factors)
  const high = Math.max(...factors)
  const y = scaleLinear([low, high === low ? low + 1 : high], [5, HIGH - 5])
  const x = scaleLinear([0, Math.max(1, factors.length - 1)], [5, WIDE - 5])
  return factors.map((one, index) => `${x(index).toFixed(1)},${y(one).toFixed(1)}`).join(' ')
}
</script>

<template>
  <section :aria-label="say.ofShape">
    <h2>{{ say.ofShape }}</h2>
    <p v-if="lines.length === 0" class="said">{{ say.noScores }}</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">{{ say.work }}</th>
          <th scope="col">{{ say.latest }}</th>
          <th scope="col">{{ say.best }}</th>
          <th scope="col">{{ say.course }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, index) in lines" :key="index">
          <th scope="row">{{ line.title }}</th>
          <td v-for="latest in [line.points.at(-1)]" :key="latest?.entry ?? ''">
            <RouterLink v-if="latest" :to="{ name: 'logged', params: { id: latest.entry } }"
              ><b>{{ scoreText(latest.score) }}</b></RouterLink
            >
            <small v-if="latest">{{ dayOfMonth(latest.on) }}</small>
          </td>
          <td>
            <b>{{ scoreText(line.best) }}</b>
          </td>
          <td>
            <svg
              v-if="line.points.length > 1"
              :width="WIDE"
              :height="HIGH"
              role="img"
              :aria-label="say.courseOf(Math.min(MOST_POINTS, line.points.length))"
            >
              <polyline :points="course(line)" />
            </svg>
          </td>
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
}
thead th {
  text-align: left;
  font: 500 13px var(--head);
  color: var(--mute);
}
tbody th {
  text-align: left;
  font-weight: 400;
}
td,
tbody th {
  border-top: 1px solid var(--rule);
  padding: 3px 10px 3px 0;
}
b {
  font: 600 18px/1.2 var(--head);
}
small {
  display: block;
  color: var(--mute);
}
polyline {
  fill: none;
  stroke: var(--e3);
  stroke-width: 2;
}
</style>
