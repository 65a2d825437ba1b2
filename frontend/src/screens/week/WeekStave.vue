<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

import type { Outcome, Week } from '@/api/types'
import { inkLevel } from '@/stave/scale'
import { shortDay } from '@/words/dates'
import { clock, whole } from '@/words/format'
import { WEEK_STAVE as say } from '@/words/texts/week'

// The days of a week as a stave. With `outcome`, what is proposed: the week as it is pale, as it would be in ink.
const props = defineProps<{ week: Week; outcome?: Outcome | null }>()
const load = computed(() => (props.outcome ?? props.week).load)
const rows = computed(() => (props.outcome ?? props.week).rows)

const LEFT = 74
const WIDE = 868
const SUMS = 74
const ROW = 24
const DAYS = 7
const COLUMN = (WIDE - LEFT - SUMS) / DAYS
const HIGH = 120
const top = computed(() => props.week.rows.length * ROW + 16)
const base = computed(() => top.value + HIGH)
/** The longest bar of any row and day fills its place. */
const longest = computed(() => Math.max(1, ...[...props.week.rows, ...rows.value].flatMap((row) => row.days)))
const heaviest = computed(() =>
  Math.max(
    1,
    ...[...props.week.load.days, ...load.value.days].map((day) => day.totals['load'] ?? 0),
    ...props.week.days.map((day) => day.intended ?? 0),
  ),
)
const across = scaleLinear([0, DAYS], [LEFT + 4, LEFT + 4 + DAYS * COLUMN])
const x = (day: number): number => across(day)
const bars = computed(() => scaleLinear([0, longest.value], [0, COLUMN - 40]))
const bar = (seconds: number): number => bars.value(seconds)
const loads = computed(() => scaleLinear([0, heaviest.value], [0, HIGH - 14]))
const rise = (load: number): number => loads.value(load)
const inMinutes = (seconds: number): string => (seconds < 570 ? (seconds / 60).toFixed(1) : whole(seconds / 60))
const targetText = (row: Week['rows'][number]): string =>
  row.target === null ? '' : row.off === 0 ? say.within : row.off < 0 ? say.under : say.over
/** A bar that the proposal changes. */
const moved = (row: number, day: number): boolean =>
  Math.round(rows.value[row]?.days[day] ?? 0) !== Math.round(props.week.rows[row]?.days[day] ?? 0)
/** A day that the proposal changes. */
const differs = (day: number): boolean =>
  Math.round(load.value.days[day]?.totals['load'] ?? 0) !== Math.round(props.week.load.days[day]?.totals['load'] ?? 0)
const told = computed(() =>
  load.value.days
    .map((day) => say.dayHas(shortDay(day.day), whole(day.totals['load'] ?? 0), day.hard ? say.hard : ''))
    .join('; '),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${base + 4}`" role="img" :aria-label="say.staveOfTheWeek(told)">
    <g v-for="(row, index) in rows" :key="row.name">
      <rect
        :x="LEFT"
        :y="index * ROW"
        :width="WIDE - LEFT"
        :height="ROW"
        :fill="index % 2 ? 'var(--paper)' : 'var(--paper-2)'"
      />
      <text x="0" :y="index * ROW + 16">{{ row.name }}</text>
      <template v-for="(seconds, day) in row.days" :key="day">
        <rect
          v-if="outcome && moved(index, day) && (week.rows[index]?.days[day] ?? 0) > 0"
          :x="x(day)"
          :y="index * ROW + 2"
          :width="bar(week.rows[index]?.days[day] ?? 0)"
          :height="ROW - 4"
          class="before"
        />
        <template v-if="seconds > 0">
          <rect
            :x="x(day)"
            :y="index * ROW + (outcome && moved(index, day) ? 6 : 4)"
            :width="bar(seconds)"
            :height="ROW - (outcome && moved(index, day) ? 12 : 8)"
            :fill="`var(--e${inkLevel(load.days[day]?.effort ?? 0)})`"
          />
          <text :x="x(day) + bar(seconds) + 4" :y="index * ROW + 16" class="small">{{ inMinutes(seconds) }}</text>
        </template>
      </template>
      <text :x="WIDE" :y="index * ROW + 17" class="sum">{{ clock(row.work_s) }}</text>
      <text v-if="targetText(row)" :x="WIDE - SUMS + 4" :y="index * ROW + 16" class="small">{{ targetText(row) }}</text>
    </g>
    <text x="0" :y="base - 40">{{ say.load }}</text>
    <g v-for="(day, number) in load.days" :key="day.day">
      <rect
        v-if="outcome && differs(number) && week.load.days[number]?.totals['load']"
        :x="x(number)"
        :y="base - rise(week.load.days[number]?.totals['load'] ?? 0)"
        :width="COLUMN * 0.52"
        :height="rise(week.load.days[number]?.totals['load'] ?? 0)"
        class="before"
      />
      <rect
        v-if="day.totals['load']"
        :x="x(number) + (outcome && differs(number) ? COLUMN * 0.1 : 0)"
        :y="base - rise(day.totals['load'])"
        :width="COLUMN * (outcome && differs(number) ? 0.32 : 0.52)"
        :height="rise(day.totals['load'])"
        :fill="`var(--e${inkLevel(day.effort)})`"
      />
      <path
        v-if="week.days[number]?.intended"
        :d="`M${x(number) - 3} ${base - rise(week.days[number]?.intended ?? 0)}h${COLUMN * 0.6}`"
        class="intended"
      />
      <text :x="x(number) + COLUMN * 0.56" :y="base - 34" class="intent">{{ week.days[number]?.intent }}</text>
      <text v-if="outcome && differs(number)" :x="x(number) + COLUMN * 0.56" :y="base - 19" class="small">
        {{ say.was(whole(week.load.days[number]?.totals['load'] ?? 0)) }}
      </text>
      <text
        v-if="day.totals['load'] || (outcome && differs(number))"
        :x="x(number) + COLUMN * 0.56"
        :y="base - 4"
        class="load"
      >
        {{ whole(day.totals['load'] ?? 0) }}
      </text>
      <text v-if="day.hard" :x="x(number)" :y="base - rise(day.totals['load'] ?? 0) - 4" class="small">
        {{ say.hardDay }}
      </text>
    </g>
    <line :x1="LEFT" :x2="WIDE" :y1="base" :y2="base" stroke="var(--ink)" />
  </svg>
  <p v-if="outcome" class="key">{{ say.beforePaleAfterInInk }}</p>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
text {
  font: 12.5px var(--text);
  fill: var(--ink);
}
.small {
  font-size: 11.5px;
  fill: var(--mute);
}
.sum,
.load {
  font: 600 16px var(--head);
}
.sum {
  text-anchor: end;
}
.before {
  fill: var(--rule);
  stroke: var(--field);
  stroke-width: 0.7;
  stroke-dasharray: 2 2;
}
.key {
  margin: 2px 0 0;
  color: var(--mute);
  font-size: 13px;
}
.intended {
  stroke: var(--act);
  stroke-width: 2;
  stroke-dasharray: 3 3;
  fill: none;
}
.intent {
  fill: var(--act);
  font-size: 12px;
}
</style>
