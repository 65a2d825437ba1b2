<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { max } from 'd3-array'
import { scaleLinear, scaleQuantize } from 'd3-scale'
import { line } from 'd3-shape'
import { ElButton, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { SeasonWeek } from '@/api/types'
import { plansHere, squadNow, squadOwn } from '@/composables/useAccount'
import { useGroups, usePeople } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { daysOn, fullDate, shortDay, today } from '@/words/dates'
import { clock, whole } from '@/words/format'
import { figureText, termsText } from '@/words/week'
import { SEASON_SCREEN as say } from '@/words/texts/week'

import { askedFor } from './useWeek'
import { whoseChoices } from './whose'

const route = useRoute()
const router = useRouter()
const WIDE = 1000
const LEFT = 64
const ROW = 15
const HIGH = 120
const INKS = [0, 1, 2, 3, 4]
const weeks = computed(() => Math.min(53, Math.max(1, Number(route.query.weeks ?? 13) || 13)))
const from = computed(() =>
  /^\d{4}-\d\d-\d\d$/.test(String(route.query.day ?? '')) ? String(route.query.day) : daysOn(today(), -8 * 7),
)
/** Whose season: '' the squad's, else `group:3` or `person:…`, carried along from the week. */
const whose = computed(() => String(route.query.whose ?? ''))
const planned = computed(() => (plansHere.value ? squadNow.value : 0))
const { people } = usePeople(planned)
const { groups } = useGroups(planned)
const choices = computed(() => whoseChoices(squadOwn.value?.name ?? '', groups.value, people.value))
const called = computed(() => choices.value.find((one) => one.value === whose.value)?.label ?? '')
const { data, error } = useQuery(
  {
    queryKey: computed(() => [...KEYS.season(), squadNow.value, from.value, weeks.value, whose.value]),
    queryFn: ({ queryKey: [, squad, day, count, asked] }) =>
      api.season(String(day), Number(count), Number(squad), askedFor(String(asked))),
    placeholderData: keepPreviousData,
  },
  queryClient,
)
const season = computed(() => data.value?.weeks ?? null)
const trouble = troubleOf(error)
const COUNTS = [8, 13, 26, 52].map((count) => ({ value: count, label: `${count} weeks` }))
const ofWhom = (of: string): { whose?: string } => (of ? { whose: of } : {})
const go = (day: string, count: number, of = whose.value) =>
  router.push({ name: 'season', query: { day, weeks: String(count), ...ofWhom(of) } })
const open = (week: SeasonWeek) => router.push({ name: 'week', query: { day: week.begins, ...ofWhom(whose.value) } })

const names = computed(() => Object.keys(season.value?.[0]?.rows ?? {}))
const across = computed(() => scaleLinear([0, Math.max(1, season.value?.length ?? 1)], [LEFT, WIDE]))
const x = (index: number): number => across.value(index)
const column = computed(() => x(1) - x(0))
const most = computed(() => Math.max(1, max(season.value ?? [], (week) => max(Object.values(week.rows))) ?? 1))
const heaviest = computed(() =>
  Math.max(1, max(season.value ?? [], (week) => Math.max(week.load, week.high ?? 0)) ?? 1),
)
const top = computed(() => names.value.length * ROW + 26)
const base = computed(() => top.value + HIGH)
const up = computed(() => scaleLinear([0, heaviest.value], [base.value, base.value - (HIGH - 10)]))
const y = (load: number): number => up.value(load)
// The ink of a row in a week: the more of it, the darker, beside the season's most.
const inks = computed(() => scaleQuantize([0, most.value], INKS))
const ink = (seconds: number): number => inks.value(seconds)
// A week in which nothing is planned is no week of load 0: the line pauses there.
const loadLine = computed(
  () =>
    line<SeasonWeek>()
      .defined((week) => week.entries > 0)
      .x((_, index) => x(index + 0.5))
      .y((week) => y(week.load))(season.value ?? []) ?? undefined,
)
/** Where a week stands to its band: in words, and marked on the line. */
const against = (week: SeasonWeek): string => {
  if (week.off === null) return ''
  const band = bandText(week)
  if (week.off > 0) return say.overTheBand(band)
  return week.off < 0 ? say.underTheBand(band) : say.withinTheBand(band)
}
const bandText = ({ low, high }: SeasonWeek): string =>
  low !== null && high !== null ? `${whole(low)} – ${whole(high)}` : ''
const pointed = ref<number | null>(null)
/** The week that is told in a line: the one pointed at, or else the present one. */
const told = computed(() => season.value?.[pointed.value ?? season.value.findIndex(isNow)])
const reasons = (week: SeasonWeek): string =>
  [
    say.weekOfIs(fullDate(week.begins), week.entries ? whole(week.load) : say.nothingPlanned),
    against(week),
    week.change.value === null ? '' : say.againstBefore(figureText(week.change, 'change')),
    week.acwr_coupled.value === null ? '' : say.rollingIs(figureText(week.acwr_coupled, 'ratio')),
    week.hard_days ? say.hardDaysAre(week.hard_days) : '',
    week.clashes ? say.clashesAre(week.clashes) : '',
  ]
    .filter(Boolean)
    .join(' · ')
function keys(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  const weeks = season.value
  if (!weeks) return
  if (event.key === 'Enter' && told.value) void open(told.value)
  if (by === undefined) return
  event.preventDefault()
  const at = pointed.value ?? weeks.findIndex(isNow)
  pointed.value = Math.min(weeks.length - 1, Math.max(0, at + by))
}
const everyNth = computed(() => Math.ceil((season.value?.length ?? 1) / 14))
const isNow = (week: SeasonWeek): boolean => today() >= week.begins && today() < daysOn(week.begins, 7)
</script>

<template>
  <main id="main" class="season prints-wide">
    <header>
      <h1>{{ called ? say.seasonOf(called) : say.season }}</h1>
      <ChoiceField
        v-if="people.length"
        :model-value="whose"
        :label="say.whoseSeason"
        :options="choices"
        @update:model-value="go(from, weeks, $event ?? '')"
      />
      <span class="grow"></span>
      <RouterLink :to="{ name: 'week', query: ofWhom(whose) }">{{ say.toTheWeek }}</RouterLink>
      <ElButton :aria-label="say.earlier" @click="go(daysOn(from, -7 * weeks), weeks)">◂</ElButton>
      <ElButton :aria-label="say.later" @click="go(daysOn(from, 7 * weeks), weeks)">▸</ElButton>
      <ChoiceField
        :model-value="weeks"
        :label="say.howManyWeeks"
        :options="COUNTS"
        @update:model-value="$event && go(from, $event)"
      />
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="!season" role="status" class="pad">
      <span class="visually-hidden">{{ say.readingTheSeason }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-else class="pad">
      <svg
        :viewBox="`0 0 ${WIDE} ${base + 34}`"
        role="img"
        tabindex="0"
        :aria-label="say.staveOfWeeksTheTable(season.length)"
        @keydown="keys"
        @mouseleave="pointed = null"
        @blur="pointed = null"
      >
        <g v-for="(name, row) in names" :key="name">
          <rect
            :x="LEFT"
            :y="row * ROW"
            :width="WIDE - LEFT"
            :height="ROW"
            :fill="row % 2 ? 'var(--paper)' : 'var(--paper-2)'"
          />
          <text x="0" :y="row * ROW + 11">{{ name }}</text>
          <template v-for="(week, index) in season" :key="week.begins">
            <rect
              v-if="(week.rows[name] ?? 0) > 0"
              :x="x(index) + 2"
              :y="row * ROW + 3"
              :width="Math.max(1, column - 4)"
              :height="ROW - 6"
              :fill="`var(--e${ink(week.rows[name] ?? 0)})`"
            />
          </template>
        </g>
        <g v-for="(week, index) in season" :key="week.begins">
          <rect
            v-if="week.low !== null && week.high !== null"
            :x="x(index)"
            :width="column"
            :y="y(week.high)"
            :height="Math.max(1, y(week.low) - y(week.high))"
            fill="var(--act)"
            opacity="0.16"
          />
          <text
            v-if="week.phase && week.phase !== season[index - 1]?.phase"
            :x="x(index) + 2"
            :y="top - 6"
            class="phase"
          >
            {{ week.phase }}
          </text>
          <line v-if="isNow(week)" :x1="x(index + 0.5)" :x2="x(index + 0.5)" :y1="0" :y2="base" class="now" />
          <text v-if="index % everyNth === 0" :x="x(index) + 2" :y="base + 15" class="tick">
            {{ shortDay(week.begins).slice(4) }} {{ fullDate(week.begins).split(' ')[1]?.slice(0, 3) }}
          </text>
          <circle
            v-if="week.entries"
            :cx="x(index + 0.5)"
            :cy="y(week.load)"
            :r="week.off ? 4.4 : 3.2"
            :class="{ off: week.off }"
          />
          <text v-if="week.off" :x="x(index + 0.5)" :y="y(week.load) - 8" class="state">
            {{ week.off > 0 ? say.over : say.under }}
          </text>
          <rect
            :x="x(index)"
            y="0"
            :width="column"
            :height="base"
            :class="{ pointed: told === week }"
            fill="transparent"
            @mouseenter="pointed = index"
            @click="open(week)"
          />
        </g>
        <text x="0" :y="base - 50">{{ say.load }}</text>
        <path :d="loadLine" class="line" />
        <line :x1="LEFT" :x2="WIDE" :y1="base" :y2="base" stroke="var(--ink)" />
      </svg>
      <p class="told" aria-live="polite">{{ told ? reasons(told) : '' }}</p>
      <div class="scroll" tabindex="0" role="group" :aria-label="say.theSeasonInFigures">
        <table>
          <thead>
            <tr>
              <th scope="col">{{ say.weekOf }}</th>
              <th scope="col">{{ say.loadColumn }}</th>
              <th scope="col">{{ say.band }}</th>
              <th scope="col">{{ say.change }}</th>
              <th scope="col">{{ say.monotony }}</th>
              <th scope="col">{{ say.rolling }}</th>
              <th scope="col">{{ say.before }}</th>
              <th scope="col">{{ say.weighted }}</th>
              <th scope="col">{{ say.hardDays }}</th>
              <th scope="col">{{ say.clashes }}</th>
              <th v-for="name in names" :key="name" scope="col">{{ name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="week in season" :key="week.begins" :class="{ present: isNow(week) }">
              <th scope="row">
                <button type="button" class="link" @click="open(week)">{{ fullDate(week.begins) }}</button><template
                  v-if="isNow(week)"
                >
                  {{ say.thisWeek }}</template
                >
              </th>
              <td>
                <b>{{ week.entries ? whole(week.load) : '–' }}</b>
              </td>
              <td>{{ bandText(week) }}</td>
              <td :title="termsText(week.change)">{{ week.entries ? figureText(week.change, 'change') : '–' }}</td>
              <td :title="termsText(week.monotony)">{{ figureText(week.monotony, 'ratio') }}</td>
              <td :title="termsText(week.acwr_coupled)">{{ figureText(week.acwr_coupled, 'ratio') }}</td>
              <td :title="termsText(week.acwr_uncoupled)">{{ figureText(week.acwr_uncoupled, 'ratio') }}</td>
              <td :title="termsText(week.acwr_ewma)">{{ figureText(week.acwr_ewma, 'ratio') }}</td>
              <td>{{ week.hard_days || '' }}</td>
              <td>{{ week.clashes || '' }}</td>
              <td v-for="name in names" :key="name">{{ week.rows[name] ? clock(week.rows[name]) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="./season.css"></style>
