<script setup lang="ts">
import { ElRadioButton, ElRadioGroup } from 'element-plus'
import { computed, ref } from 'vue'

import type { KeptRun } from '@/floor/kept'
import { earlierOf, scoresMade, splitsOf, windowNow, windowTitle } from '@/floor/scoring'
import { scoreText } from '@/words/scores'
import type { Given, LiveRun } from '@/floor/useRun'
import ChoiceField from '@/parts/ChoiceField.vue'
import { clock } from '@/words/format'
import { SCORES as say } from '@/words/texts/floor-panels'

import ScoreField from '@/parts/ScoreField.vue'

// Scores of a window, while time goes on: up to four that are counted by tapping, else a list with one field each.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const emit = defineEmits<{ give: [given: Given] }>()
const MOST_COLUMNS = 4

const windows = computed(() => props.live.windows.value)
/** The one asked for, by its place in the queue; until one is chosen, that which runs or ran last. */
const chosen = ref<number | null>(null)
const at = computed({
  get: () => chosen.value ?? windowNow(windows.value, props.live.state.value?.place ?? 0)?.place ?? -1,
  set: (place) => (chosen.value = place),
})
const window = computed(() => windows.value.find((one) => one.place === at.value) ?? null)
const windowChoices = computed(() =>
  windows.value.map((one) => ({ value: one.place, label: windowTitle(windows.value, one) })),
)
const events = computed(() => props.live.said.value)
const made = computed(() => (window.value ? scoresMade(events.value, window.value) : new Map()))
const people = computed(() => props.live.here.value)
const teams = computed(() => [...new Set(people.value.flatMap((one) => (one.team === null ? [] : [one.team])))])

/** Who is counted by tapping: people while they are few, else their teams; none where both are too many. */
const columns = computed(() => {
  const few = people.value.length <= MOST_COLUMNS
  if (few && people.value.length > 0) return people.value.map((one) => ({ key: one.person, name: one.name }))
  if (teams.value.length > 1 && teams.value.length <= MOST_COLUMNS)
    return teams.value.map((team) => ({ key: `team ${team}`, name: say.team(team) }))
  return []
})
const way = ref<'tap' | 'list'>(columns.value.length ? 'tap' : 'list')
const rows = computed(() => [
  { key: '', name: say.all },
  ...columns.value.filter((one) => one.key.startsWith('team ')),
  ...people.value.map((one) => ({ key: one.person, name: one.name })),
])
const before = (key: string) =>
  window.value ? earlierOf(props.run.with?.earlier ?? [], window.value, key || null) : undefined
const lastSplit = (key: string): string => {
  const times = window.value ? splitsOf(events.value, window.value, key) : []
  const latest = times.at(-1)
  return latest === undefined ? '' : say.split(clock(latest - (times.at(-2) ?? props.live.timer().began)))
}

function give(key: string, score: Partial<Record<'rounds' | 'reps' | 'time_s', number>>): void {
  if (!window.value || props.disabled) return
  const { block, pass, index } = window.value
  emit('give', { do: 'score', block, pass, index, ...score, ...(key ? { person: key } : {}) })
}
const count = (key: string): number => Number(made.value.get(key)?.rounds ?? 0)
</script>

<template>
  <section>
    <p v-if="!window">{{ say.none }}</p>
    <template v-else>
      <div class="field">
        <ChoiceField
          v-if="windows.length > 1"
          v-model="at"
          :label="say.window"
          :said="say.window"
          :options="windowChoices"
          boxed
        />
        <strong v-else>{{ window.title }}</strong>
        <ElRadioGroup v-if="columns.length" v-model="way" :aria-label="say.way">
          <ElRadioButton value="tap">{{ say.tap }}</ElRadioButton>
          <ElRadioButton value="list">{{ say.list }}</ElRadioButton>
        </ElRadioGroup>
        <RouterLink v-if="run.entry" :to="{ name: 'scores', params: { entry: run.entry }, query: { run: run.id } }">{{
          say.sheet
        }}</RouterLink>
      </div>
      <div v-if="way === 'tap' && columns.length" class="columns">
        <button
          v-for="one in columns"
          :key="one.key"
          type="button"
          class="floor-key"
          :disabled="disabled"
          :aria-label="say.counted(one.name, count(one.key))"
          @click="give(one.key, { rounds: count(one.key) + 1, reps: 0 })"
        >
          <span class="who">{{ one.name }}</span>
          <span class="count">{{ count(one.key) }}</span>
          <small>{{ lastSplit(one.key) }}</small>
        </button>
      </div>
      <ul v-else>
        <li v-for="row in rows" :key="row.key">
          <span
            >{{ row.name
            }}<small v-if="before(row.key)"
              >{{ say.last(scoreText(before(row.key)?.last)) }} ·
              {{ say.best(scoreText(before(row.key)?.best)) }}</small
            ></span
          >
          <ScoreField
            :key="`${at} ${row.key}`"
            :label="say.of(row.name)"
            :made="scoreText(made.get(row.key))"
            :disabled="disabled"
            @typed="give(row.key, $event)"
          />
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="../floor.css"></style>
<style scoped src="./panels.css"></style>
<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(76px, 1fr));
  gap: 8px;
  margin-top: 8px;
}
.columns .floor-key {
  min-height: 130px;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: space-between;
}
.who {
  font-size: 17px;
  overflow-wrap: anywhere;
}
.count {
  font-size: 44px;
}
</style>
