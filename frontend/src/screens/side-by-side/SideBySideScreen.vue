<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter, type LocationQuery } from 'vue-router'

import { comparisonFile, Refusal } from '@/api/client'
import type { Column, CompareRow } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { saveFile } from '@/composables/useFiles'
import { useMovements } from '@/composables/useMovements'
import { useFormats } from '@/composables/useTables'
import { pickWords, valueText } from '@/words/rows'
import { stepText } from '@/words/steps'

import CompareTable from './CompareTable.vue'
import PictureRow from './PictureRow.vue'
import PlacingPanel from './PlacingPanel.vue'
import StartPanel from './StartPanel.vue'
import SweepPanel from './SweepPanel.vue'
import { MOST_COLUMNS, useCompareTables, useComparison, type Hold, type Source } from './useComparison'
import UseMenu from './UseMenu.vue'
import WishBar from './WishBar.vue'

const route = useRoute()
const router = useRouter()
const words = (value: LocationQuery[string] | undefined): string[] =>
  String(value ?? '')
    .split(',')
    .filter(Boolean)
const source = computed<Source>(() => ({
  session: route.query.session ? String(route.query.session) : undefined,
  block: route.query.block ? String(route.query.block) : undefined,
  movements: words(route.query.movements),
  text: String(route.query.text ?? '') || undefined,
  minutes: Number(route.query.minutes) > 0 ? Number(route.query.minutes) : undefined,
  matter: String(route.query.matter ?? '') || undefined,
  sessions: words(route.query.sessions),
}))
const asked = computed(() => Boolean(source.value.text))
const started = computed(
  () =>
    asked.value ||
    Boolean(source.value.session) ||
    Boolean(source.value.movements?.length) ||
    Boolean(source.value.sessions?.length),
)
const start = (from: Source): void => {
  void router.push({
    name: 'side-by-side',
    query: {
      ...(from.session ? { session: from.session } : {}),
      ...(from.movements?.length ? { movements: from.movements.join(',') } : {}),
      ...(from.text ? { text: from.text, minutes: String(from.minutes ?? ''), matter: from.matter } : {}),
      ...(from.sessions?.length ? { sessions: from.sessions.join(',') } : {}),
    },
  })
}

const { session, shown, show, takeOut, hold, target, wishes, axes, answer, trouble, busy, body, whole } =
  useComparison(source)
const { tables, byKey: rowsByKey } = useCompareTables()
const { formats: all } = useFormats()
const { nameOf } = useMovements()
const squad = computed(() => session.value?.squad ?? squadNow.value)

const columns = computed(() => answer.value?.columns ?? [])
const hidden = ref<string[]>(['timetable', 'work-to-rest', 'oxygen-gap', 'volume', 'knee-hip', 'mean-uptake'])
// A row that is nothing in every column says nothing.
const isNothing = (row: CompareRow): boolean =>
  shown.value.every((one) => !one.values[row.key] && !one.endless.includes(row.key))
const shownRows = computed(() =>
  (tables.value?.rows ?? []).filter((row) => !hidden.value.includes(row.key) && !isNothing(row)),
)
const places = computed(() =>
  wishes.value.length
    ? new Map((answer.value?.pick.ranked ?? []).map((one) => [one.column, one.place]))
    : new Map<number, number>(),
)
// The first by the wishes is the marked one, until the coach marks another.
const chosen = ref<string | null>(null)
const marked = computed(() => {
  const usable = (one: Column | undefined): boolean => one !== undefined && one.key !== 'plan' && !one.why
  const own = shown.value.findIndex((one) => one.key === chosen.value && usable(one))
  if (own >= 0) return own
  const ranked = wishes.value.length ? (answer.value?.pick.ranked ?? []) : []
  const first = ranked.find((one) => one.column < shown.value.length && usable(shown.value[one.column]))?.column
  return first ?? shown.value.findIndex(usable)
})
watch(wishes, () => (chosen.value = null))
const mark = (number: number): void => {
  const one = columns.value[number]
  if (one && one.key !== 'plan') chosen.value = one.key
}
const markedColumn = computed(() => {
  const one = columns.value[marked.value]
  return one && one.key !== 'plan' && one.key !== 'session' && !one.why ? one : null
})
const verdict = computed(() =>
  answer.value && wishes.value.length && !trouble.value
    ? pickWords(answer.value.pick, columns.value, wishes.value, rowsByKey.value)
    : null,
)

const HOLDS: { key: Hold; label: string }[] = [
  { key: 'total', label: 'total time' },
  { key: 'work', label: 'work time' },
  { key: 'reps', label: 'reps called' },
  { key: 'load', label: 'load' },
]
const UNITS = { total: 's', work: 's', load: 'load', reps: '' } as const
function holdStill(what: Hold): void {
  hold.value = what
  target.value = null
}
// Minutes as coaches type them: 20 or 20:30; a load as a number.
function typedTarget(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  if (text === '') target.value = null
  else if (hold.value === 'load') target.value = Number(text) > 0 ? Number(text) : target.value
  else {
    const [minutes = '', seconds = '0'] = text.split(':')
    const typed = Number(minutes) * 60 + Number(seconds)
    if (Number.isFinite(typed) && typed > 0) target.value = typed
  }
}
const room = computed(() => shown.value.length < MOST_COLUMNS)
/** What is not in the table: all that fit or do not, and the format that the plan itself is. */
const free = computed(() => {
  const others = columns.value.slice(shown.value.length)
  const known = new Set(columns.value.map((one) => one.key))
  const plan = all.value
    .filter((one) => !known.has(one.key))
    .map((one) => ({ key: one.key, name: one.name, why: null }))
  return [...others.map((one) => ({ key: one.key, name: one.name, why: one.why })), ...plan]
})
const added = ref('')
function add(): void {
  if (added.value) show(added.value)
  added.value = ''
}
const remove = (number: number): void => {
  const key = shown.value[number]?.key
  if (source.value.sessions?.length) start({ sessions: source.value.sessions.filter((_, at) => at !== number) })
  else if (key) takeOut(key)
}
/** The best of those that are not in the table. */
const nextBest = computed(() =>
  wishes.value.length && !whole.value
    ? (answer.value?.pick.ranked ?? [])
        .filter((one) => one.column >= shown.value.length)
        .slice(0, 3)
        .flatMap((one) => {
          const column = columns.value[one.column]
          return column ? [{ key: column.key, name: column.name, place: one.place }] : []
        })
    : [],
)
const cannot = computed(() => columns.value.slice(shown.value.length).filter((one) => one.why).length)
const none = computed(
  () => !whole.value && answer.value !== null && !columns.value.some((one) => one.key !== 'plan' && !one.why),
)
/** Of those that do not fit, one that would with another amount: its reason helps the most. */
const nearest = computed(
  () =>
    columns.value.find((one) => one.causes.every((cause) => ['left', 'least', 'bound'].includes(cause.kind))) ??
    columns.value.find((one) => one.why),
)
const readText = computed(() => (answer.value?.read?.steps ?? []).map((one) => stepText(one, nameOf)).join(', '))
/** What could not be carried over, each once, with the formats that leave it off. */
const bent = computed(() => {
  const found = new Map<string, string[]>()
  for (const column of shown.value)
    for (const text of column.bent) found.set(text, [...(found.get(text) ?? []), column.name])
  return [...found].map(([text, names]) => ({ text, names: names.join(', ') }))
})
const matter = computed(() => tables.value?.matters.find((one) => one.key === source.value.matter)?.sentence ?? '')
const about = computed(() => {
  if (source.value.sessions?.length) return 'whole sessions, held against the first'
  if (asked.value)
    return `which format in ${source.value.minutes ?? 20} minutes${matter.value ? `, for ${matter.value}` : ''}?`
  const names = (answer.value?.movements ?? []).map(nameOf).join(', ')
  if (!session.value) return names
  return `${source.value.block ? 'a block' : 'main part'} of ${session.value.title}${names ? ` · ${names}` : ''}`
})
const fileTrouble = ref('')
async function save(kind: 'csv' | 'xlsx'): Promise<void> {
  fileTrouble.value = ''
  try {
    const file = await comparisonFile(
      whole.value ? 'compare/sessions' : 'compare',
      kind,
      whole.value ?? body.value ?? {},
    )
    saveFile(`side-by-side.${kind}`, file, file.type)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    fileTrouble.value = error.message
  }
}
const print = (): void => window.print()
</script>

<template>
  <main id="main" class="side">
    <header>
      <h1>Side by side</h1>
      <span class="said">{{ started ? about : 'the same work in other formats' }}</span>
      <template v-if="started">
        <RouterLink v-if="session && source.session" :to="{ name: 'bench', params: { id: source.session } }"
          >To the Bench</RouterLink
        >
        <RouterLink :to="{ name: 'side-by-side' }">{{ asked ? 'Change the question' : 'Something else' }}</RouterLink>
        <button type="button" class="link" :disabled="!answer" @click="save('csv')">.csv</button>
        <button type="button" class="link" :disabled="!answer" @click="save('xlsx')">.xlsx</button>
        <ElButton :disabled="!answer" @click="print">Print</ElButton>
      </template>
    </header>
    <StartPanel v-if="!started" @start="start" />
    <template v-else>
      <div v-if="!whole" class="hold">
        <span id="hold-still">Hold still</span>
        <span class="seg" role="group" aria-labelledby="hold-still">
          <button
            v-for="one in HOLDS"
            :key="one.key"
            type="button"
            class="plain"
            :class="{ on: hold === one.key }"
            :aria-pressed="hold === one.key"
            @click="holdStill(one.key)"
          >
            {{ one.label
            }}{{ hold === one.key && answer?.target ? ` ${valueText(answer.target, UNITS[one.key])}` : '' }}
          </button>
        </span>
        <label v-if="hold !== 'reps'">
          <span class="visually-hidden">Hold it at</span>
          <input
            :value="target === null ? '' : valueText(target, UNITS[hold])"
            :placeholder="hold === 'load' ? 'other load' : 'other, min'"
            class="target"
            @change="typedTarget"
          />
        </label>
        <span class="said" title="Each format is filled to the closest that is not over it."
          >filled up, never over</span
        >
        <span class="grow"></span>
        <label>
          <span class="visually-hidden">Add a format</span>
          <select v-model="added" @change="add">
            <option value="">{{ room ? 'Add a format …' : 'In place of the last …' }}</option>
            <option v-for="one in free" :key="one.key" :value="one.key">
              {{ one.name }}{{ one.why ? ' (does not fit)' : '' }}
            </option>
          </select>
        </label>
        <details class="rows">
          <summary>Rows</summary>
          <div class="list">
            <label v-for="row in tables?.rows ?? []" :key="row.key">
              <input
                type="checkbox"
                :checked="!hidden.includes(row.key)"
                @change="
                  hidden = hidden.includes(row.key) ? hidden.filter((one) => one !== row.key) : [...hidden, row.key]
                "
              />
              {{ row.label }}{{ isNothing(row) ? ' (nothing here)' : '' }}
            </label>
          </div>
        </details>
      </div>
      <WishBar
        v-model="wishes"
        :named="tables?.wishes ?? []"
        :rows="rowsByKey"
        :pick="answer?.pick ?? null"
        :marked="marked"
      />
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <p v-if="fileTrouble" class="note-bar" role="alert">{{ fileTrouble }}</p>
      <p v-if="answer?.read" class="read">
        Read as {{ readText }}.
        <template v-if="answer.read.unknown.length">
          Not known, so little is figured of it: <b>{{ answer.read.unknown.join(', ') }}</b>.</template
        >
        <template v-if="answer.read.unread.length">
          No movement in: <b>{{ answer.read.unread.join(' · ') }}</b>.</template
        >
      </p>
      <p v-if="!answer && !trouble" class="waiting" role="status">Pouring …</p>
      <div v-if="answer" class="page" :class="{ busy }" :aria-busy="busy">
        <div class="verdict-row">
          <p v-if="none" class="verdict">
            <b>No format fits.</b> {{ nearest ? `${nearest.name}: ${nearest.why}.` : '' }}
            Hold something else still, or another amount of it; under “Why not” each says what is in its way.
          </p>
          <p v-else-if="verdict" class="verdict">
            <b>{{ verdict.name }}</b> comes first. {{ verdict.sentences.join(' ') }}
          </p>
          <p v-else class="said">Say what matters, and the columns are ranked by it, with the reasons.</p>
          <UseMenu
            :column="markedColumn"
            :session="session && source.session ? { id: source.session, ...session } : null"
            :source="answer.source"
            :squad="squad"
          />
        </div>
        <PictureRow
          v-if="asked"
          v-model:axes="axes"
          :answer="answer"
          :rows="tables?.rows ?? []"
          :by-key="rowsByKey"
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
          :rows="shownRows"
          :marked="marked"
          :places="places"
          :squad="squad"
          :hold="whole ? undefined : hold"
          :removable="!whole || shown.length > 2"
          :markable="!whole"
          @mark="mark"
          @remove="remove"
        />
        <p v-for="one in bent" :key="one.text" class="bent">
          {{ one.text }} <span>({{ one.names }})</span>
        </p>
        <p v-if="nextBest.length || cannot" class="next">
          <template v-if="nextBest.length">
            Next best:
            <button v-for="one in nextBest" :key="one.key" type="button" class="link" @click="show(one.key)">
              {{ one.name }} ({{ one.place }}.)<span class="visually-hidden">: show it beside</span>
            </button>
          </template>
          <span v-if="cannot"
            >{{ cannot }} other{{ cannot === 1 ? ' does' : 's do' }} not fit; “Why not” says why.</span
          >
        </p>
        <section v-if="answer.differences" class="differences" aria-label="What differs">
          <h2>What differs from {{ columns[0]?.name }}</h2>
          <details v-for="(list, number) in answer.differences.slice(1)" :key="number">
            <summary>
              {{ columns[number + 1]?.name }}: {{ list.length }} difference{{ list.length === 1 ? '' : 's' }}
            </summary>
            <ul>
              <li v-for="(one, index) in list" :key="index">
                <b>{{ one.kind }}</b> {{ one.what }} <code>{{ one.path }}</code>
                <template v-if="one.kind === 'changed'"
                  >{{ JSON.stringify(one.before) ?? 'nothing' }} →
                  {{ JSON.stringify(one.after) ?? 'nothing' }}</template
                >
              </li>
            </ul>
          </details>
        </section>
        <PictureRow
          v-if="!asked"
          v-model:axes="axes"
          :answer="answer"
          :rows="tables?.rows ?? []"
          :by-key="rowsByKey"
          :wishes="wishes"
          :marked="marked"
          :shown="shown.length"
          :places="places"
          :whole="whole !== null"
          @mark="mark"
          @show="show"
        />
        <PlacingPanel
          v-if="!whole && body && !none"
          :body="body"
          :shown="shown.filter((one) => one.key !== 'plan' && !one.why).map((one) => one.key)"
        />
        <SweepPanel v-if="!whole && body" class="sweeping" :columns="shown" :rows="tables?.rows ?? []" :body="body" />
      </div>
    </template>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="./side-by-side.css"></style>
