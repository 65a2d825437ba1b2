<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { WeekDone } from '@/api/types'
import { turnToSquad } from '@/composables/squadAddress'
import { useMovements } from '@/composables/useMovements'
import { dayOfMonth } from '@/words/dates'
import { percent, tenth, whole } from '@/words/format'
import { PERSON_LOG as say } from '@/words/texts/log'
import { inUnits, signOf } from '@/words/units'

import LearnedPanel from './LearnedPanel.vue'
import LedgerTable from './LedgerTable.vue'
import NotesList from './NotesList.vue'
import ScoreLines from './ScoreLines.vue'

// A person over the last year: pace and effort and how sure, scores of the same work, what was done.
const props = defineProps<{ id: string }>()
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.personLog(props.id)), queryFn: () => api.personLog(props.id) },
  queryClient,
)
const log = computed(() => data.value ?? null)
const trouble = troubleOf(error)
watch(log, (now) => now && turnToSquad(now.squad), { immediate: true })
const { nameOf } = useMovements()
const repsHeads = computed(() => [say.counted, say.called, say.paced, say.guessed, say.moved(signOf('kg'))])
const RATED_HEADS = [say.work, say.estimated, say.ratedCol]
const FRESH_HEADS = [say.day, say.saidFresh]
const weekHeads = computed(() => [
  ...[say.week, say.sessions, say.minutes, say.load, say.sets],
  ...repsHeads.value,
  say.landings,
])
const densityHeads = computed(() => [say.workShare, say.repsAMinute, say.movedAMinute(signOf('kg'))])
const movementHeads = computed(() => [
  ...[say.movement, say.last, say.sessions, say.sets],
  ...repsHeads.value,
  say.landings,
])
/** How reps are known is never added up. */
const repsOf = (one: { reps: Record<string, number>; kg: number }): (string | number)[] => [
  one.reps.counted ?? 0,
  one.reps.called ?? 0,
  one.reps.paced ?? 0,
  one.reps.estimated ?? 0,
  whole(inUnits(one.kg, 'kg')),
]
const ago = (days: number): string => (days === 0 ? say.today : days === 1 ? say.yesterday : say.daysAgo(days))
const rated = computed(() =>
  [...(log.value?.rated ?? [])].reverse().map((one) => ({
    key: one.entry,
    to: one.entry,
    cells: [
      `${dayOfMonth(one.on)} ${one.title}`,
      one.estimated === null ? '–' : tenth(one.estimated),
      tenth(one.rated),
    ],
  })),
)
const weeks = computed(() =>
  [...(log.value?.weeks ?? [])].reverse().map((one) => ({
    key: one.begins,
    cells: [
      dayOfMonth(one.begins),
      one.sessions,
      whole(one.minutes),
      whole(one.load),
      one.sets,
      ...repsOf(one),
      landingsOf(one),
    ],
  })),
)
/** Low, medium and high landings are never added up. */
const landingsOf = ({ landings }: WeekDone): string =>
  ['low', 'medium', 'high', 'mixed']
    .flatMap((grade) => (landings[grade] ? [`${landings[grade]} ${grade}`] : []))
    .join(', ')
/** The rows of the stave that anything was done of. */
const rowNames = computed(() => [...new Set((log.value?.weeks ?? []).flatMap((week) => Object.keys(week.rows)))])
const patternHeads = computed(() => [say.week, ...densityHeads.value, ...rowNames.value])
const patterns = computed(() =>
  [...(log.value?.weeks ?? [])].reverse().map((one) => ({
    key: one.begins,
    cells: [
      dayOfMonth(one.begins),
      ...(one.density
        ? [percent(one.density.work), tenth(one.density.reps), tenth(inUnits(one.density.kg, 'kg'))]
        : densityHeads.value.map(() => '–')),
      ...rowNames.value.map((row) => one.rows[row] ?? ''),
    ],
  })),
)
const movements = computed(() =>
  (log.value?.movements ?? []).map((one) => ({
    key: one.key,
    cells: [nameOf(one.key), ago(one.days_ago), one.sessions, one.sets, ...repsOf(one), one.landings],
  })),
)
/** How fresh they said they were, the latest day first. */
const fresh = computed(() =>
  [...(log.value?.fresh ?? [])]
    .reverse()
    .map((one) => ({ key: one.day, cells: [dayOfMonth(one.day), say.outOfFive(one.value)] })),
)
const changed = () => askAgain(KEYS.personLog(props.id))
</script>

<template>
  <main id="main">
    <header>
      <RouterLink to="/log">{{ say.toLog }}</RouterLink>
      <h1>{{ log ? say.heading(log.name) : trouble ? say.noSuch : '…' }}</h1>
      <span class="grow"></span>
      <a v-if="log" :href="`/api/log/file.json?person=${id}`" download>{{ say.file }}</a>
      <RouterLink v-if="log" :to="{ name: 'person', params: { id } }">{{ say.what }}</RouterLink>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="!log" class="waiting" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-else class="page">
      <div class="column">
        <LearnedPanel :log="log" @changed="changed" />
        <LedgerTable v-if="rated.length" :heading="say.ratedAgainst" :heads="RATED_HEADS" :rows="rated" :most="6" />
      </div>
      <div class="column">
        <ScoreLines :lines="log.lines" />
        <LedgerTable v-if="fresh.length" :heading="say.fresh" :heads="FRESH_HEADS" :rows="fresh" :most="6" />
        <NotesList v-if="log.notes.length" :notes="log.notes" @changed="changed" />
      </div>
      <LedgerTable class="wide" :heading="say.done" :heads="weekHeads" :rows="weeks" :most="8" />
      <LedgerTable
        v-if="patterns.length"
        class="wide"
        :heading="say.byPattern"
        :heads="patternHeads"
        :rows="patterns"
        :most="8"
      />
      <LedgerTable
        v-if="movements.length"
        class="wide"
        :heading="say.movements"
        :heads="movementHeads"
        :rows="movements"
        :most="10"
      />
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/paper.css"></style>
