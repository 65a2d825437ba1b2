<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElCheckbox, ElSkeleton } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import type { LogWindow, ResultIn } from '@/api/types'
import { turnToSquad } from '@/composables/squadAddress'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { clockTime, longDay } from '@/words/dates'
import { LOG_ENTRY as say, LOGGED_AS, SCORE_TABLE } from '@/words/texts/log'

import CameTo from './CameTo.vue'
import DoneStave from './DoneStave.vue'
import { logChanged, useLogEntry, withRunsSent } from './logApi'
import LogTold from './LogTold.vue'
import NotesList from './NotesList.vue'
import PulsePanel from './PulsePanel.vue'
import ScoreTable from './ScoreTable.vue'
import SetsTable from './SetsTable.vue'
import WhatDiffered from './WhatDiffered.vue'

// One entry of the log: planned and done on one stave, what differed, scores, ratings, notes.
const props = defineProps<{ id: string }>()
const { page, trouble } = useLogEntry(() => props.id)
watch(page, (now) => now && turnToSquad(now.squad), { immediate: true })
const expected = useQuery(
  {
    queryKey: computed(() => KEYS.expected(props.id)),
    queryFn: () => api.expected(props.id),
    enabled: computed(() => (page.value?.windows.length ?? 0) > 0),
  },
  queryClient,
)
const changed = () => logChanged(props.id)

const chosenRun = ref<string | null>(null)
const longest = computed(() => [...(page.value?.runs ?? [])].sort((a, b) => b.session_s - a.session_s)[0] ?? null)
const run = computed(() => page.value?.runs.find((one) => one.run === chosenRun.value) ?? longest.value)
const runs = computed(() =>
  (page.value?.runs ?? []).map((one) => ({
    value: one.run,
    label: say.runAt(one.name || one.by || say.aRun, clockTime(one.begun)),
  })),
)
const came = computed(() => page.value?.people.filter((one) => one.came).length ?? 0)
const head = computed(() => {
  const now = page.value
  if (!now) return ''
  const time = run.value ? clockTime(run.value.begun) : now.time?.slice(0, 5)
  const whole = [`${longDay(now.day)}${time ? `, ${time}` : ''}`]
  if (now.plans && now.people.length > 1) whole.push(say.came(came.value, now.people.length))
  if (now.runs.length > 1) whole.push(say.runs(now.runs.length))
  else if (run.value?.by) whole.push(say.runBy(run.value.by))
  whole.push(now.logged ? (LOGGED_AS[now.how] ?? '') : say.notLogged)
  return whole.filter(Boolean).join(' · ')
})
const titleOf = (window: LogWindow): string => {
  const same = page.value?.windows.filter((one) => one.title === window.title) ?? []
  return same.length > 1 ? `${window.title} ${same.indexOf(window) + 1}` : window.title
}

/** Who was not there: as it is noted, until somebody is ticked otherwise. */
const counting = ref(false)
const ticked = ref<Set<string> | null>(null)
const awayNow = computed(
  () => ticked.value ?? new Set((page.value?.people ?? []).filter((one) => !one.came).map((one) => one.person)),
)
function tick(person: string, here: unknown): void {
  const next = new Set(awayNow.value)
  if (here) next.delete(person)
  else next.add(person)
  ticked.value = next
}

/** Blocks that were not done, where no run says so: as it is logged, until it is ticked otherwise. */
const leaving = ref(false)
const leftOut = ref<number[] | null>(null)
const leftNow = computed(() => leftOut.value ?? page.value?.left_out ?? [])
function leave(block: number, done: unknown): void {
  leftOut.value = done ? leftNow.value.filter((one) => one !== block) : [...leftNow.value, block]
}
const canLeaveOut = computed(() => (page.value?.blocks.length ?? 0) > 1 && page.value?.runs.length === 0)
const differences = computed(() => {
  if (run.value) return run.value.differences
  return page.value?.differences.length ? page.value.differences : null
})
const minutes = ref<number | null>(null)
const effort = ref<number | null>(null)
const { trouble: refused, attempt } = useAttempt()
const write = () =>
  attempt(async () => {
    const away = ticked.value ? [...ticked.value] : null
    const left_out = run.value ? [] : leftNow.value
    await withRunsSent([props.id])
    await api.writeLog(props.id, { minutes: minutes.value, effort: effort.value, away, left_out })
    minutes.value = effort.value = ticked.value = leftOut.value = null
    await changed()
  })
const takeBack = () =>
  attempt(async () => {
    await api.unlog(props.id)
    await changed()
  })
const writeResult = (one: ResultIn) =>
  attempt(async () => {
    await api.writeResults(props.id, [one])
    await changed()
  })
/** Of whoever looks without planning: their own rating, from eleven words. */
const own = computed(() => page.value?.people.find((one) => one.person === page.value?.own))
const words = computed(() =>
  (page.value?.scale ?? []).map((one) => ({ value: one.effort, label: say.scale(one.effort, one.word) })),
)
const rate = (effort: number | null | undefined) =>
  attempt(async () => {
    await api.rate(props.id, { person: page.value?.own ?? null, effort: effort ?? null, way: 'table' })
    await changed()
  })
const choose = (result: number) =>
  attempt(async () => {
    await api.chooseResult(result)
    await changed()
  })
</script>

<template>
  <main id="main">
    <header>
      <RouterLink to="/log">{{ say.toLog }}</RouterLink>
      <h1>{{ page?.title ?? (trouble ? say.noSuch : '…') }}</h1>
      <span class="said">{{ head }}</span>
      <span class="grow"></span>
      <ChoiceField
        v-if="runs.length > 1"
        :model-value="run?.run ?? null"
        :label="say.whichRun"
        :said="say.whichRun"
        :options="runs"
        @update:model-value="chosenRun = $event ?? null"
      />
      <RouterLink v-if="page?.plans" class="to-rate" :to="{ name: 'ratings', params: { id } }">{{
        say.rate
      }}</RouterLink>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="!page" class="inside" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <template v-else>
      <div v-if="page.picture" class="picture">
        <DoneStave :planned="page.picture" :done="run?.picture ?? null" />
      </div>
      <p v-else class="inside said">{{ say.otherTraining }}</p>
      <div class="columns">
        <div class="sums">
          <form v-if="page.plans" class="line" @submit.prevent="write">
            <ElButton native-type="submit" :type="page.logged ? 'default' : 'primary'">{{
              page.logged ? say.logAnew : run ? say.logAsRun : say.logAsPlanned
            }}</ElButton>
            <span class="said">{{ say.differently }}</span>
            <NumberField v-model="minutes" :label="say.minutes" :unit="say.minutes" :max="1440" />
            <NumberField v-model="effort" :label="say.effort" :said="say.effort" :max="10" :step="0.5" />
            <button v-if="page.logged" type="button" class="link" @click="takeBack">{{ say.takeBack }}</button>
          </form>
          <p v-if="page.plans" class="line">
            <button
              v-if="page.people.length > 1"
              type="button"
              class="link"
              :aria-expanded="counting"
              @click="counting = !counting"
            >
              {{ say.whoCame }}
            </button>
            <button v-if="canLeaveOut" type="button" class="link" :aria-expanded="leaving" @click="leaving = !leaving">
              {{ say.whatLeftOut }}
            </button>
          </p>
          <ul v-if="leaving && canLeaveOut" class="here" :aria-label="say.whatLeftOut">
            <li v-for="(title, block) in page.blocks" :key="block">
              <ElCheckbox :model-value="!leftNow.includes(block)" @update:model-value="leave(block, $event)">{{
                title
              }}</ElCheckbox>
            </li>
          </ul>
          <ul v-if="counting" class="here">
            <li v-for="one in page.people" :key="one.person">
              <ElCheckbox :model-value="!awayNow.has(one.person)" @update:model-value="tick(one.person, $event)">{{
                one.name
              }}</ElCheckbox>
            </li>
          </ul>
          <p v-if="!page.plans && own" class="line">
            <ChoiceField
              :model-value="own.rated"
              :label="say.howHard"
              :said="say.howHard"
              :placeholder="say.choose"
              :options="words"
              boxed
              @update:model-value="rate"
            />
          </p>
          <p v-if="refused" class="note-bar" role="alert">{{ refused }}</p>
          <CameTo :page="page" :run="run" />
          <WhatDiffered v-if="page.session" :all="differences" />
          <NotesList
            :notes="page.notes"
            :people="page.people"
            :entry="page.id"
            :health="page.asks_health"
            :why="page.health_why"
            :own="page.own"
            :plans="page.plans"
            @changed="changed"
          />
        </div>
        <div class="scores">
          <p v-if="page.working" class="said" role="status">{{ say.working }}</p>
          <p v-if="page.session && page.windows.length === 0" class="said">{{ SCORE_TABLE.none }}</p>
          <ScoreTable
            v-for="(window, index) in page.windows"
            :key="index"
            :page="page"
            :window="window"
            :title="titleOf(window)"
            :expected="expected.data.value ?? []"
            :writes="page.plans || page.own !== null"
            @write="writeResult"
            @choose="choose"
          />
          <p v-if="page.windows.length" class="said">{{ SCORE_TABLE.how }}</p>
          <SetsTable :page="page" :writes="page.plans || page.own !== null" @write="writeResult" />
          <PulsePanel :page="page" :picture="run?.picture ?? page.picture" @changed="changed" />
          <LogTold v-if="page.plans" :people="page.people" @changed="changed" />
        </div>
      </div>
    </template>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped>
main {
  overflow: auto;
}
.picture {
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
  padding: 8px 20px 4px;
}
.inside {
  padding: 12px 20px;
}
.columns {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
}
.sums {
  border-right: 1px solid var(--rule);
}
.sums,
.scores {
  padding: 12px 20px 30px;
  min-width: 0;
}
.here {
  list-style: none;
  padding: 0;
  margin: 0 0 10px;
  columns: 2;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin-bottom: 10px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .sums {
    border-right: 0;
    order: 2;
  }
  .sums,
  .scores,
  .picture {
    padding-inline: 12px;
  }
}
</style>
