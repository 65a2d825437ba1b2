<script setup lang="ts">
import { ElButton, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { account } from '@/composables/useAccount'
import { beginRun } from '@/floor/begin'
import { earlierOf, scoredWindows, scoresMade, windowTitle, type ScoredWindow } from '@/floor/scoring'
import { scoreText, type Typed } from '@/words/scores'
import { presentNow } from '@/floor/present'
import { useFloorSheet } from '@/floor/useFloorSheet'
import { useOneTab } from '@/floor/useOneTab'
import { useRun, type Given } from '@/floor/useRun'
import { refusalText } from '@/words/refusal'
import { SCORES as scores, SHEET as say } from '@/words/texts/floor-panels'

import ScoreField from '@/parts/ScoreField.vue'

// The score sheet: names down, windows across, last and best small. Printed it is filled by hand; here it is typed in.
const props = defineProps<{ entry: string }>()
const route = useRoute()
const router = useRouter()
const runId = String(route.query.run ?? '')
const mine = runId ? useOneTab(runId) : ref(true)
const live = runId ? useRun(runId, () => mine.value) : null
const { sheet, trouble } = useFloorSheet(props.entry)
const who = account.value?.name ?? ''

const windows = computed(() => {
  if (live?.run.value) return live.windows.value
  return sheet.value ? scoredWindows(sheet.value.sheet) : []
})
const titleOf = (window: ScoredWindow): string => windowTitle(windows.value, window)
const events = computed(() => live?.said.value ?? [])
const madeIn = computed(() => new Map(windows.value.map((one) => [one.place, scoresMade(events.value, one)])))
/** Who is on it: who is here, and whoever has a score; before there is a run, who is expected. */
const listed = computed(() => {
  const people = sheet.value?.people ?? []
  if (!live) return people.filter((one) => !one.away)
  const here = new Set(presentNow(people, events.value).map((one) => one.person))
  for (const made of madeIn.value.values()) for (const person of made.keys()) here.add(person)
  return people.filter((one) => here.has(one.person))
})
const rows = computed(() => [
  { person: '', name: scores.all },
  ...listed.value.map((one) => ({ person: one.person, name: one.name })),
])
const shown = (window: ScoredWindow, person: string): string => scoreText(madeIn.value.get(window.place)?.get(person))
function beforeOf(window: ScoredWindow, person: string): string {
  const made = earlierOf(sheet.value?.earlier ?? [], window, person || null)
  return made ? `${scores.last(scoreText(made.last))} · ${scores.best(scoreText(made.best))}` : ''
}

async function take(window: ScoredWindow, person: string, typed: Typed): Promise<void> {
  const { block, pass, index } = window
  const score: Given = { do: 'score', block, pass, index, ...typed, ...(person ? { person } : {}) }
  if (live) await live.give(score)
  else await begin(score)
}
/** Nobody ran it here: what is typed makes a run that stands before its start. */
async function begin(score: Given): Promise<void> {
  if (!sheet.value) return
  const wish = { account: who, apart: false, absent: [], edits: [], name: sheet.value.group, starts: false }
  const run = await beginRun(sheet.value, wish, score)
  await router.replace({ name: 'scores', params: { entry: props.entry }, query: { run } })
}
const print = (): void => window.print()
</script>

<template>
  <main id="main" class="scores">
    <p v-if="trouble" class="note-bar" role="alert">{{ refusalText(trouble) }}</p>
    <div v-else-if="!sheet" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="6" animated :throttle="200" />
    </div>
    <template v-else>
      <h1>{{ say.heading(sheet.title) }}</h1>
      <p class="day">{{ sheet.squad_name }} · {{ sheet.day }}</p>
      <p class="keys">
        <ElButton size="large" :disabled="windows.length === 0" @click="print">{{ say.print }}</ElButton>
        <RouterLink to="/today">{{ say.back }}</RouterLink>
      </p>
      <p v-if="windows.length === 0">{{ say.nothing }}</p>
      <template v-else>
        <p class="how">{{ mine ? say.how : say.otherTab }}</p>
        <div class="wide">
          <table>
            <thead>
              <tr>
                <th scope="col">{{ say.name }}</th>
                <th v-for="window in windows" :key="window.place" scope="col">{{ titleOf(window) }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.person">
                <th scope="row">{{ row.name }}</th>
                <td v-for="window in windows" :key="window.place">
                  <ScoreField
                    :label="say.cell(row.name, titleOf(window))"
                    :made="shown(window, row.person)"
                    :disabled="!mine"
                    @typed="take(window, row.person, $event)"
                  />
                  <small>{{ beforeOf(window, row.person) }}</small>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </template>
  </main>
</template>

<style scoped>
.scores {
  padding: 14px 20px 40px;
  overflow: auto;
}
h1 {
  font-size: 27px;
  overflow-wrap: anywhere;
}
p {
  margin: 4px 0;
}
.keys {
  display: flex;
  gap: 16px;
  align-items: center;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  margin-top: 10px;
}
th {
  text-align: left;
  font: 600 17px/1.2 var(--head);
  padding: 4px 12px 4px 0;
  vertical-align: top;
}
td,
tbody th {
  border-top: 1px solid var(--rule);
  padding: 4px 12px 4px 0;
  min-width: 96px;
}
tbody th {
  padding-top: 12px;
}
small {
  display: block;
  min-height: 17px;
  font-size: 12px;
  color: var(--mute);
}
@media print {
  .keys,
  .how,
  .note-bar {
    display: none;
  }
  .scores {
    padding: 0;
  }
  /* A squad of sixteen on one page, with room to write. */
  td,
  tbody th {
    padding-block: 2px;
  }
  tbody th {
    padding-top: 8px;
  }
  small:empty {
    min-height: 6px;
  }
}
</style>
