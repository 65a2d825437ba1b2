<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton } from 'element-plus'
import { computed, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { queryClient, troubleOf } from '@/api/query'
import type { Body, CompareIn, Placed, Placing } from '@/api/types'
import { daysOn, fullDate, shortDay } from '@/words/dates'
import { whole } from '@/words/format'
import { PLACING_PANEL as say } from '@/words/texts/side-by-side'

// Each format that stands in the table put on each free day of the squad's week.
const props = defineProps<{ body: CompareIn; shown: readonly string[] }>()
/** The question that is under way or answered: the formats in the table, in the week of a day (null: the next one). */
const asked = shallowRef<{ body: Body<'PlacingIn'>; about: string } | null>(null)
const about = computed(() => JSON.stringify([{ ...props.body, document: null, axes: null }, props.shown]))
// Another question: the table of the last one says nothing of it.
watch(about, () => (asked.value = null))
const { data, error, isFetching } = useQuery(
  {
    queryKey: computed(() => ['placing', asked.value?.about ?? '', JSON.stringify(asked.value?.body)]),
    queryFn: async ({ queryKey, signal }) => {
      const body = JSON.parse(String(queryKey[2])) as Body<'PlacingIn'>
      return (await api.placeFormats(body, signal)).placing
    },
    enabled: computed(() => asked.value !== null),
    placeholderData: (before: Placing | undefined, query) =>
      query?.queryKey[1] === asked.value?.about ? before : undefined,
    gcTime: 0,
  },
  queryClient,
)
const placing = computed(() => (asked.value ? (data.value ?? null) : null))
const busy = computed(() => asked.value !== null && isFetching.value)
const trouble = troubleOf(error)

function go(by: number): void {
  const day = placing.value ? daysOn(placing.value.begins, 7 * by) : null
  asked.value = { body: { ...props.body, formats: [...props.shown], day }, about: about.value }
}
const free = computed(() => placing.value?.days.filter((one) => one.why === null) ?? [])
const onDay = (days: readonly Placed[], day: string): Placed | undefined => days.find((one) => one.day === day)
const band = computed(() => {
  const one = placing.value
  return one && one.low !== null && one.high !== null && one.low !== undefined && one.high !== undefined
    ? say.to(whole(one.low), whole(one.high))
    : ''
})
function overText(one: Placed): string {
  if (one.off === null || one.off === undefined) return ''
  if (one.off > 0) return say.overTheBand(whole(one.off))
  return one.off < 0 ? say.underTheBand(whole(-one.off)) : say.withinTheBand
}
function clashTexts(one: Placed): string[] {
  return one.clashes.map((clash) => {
    const other = clash.first === 'new' ? clash.second : clash.first
    const what = [...clash.patterns, ...clash.joints].slice(0, 3).join(', ')
    return say.clashesWith(placing.value?.titles[other] ?? say.another, what, Math.round(clash.hours))
  })
}
</script>

<template>
  <section class="placing" :aria-label="say.intoTheWeek">
    <h2>{{ say.intoTheWeek }}</h2>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="!placing">
      <ElButton :loading="busy" @click="go(0)">{{ say.putEachOnEachFree }}</ElButton>
      <span class="quiet">{{ say.toSeeWhatItWould }}</span>
    </p>
    <template v-else>
      <p class="bar">
        <ElButton :disabled="busy" @click="go(-1)">{{ say.weekBefore }}</ElButton>
        <b>{{ say.weekOf(fullDate(placing.begins)) }}</b>
        <ElButton :disabled="busy" @click="go(1)">{{ say.weekAfter }}</ElButton>
        <span>{{ say.planned(whole(placing.planned_load), band ? say.theBandIs(band) : say.noBandIsSet) }}</span>
      </p>
      <p v-if="free.length === 0" class="quiet">{{ say.noDayOfThisWeek }}</p>
      <div v-else class="scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">{{ say.format }}</th>
              <th v-for="one in placing.days" :key="one.day" scope="col" :class="{ taken: one.why }">
                {{ shortDay(one.day) }} <small v-if="one.why">{{ one.why }}</small>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in placing.formats" :key="one.key">
              <th scope="row">
                {{ one.name }}<small>{{ say.load(whole(one.load)) }}</small>
              </th>
              <td v-for="day in placing.days" :key="day.day" :class="{ taken: day.why }" :data-day="shortDay(day.day)">
                <template v-if="onDay(one.days, day.day)">
                  <b>{{ whole(onDay(one.days, day.day)?.week_load ?? 0) }}</b>
                  <small :class="{ off: (onDay(one.days, day.day)?.off ?? 0) !== 0 }">{{
                    overText(onDay(one.days, day.day) as Placed)
                  }}</small>
                  <small v-for="text in clashTexts(onDay(one.days, day.day) as Placed)" :key="text" class="off">{{
                    text
                  }}</small>
                  <small v-if="onDay(one.days, day.day)?.hard_beside_hard" class="off">{{ say.hardBesideHard }}</small>
                </template>
                <span v-else class="none" aria-hidden="true">·</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet">{{ say.theNumberIsTheWeeks }}</p>
    </template>
  </section>
</template>

<style scoped>
h2 {
  font-size: 19px;
}
.placing {
  margin-top: 22px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
.bar :deep(.el-button + .el-button) {
  margin-left: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  min-width: 720px;
  table-layout: fixed;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 4px 8px;
  border-bottom: 1px dotted var(--rule);
  font-weight: 400;
}
thead th {
  border-bottom: 2px solid var(--ink);
  font: 600 16px var(--head);
}
b {
  font: 600 18px/1.15 var(--head);
}
td small,
th[scope='row'] small {
  display: block;
  color: var(--mute);
  font-size: 12px;
  line-height: 1.25;
}
td small.off {
  color: var(--warn);
}
.taken,
.none,
.quiet {
  color: var(--mute);
}
.quiet {
  font-size: 13px;
}
/* On a phone the days of a format stand one under another. */
@media (max-width: 640px) {
  table {
    min-width: 0;
  }
  thead {
    display: none;
  }
  tr,
  th[scope='row'] {
    display: block;
  }
  th[scope='row'] {
    font: 600 17px var(--head);
    border-bottom: 1px solid var(--ink);
    margin-top: 10px;
  }
  td {
    display: grid;
    grid-template-columns: 72px 60px 1fr;
    gap: 0 8px;
  }
  td small {
    grid-column: 3;
  }
  td::before {
    content: attr(data-day);
  }
  td.taken {
    display: none;
  }
}
</style>
