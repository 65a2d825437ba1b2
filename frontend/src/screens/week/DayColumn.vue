<script setup lang="ts">
import { computed, defineAsyncComponent, useTemplateRef } from 'vue'

import type { DayPlan, NewEntry, PersonOut, Week } from '@/api/types'
import { useSorting } from '@/composables/useSorting'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { daysOn, longDay, shortDay, today } from '@/words/dates'
import { whole } from '@/words/format'
import { DAY_COLUMN as say } from '@/words/texts/week'

import EntryCard from './EntryCard.vue'

// A day of the week: what it is meant to be, and what stands on it. Entries are dragged from day to day, or moved by keys.
const props = defineProps<{
  week: Week
  number: number
  editable: boolean
  proposed: ReadonlySet<string>
  people: readonly PersonOut[]
  opened: string
  adding: boolean
}>()
const emit = defineEmits<{
  open: [id: string]
  set: [body: DayPlan]
  move: [id: string, to: string]
  adding: [on: boolean]
  put: [body: NewEntry]
}>()
const AddEntry = defineAsyncComponent(() => import('./AddEntry.vue'))
const { choicesOf } = useTables()

const NONE = { day: '', intent: '', share: null, hall: true, intended: null }
const one = computed(() => props.week.days[props.number] ?? NONE)
const entries = computed(() => props.week.entries.filter((entry) => entry.day === one.value.day))
const nameOf = (id: string | null): string =>
  id === null ? '' : (props.people.find((each) => each.id === id)?.name ?? say.onePerson)
const AWAY = { rest: say.awayRest, unknown: 'away' } as const
const load = computed(() => props.week.load.days[props.number])
const away = computed(() => (load.value?.away ? AWAY[load.value.away] : ''))

const set = (change: Partial<DayPlan>): void => {
  const { intent, share, hall } = one.value
  emit('set', { intent, share, hall, ...change })
}
const percent = computed(() => (one.value.share === null ? null : Math.round(one.value.share * 100)))

const list = useTemplateRef<HTMLElement>('list')
useSorting(list, { group: 'entries', draggable: '.movable', ordered: false }, ({ item, to }) => {
  const { entry } = item.dataset
  const day = to.dataset.day
  if (entry && day) emit('move', entry, day)
})
</script>

<template>
  <section class="day" :class="{ today: one.day === today() }" :aria-label="longDay(one.day)">
    <h2>
      {{ shortDay(one.day) }} <small v-if="one.intended">{{ say.of(whole(one.intended)) }}</small>
    </h2>
    <p class="intent">
      <template v-if="editable">
        <ChoiceField
          :model-value="one.intent"
          :label="say.intentOf(longDay(one.day))"
          :options="choicesOf('intents', say.noIntent)"
          @update:model-value="set({ intent: $event ?? '' })"
        />
        <NumberField
          v-if="one.intent && one.intent !== 'rest'"
          :model-value="percent"
          :label="say.shareOfTheWeekOn(longDay(one.day))"
          :max="100"
          placeholder="%"
          :unit="percent === null ? '' : '%'"
          class="share"
          :class="{ none: percent === null }"
          @change="set({ share: $event === null ? null : $event / 100 })"
        />
      </template>
      <span v-else>{{ one.intent }}</span>
      <button
        v-if="editable"
        type="button"
        class="plain hall"
        :class="{ without: !one.hall }"
        :aria-pressed="one.hall"
        @click="set({ hall: !one.hall })"
      >
        {{ one.hall ? say.hall : say.noHall }}<span class="visually-hidden">{{ say.on(longDay(one.day)) }}</span>
      </button>
    </p>
    <p v-if="away" class="said rest">{{ away }}{{ load?.entries ? say.yetThisCounts : '' }}</p>
    <div ref="list" class="entries" :data-day="one.day">
      <EntryCard
        v-for="entry in entries"
        :key="entry.id"
        :entry="entry"
        :hard="week.hard_effort"
        :proposed="proposed.has(entry.id)"
        :editable="editable"
        :open="opened === entry.id"
        :whose="nameOf(entry.person)"
        @toggle="emit('open', entry.id)"
        @move="(by) => emit('move', entry.id, daysOn(one.day, by))"
      />
      <p v-if="!entries.length && !away" class="said rest">{{ one.intent === 'rest' ? say.rest : say.nothing }}</p>
    </div>
    <AddEntry v-if="adding" :day="one.day" @add="emit('put', $event)" @close="emit('adding', false)" />
    <button v-else-if="editable" type="button" class="link put" @click="emit('adding', true)">
      {{ say.add }}<span class="visually-hidden">{{ say.to(longDay(one.day)) }}</span>
    </button>
  </section>
</template>

<style scoped>
.day {
  border-top: 2px solid var(--ink);
  padding-top: 5px;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.day.today {
  border-top-color: var(--act);
}
.day.today h2::after {
  content: ' · today';
  font-weight: 400;
}
h2 {
  font-size: 15px;
}
h2 small {
  font: 400 12px var(--text);
  color: var(--act);
}
/* One quiet row: what the day is meant to be, its share, the hall. Lines come when one points at it. */
.intent {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  align-items: center;
  margin: 0 0 5px;
  color: var(--mute);
  font-size: 12.5px;
}
.intent :deep(.choice) {
  flex: 1 1 48px;
  min-width: 48px;
}
.intent :deep(.el-select) {
  width: 100% !important;
}
.share {
  gap: 1px;
}
.share :deep(.el-input__wrapper) {
  padding: 0;
}
.intent :deep(.el-select__wrapper) {
  font-size: 12.5px;
}
.intent:not(:hover, :focus-within) :deep(.el-select__wrapper),
.intent:not(:hover, :focus-within) :deep(.el-input__wrapper) {
  border-bottom-color: transparent;
}
.intent:not(:hover, :focus-within) :deep(.el-select__suffix) {
  visibility: hidden;
}
/* A share that is not set is asked for only where one points. */
.intent:not(:hover, :focus-within) .share.none {
  display: none;
}
.share :deep(.el-input-number) {
  width: 1.9em;
}
.hall {
  flex-shrink: 0;
  min-width: 24px;
  color: var(--mute);
}
.hall:hover {
  text-decoration: underline;
}
.hall.without {
  color: var(--warn);
  font-weight: 600;
}
.entries {
  min-height: 34px;
}
.rest {
  margin: 0;
  font-size: 13px;
  color: var(--mute);
}
.put {
  font-size: 13px;
  align-self: flex-start;
  min-height: 24px;
}
@media print {
  .put,
  .hall,
  .share,
  .intent :deep(.choice) {
    display: none;
  }
}
</style>
