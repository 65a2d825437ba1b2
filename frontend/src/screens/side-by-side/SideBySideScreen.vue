<script setup lang="ts">
import { ElButton, ElSkeleton } from 'element-plus'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import MoreMenu from '@/parts/MoreMenu.vue'
import { stepText } from '@/words/steps'

import CompareTable from './CompareTable.vue'
import DifferencesPanel from './DifferencesPanel.vue'
import HoldBar from './HoldBar.vue'
import PictureRow from './PictureRow.vue'
import PlacingPanel from './PlacingPanel.vue'
import { isStarted, queryOf, sourceOf } from './source'
import StartPanel from './StartPanel.vue'
import SweepPanel from './SweepPanel.vue'
import { MOST_COLUMNS, useComparison, type Source } from './useComparison'
import UseMenu from './UseMenu.vue'
import { useTable } from './useTable'
import WishBar from './WishBar.vue'

const route = useRoute()
const router = useRouter()
const source = computed<Source>(() => sourceOf(route.query))
const asked = computed(() => Boolean(source.value.text))
const started = computed(() => isStarted(source.value))
const start = (from: Source): void => void router.push({ name: 'side-by-side', query: queryOf(from) })

const comparison = useComparison(source)
const { session, shown, show, takeOut, hold, target, wishes, axes, answer, trouble, busy, body, whole } = comparison
const table = useTable(comparison)
const { tables, byKey, columns, hidden, rows, places, marked, mark, markedColumn, verdict, nextBest, none, nearest } =
  table
const { nameOf } = useMovements()
const { labelOf } = useTables()
const squad = computed(() => session.value?.squad ?? squadNow.value)
const used = computed(() => {
  const { session: id } = source.value
  return session.value && id ? { id, document: session.value.document, title: session.value.title } : null
})

const remove = (number: number): void => {
  const key = shown.value[number]?.key
  if (source.value.sessions?.length) start({ sessions: source.value.sessions.filter((_, at) => at !== number) })
  else if (key) takeOut(key)
}
const readText = computed(() =>
  (answer.value?.read?.steps ?? []).map((one) => stepText(one, nameOf, (key) => labelOf('sides', key))).join(', '),
)
const matter = computed(() => tables.value?.matters.find((one) => one.key === source.value.matter)?.sentence ?? '')
const about = computed(() => {
  if (source.value.sessions?.length) return 'whole sessions, held against the first'
  if (asked.value)
    return `which format in ${source.value.minutes ?? 20} minutes${matter.value ? `, for ${matter.value}` : ''}?`
  const names = (answer.value?.movements ?? []).map(nameOf).join(', ')
  if (!session.value) return names
  return `${source.value.block ? 'a block' : 'main part'} of ${session.value.title}${names ? ` · ${names}` : ''}`
})
/** Formats that stand in the table and fit: what can be put into a week. */
const placeable = computed(() => shown.value.filter((one) => one.key !== 'plan' && !one.why).map((one) => one.key))

const { trouble: fileTrouble, attempt } = useAttempt()
const save = (kind: 'csv' | 'xlsx') =>
  attempt(async () => {
    const file = whole.value
      ? await api.compareSessionsFile(kind, whole.value)
      : await api.compareFile(kind, body.value ?? {})
    saveFile(`side-by-side.${kind}`, file, file.type)
  })
const deeds = computed(() => [
  { name: 'csv', does: 'As a table (.csv)', disabled: !answer.value },
  { name: 'xlsx', does: 'As a workbook (.xlsx)', disabled: !answer.value },
  { name: 'print', does: 'Print', disabled: !answer.value },
])
const choose = (name: string): void => (name === 'print' ? window.print() : void save(name as 'csv' | 'xlsx'))
</script>

<template>
  <main id="main" class="side">
    <header>
      <h1>Side by side</h1>
      <span class="said">{{ started ? about : 'the same work in other formats' }}</span>
      <template v-if="started">
        <RouterLink v-if="used" :to="{ name: 'bench', params: { id: used.id } }">To the Bench</RouterLink>
        <RouterLink v-slot="{ navigate }" :to="{ name: 'side-by-side' }" custom>
          <ElButton @click="navigate">{{ asked ? 'Change the question' : 'Something else' }}</ElButton>
        </RouterLink>
        <MoreMenu label="More for this comparison" :deeds="deeds" @choose="choose" />
      </template>
    </header>
    <StartPanel v-if="!started" @start="start" />
    <template v-else>
      <HoldBar
        v-if="!whole"
        v-model:hold="hold"
        v-model:target="target"
        v-model:hidden="hidden"
        :held="answer?.target"
        :rows="tables?.rows ?? []"
        :is-nothing="table.isNothing"
        :free="table.free.value"
        :room="shown.length < MOST_COLUMNS"
        @show="show"
      />
      <WishBar
        v-model="wishes"
        :named="tables?.wishes ?? []"
        :rows="byKey"
        :pick="answer?.pick ?? null"
        :marked="marked"
      />
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <p v-if="fileTrouble" class="note-bar" role="alert">{{ fileTrouble }}</p>
      <p v-if="answer?.read" class="read">
        Read as {{ readText }}.
        <template v-if="answer.read.unknown.length">
          Not known, so little is figured of it: <b>{{ answer.read.unknown.join(', ') }}</b>.
        </template>
        <template v-if="answer.read.unread.length">
          No movement in: <b>{{ answer.read.unread.join(' · ') }}</b>.
        </template>
      </p>
      <div v-if="!answer && !trouble" class="waiting" role="status">
        <span class="visually-hidden">Pouring …</span>
        <ElSkeleton :rows="8" animated />
      </div>
      <div v-if="answer" class="page" :class="{ busy }" :aria-busy="busy">
        <div class="verdict-row">
          <p v-if="none" class="verdict">
            <b>No format fits.</b> {{ nearest ? `${nearest.name}: ${nearest.why}.` : '' }} Hold something else still, or
            another amount of it; under “Why not” each says what is in its way.
          </p>
          <p v-else-if="verdict" class="verdict">
            <b>{{ verdict.name }}</b> comes first. {{ verdict.sentences.join(' ') }}
          </p>
          <p v-else class="said">Say what matters, and the columns are ranked by it, with the reasons.</p>
          <UseMenu :column="markedColumn" :session="used" :source="answer.source" :squad="squad" />
        </div>
        <PictureRow
          v-if="asked"
          v-model:axes="axes"
          :answer="answer"
          :rows="tables?.rows ?? []"
          :by-key="byKey"
          :wishes="wishes"
          :marked="marked"
          :shown="shown.length"
          :places="places"
          :whole="whole !== null"
          @mark="mark"
          @show="show"
        />
        <CompareTable
          v-if="shown.length"
          :columns="shown"
          :rows="rows"
          :marked="marked"
          :places="places"
          :squad="squad"
          :hold="whole ? undefined : hold"
          :removable="!whole || shown.length > 2"
          :markable="!whole"
          @mark="mark"
          @remove="remove"
        />
        <p v-for="one in table.bent.value" :key="one.text" class="bent">
          {{ one.text }} <span>({{ one.names }})</span>
        </p>
        <p v-if="nextBest.length || table.cannot.value" class="next">
          <template v-if="nextBest.length">
            Next best:
            <button v-for="one in nextBest" :key="one.key" type="button" class="link" @click="show(one.key)">
              {{ one.name }} ({{ one.place }}.)<span class="visually-hidden">: show it beside</span>
            </button>
          </template>
          <span v-if="table.cannot.value">
            {{ table.cannot.value }} other{{ table.cannot.value === 1 ? ' does' : 's do' }} not fit; “Why not” says why.
          </span>
        </p>
        <DifferencesPanel v-if="answer.differences" :columns="columns" :differences="answer.differences" />
        <PictureRow
          v-if="!asked"
          v-model:axes="axes"
          :answer="answer"
          :rows="tables?.rows ?? []"
          :by-key="byKey"
          :wishes="wishes"
          :marked="marked"
          :shown="shown.length"
          :places="places"
          :whole="whole !== null"
          @mark="mark"
          @show="show"
        />
        <PlacingPanel v-if="!whole && body && !none" :body="body" :shown="placeable" />
        <SweepPanel v-if="!whole && body" class="sweeping" :columns="shown" :rows="tables?.rows ?? []" :body="body" />
      </div>
    </template>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="./side-by-side.css"></style>
