<script setup lang="ts">
import { ElButton, ElSkeleton } from 'element-plus'
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import { useFirstPath } from '@/composables/useFirstPath'
import { useMovements } from '@/composables/useMovements'
import { useOtherwise } from '@/composables/useOtherwise'
import { useTables } from '@/composables/useTables'
import MoreMenu from '@/parts/MoreMenu.vue'
import ForeseenLines from '@/parts/ForeseenLines.vue'
import PaceChoice from '@/parts/PaceChoice.vue'
import OtherwiseLines from '@/parts/OtherwiseLines.vue'
import { stepText } from '@/words/steps'
import { SIDE_BY_SIDE_SCREEN as say } from '@/words/texts/side-by-side'

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

/** Longer than any place in a group's span is only the id of a person. */
const LONGEST_WORD = 'quickest'.length
const route = useRoute()
const router = useRouter()
const source = computed<Source>(() => sourceOf(route.query))
const asked = computed(() => Boolean(source.value.text))
const started = computed(() => isStarted(source.value))
const start = (from: Source): void => void router.push({ name: 'side-by-side', query: queryOf(from) })

const comparison = useComparison(source)
const { session, shown, show, takeOut, hold, target, wishes, axes, paceOf, answer, trouble, busy, body, whole } =
  comparison
const table = useTable(comparison)
const { tables, byKey, columns, hidden, rows, places, marked, mark, markedColumn, verdict, nextBest, none, nearest } =
  table
const { did } = useFirstPath()
watch(columns, (now) => now.length > 1 && did({ what: 'compare' }))
const { nameOf } = useMovements()
const { labelOf } = useTables()
const asPerson = computed(() => (paceOf.value.length > LONGEST_WORD ? paceOf.value : ''))
const squad = computed(() => session.value?.squad ?? squadNow.value)
const used = computed(() => {
  const { session: id } = source.value
  return session.value && id ? { id, document: session.value.document, title: session.value.title } : null
})

const { all: others, trouble: restrictionsUnknown } = useOtherwise(
  computed(() => session.value?.document ?? null),
  squad,
)

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
  if (source.value.sessions?.length) return say.wholeSessionsHeldAgainstThe
  if (asked.value) return say.whichFormatIn(source.value.minutes ?? 20, matter.value ? say.forWhat(matter.value) : '')
  const names = (answer.value?.movements ?? []).map(nameOf).join(', ')
  if (!session.value) return names
  const part = say.partOf(source.value.block ? say.aBlock : say.mainPart, session.value.title)
  return names ? `${part} · ${names}` : part
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
  { name: 'csv', does: say.asATableCsv, disabled: !answer.value },
  { name: 'xlsx', does: say.asAWorkbookXlsx, disabled: !answer.value },
  { name: 'print', does: say.print, disabled: !answer.value },
])
const choose = (name: string): void => (name === 'print' ? window.print() : void save(name as 'csv' | 'xlsx'))
</script>

<template>
  <main id="main" class="side prints-wide">
    <header>
      <h1>{{ say.sideBySide }}</h1>
      <span class="said">{{ started ? about : say.theSameWorkInOther }}</span>
      <template v-if="started">
        <RouterLink v-if="used" :to="{ name: 'bench', params: { id: used.id } }">{{ say.toTheBench }}</RouterLink>
        <RouterLink v-slot="{ navigate }" :to="{ name: 'side-by-side' }" custom>
          <ElButton @click="navigate">{{ asked ? say.changeTheQuestion : say.somethingElse }}</ElButton>
        </RouterLink>
        <MoreMenu :label="say.moreForThisComparison" :deeds="deeds" @choose="choose" />
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
      <p class="pace"><PaceChoice v-model="paceOf" :squad="squad" /></p>
      <ForeseenLines v-if="used" class="read" :document="used.document" :squad="squad" :person="asPerson" />
      <p v-if="restrictionsUnknown" class="note-bar" role="alert">{{ restrictionsUnknown }}</p>
      <p v-if="others.length" class="read"><OtherwiseLines :all="others" named /></p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <p v-if="fileTrouble" class="note-bar" role="alert">{{ fileTrouble }}</p>
      <p v-if="answer?.read" class="read">
        {{ say.readAs(readText) }}
        <template v-if="answer.read.unknown.length">
          {{ say.notKnownSoLittleIs }} <b>{{ answer.read.unknown.join(', ') }}</b>.
        </template>
        <template v-if="answer.read.unread.length">
          {{ say.noMovementIn }} <b>{{ answer.read.unread.join(' · ') }}</b>.
        </template>
      </p>
      <div v-if="!answer && !trouble" class="waiting" role="status">
        <span class="visually-hidden">{{ say.pouring }}</span>
        <ElSkeleton :rows="8" animated :throttle="200" />
      </div>
      <div v-if="answer" class="page" :class="{ busy }" :aria-busy="busy">
        <div class="verdict-row">
          <p v-if="none" class="verdict">
            <b>{{ say.noFormatFits }}</b>
            {{ say.holdSomethingElseStillOr(nearest ? `${nearest.name}: ${nearest.why}.` : '') }}
          </p>
          <p v-else-if="verdict" class="verdict">
            <b>{{ verdict.name }}</b> {{ say.comesFirst(verdict.sentences.join(' ')) }}
          </p>
          <p v-else class="said">{{ say.sayWhatMattersAndThe }}</p>
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
        <p v-for="one in table.losses.value" :key="one.text" class="bent">
          {{ one.text }} <span>({{ one.names }})</span>
        </p>
        <p v-if="nextBest.length || table.cannot.value" class="next">
          <template v-if="nextBest.length">
            {{ say.nextBest }}
            <button v-for="one in nextBest" :key="one.key" type="button" class="link" @click="show(one.key)">
              {{ one.name }} ({{ one.rank }}.)<span class="visually-hidden">{{ say.showItBeside }}</span>
            </button>
          </template>
          <span v-if="table.cannot.value">
            {{ say.otherNotFitWhyNot(table.cannot.value, table.cannot.value === 1 ? say.does : say.sDo) }}
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
