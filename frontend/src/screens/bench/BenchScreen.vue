<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, provide, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, placeText, Refusal } from '@/api/client'
import type { Given, ProblemItem, SessionDoc } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAutosave } from '@/composables/useAutosave'
import { useDocument } from '@/composables/useDocument'
import { saveFile } from '@/composables/useFiles'
import { takeOver } from '@/composables/usePending'
import { useFigures } from '@/composables/useFigures'
import { useLeaving } from '@/composables/useLeaving'
import { useWhatIf } from '@/composables/useWhatIf'
import { OPENING } from '@/parts/opening'
import type { StaveLine } from '@/stave/line'
import StaveView from '@/stave/StaveView.vue'

import AddBlock from './AddBlock.vue'
import { BENCH, placed, type BenchTools, type Lit } from './bench'
import BenchHeader from './BenchHeader.vue'
import BlockCard from './BlockCard.vue'
import BoardOutline from './BoardOutline.vue'
import ConflictBar from './ConflictBar.vue'
import FitPanel from './FitPanel.vue'
import HelpPanel from './HelpPanel.vue'
import LeaveBar from './LeaveBar.vue'
import MovementForm from './MovementForm.vue'
import PlanPanel from './PlanPanel.vue'
import SectionLine from './SectionLine.vue'
import { useShortcuts } from './shortcuts'
import TallyPanel from './TallyPanel.vue'
import { useBoard } from './useBoard'
import VersionsPanel from './VersionsPanel.vue'
import WhoPanel from './WhoPanel.vue'

// The editor is fetched when somebody first writes on the board.
const BoardEditor = defineAsyncComponent(() => import('./BoardEditor.vue'))

const NEW = 'new'
const props = defineProps<{ id: string }>()
const router = useRouter()

const squad = ref(0)
const missing = ref('')
const { document, load, edit, replace, undo, redo, canUndo, canRedo } = useDocument()
const { base, trying, nudge, keep, giveBack } = useWhatIf(document, edit, (wanted) => replace(wanted, 'what-if/back'))
const given = ref<Given>({} as Given)
const methods = ref<Record<string, unknown>>({})
const isPlain = computed(() => JSON.stringify(given.value) === '{}')
// What differences are held against: how it stood before the trial, or a plain day.
const against = computed(() =>
  base.value ? { document: base.value, given: given.value } : isPlain.value ? undefined : {},
)
const filled = computed(() => (document.value && document.value.blocks.length > 0 ? document.value : null))
const { figures, stave, formats, deltas, problems, trouble } = useFigures(filled, { squad, given, methods, against })
const {
  state,
  unkept,
  problems: refused,
  conflict,
  begin,
  save,
  putOnTop,
} = useAutosave(filled, trying, squad, (made) => {
  madeId = made.id
  if (losing.value === null) void showMade()
})
/** The id of a new session that was saved for the first time. */
let madeId = ''
async function showMade(): Promise<void> {
  const { name, params } = router.currentRoute.value
  if (madeId && name === 'bench' && params.id === NEW) await router.replace({ name: 'bench', params: { id: madeId } })
}
const board = useBoard(document, squad, replace)
/** Places of the board text that cannot be read: what was typed there is nowhere but here. */
const unread = computed(() => (board.draft.value ? board.problems.value.length : 0))

const { losing, stay, leave } = useLeaving(settle, () => unkept() || board.draft.value)
function stayed(): void {
  stay()
  void showMade()
}
/** Keep all that can be kept before the Bench is left; tells what cannot. */
async function settle(): Promise<string> {
  await board.settle()
  keep()
  await save()
  if (board.draft.value) return 'The board text has something that cannot be read, so it is not part of the session.'
  if (!unkept()) return ''
  const [place] = refused.value
  if (state.value === 'full') return 'What was changed last could not be saved: the server has no room left.'
  return place ? `Not saved: ${placeText(place)}.` : 'What was changed last could not be saved.'
}

let opened = ''
async function open(id: string): Promise<void> {
  if (id === opened) return
  missing.value = ''
  if (id === NEW) {
    squad.value = squadNow.value
    opened = id
    begin(null)
    load({ fine_tally: 1, title: 'New session', blocks: [] } as unknown as SessionDoc)
    adding.value = true
    return
  }
  try {
    const session = await api.session(id)
    if (id !== props.id) return
    opened = id
    squad.value = session.squad
    begin(session)
    load(session.document)
    const handed = takeOver(id)
    if (handed.length) edit(handed)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    missing.value = error.message
  }
}
const adding = ref(false)
watch(
  () => props.id,
  (id) => {
    // A new session that was just saved is on the Bench already.
    if (opened === NEW && id !== NEW && document.value !== null) opened = id
    else void open(id)
  },
  { immediate: true },
)

const wrong = computed(
  () => new Map<string, ProblemItem>([...problems.value, ...refused.value].map((one) => [one.path, one])),
)
const lit = ref<Lit | null>(null)
const pointed = shallowRef<StaveLine | null>(null)
const tools: BenchTools = {
  edit,
  nudge,
  trying,
  keep,
  giveBack,
  wrong,
  document,
  squad,
  figures,
  formats,
  deltas,
  methods,
  lit,
  pointed,
  question: () =>
    filled.value && { document: filled.value, squad: squad.value, given: given.value, methods: methods.value },
}
provide(BENCH, tools)
provide(OPENING, { figures, question: tools.question, light: (what) => (lit.value = what) })

const entries = computed(() => (document.value ? placed(document.value) : []))
const isLit = (line: StaveLine): boolean => {
  const one = lit.value
  if (!one) return false
  if (one.block !== undefined) return line.block === one.block
  if (one.step !== undefined) return line.step === one.step
  if (one.kind !== undefined) return line.counted === one.kind && line.reps > 0
  return one.movement !== undefined && (line.movement === one.movement || line.name === one.movement)
}
const openEnds = computed(() => figures.value?.spread['total_s'])

const view = ref<'blocks' | 'board'>('blocks')
type Panel = 'fit' | 'plan' | 'versions' | 'help'
const panel = ref<Panel | null>(null)
const defining = ref<string | null>(null)
const toggle = (which: Panel): void => {
  panel.value = panel.value === which ? null : which
}
async function show(which: 'blocks' | 'board'): Promise<void> {
  view.value = which
  adding.value = adding.value && which === 'blocks'
  if (which === 'board') await board.write()
}
/** A movement was told: the words are read again with it. */
async function defined(): Promise<void> {
  defining.value = null
  await nextTick()
  await board.again()
}
/** A text of several days becomes a session for each. */
async function makeSeveral(): Promise<void> {
  for (const text of board.told.value.sessions) await api.importSession('txt', text, squad.value)
  await board.settle()
  await router.push({ name: 'sessions' })
}
const lane = ref<HTMLElement | null>(null)
async function addBlock(): Promise<void> {
  view.value = 'blocks'
  adding.value = true
  await nextTick()
  lane.value?.querySelector('[aria-label="Add a block"]')?.scrollIntoView({ block: 'nearest' })
}
const card = (): void => {
  if (props.id !== NEW) void router.push({ name: 'card', params: { id: props.id } })
}
const compare = async (block?: string): Promise<void> => {
  if (props.id === NEW) return
  await router.push({ name: 'side-by-side', query: { session: props.id, ...(block ? { block } : {}) } })
}
useShortcuts({
  a: () => void addBlock(),
  b: () => void show(view.value === 'blocks' ? 'board' : 'blocks'),
  f: () => toggle('fit'),
  p: () => toggle('plan'),
  c: card,
  o: () => void compare(),
  v: () => toggle('versions'),
  s: () => globalThis.document.querySelector<SVGElement>('.stave svg')?.focus(),
  '?': () => toggle('help'),
  undo,
  redo,
})

function takeTheirs(): void {
  if (conflict.value === null) return
  const { theirs } = conflict.value
  begin(theirs)
  load(theirs.document)
}
function restore(wanted: SessionDoc): void {
  replace(wanted)
  panel.value = null
}
async function exportAs(kind: 'json' | 'txt'): Promise<void> {
  const now = filled.value
  if (!now) return
  const name =
    now.title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'session'
  const text =
    kind === 'json' ? `${JSON.stringify(now, null, 1)}\n` : (await api.writeBoard(now, squad.value, true)).text
  // What goes out as a file refers to this version: nothing is saved over it from now on.
  if (props.id !== NEW && (await save())) await api.pinSession(props.id)
  saveFile(`${name}.${kind}`, text, kind === 'json' ? 'application/json' : 'text/plain')
}
</script>

<template>
  <main id="main" class="bench">
    <div v-if="missing" class="missing">
      <h1>This session cannot be opened</h1>
      <p>{{ missing }} <RouterLink to="/bench">To the sessions</RouterLink></p>
    </div>
    <p v-else-if="document === null" class="missing" role="status">Opening the session …</p>
    <template v-else>
      <BenchHeader
        :state="state"
        :unread="unread"
        :can-undo="canUndo"
        :can-redo="canRedo"
        :is-new="id === NEW"
        @undo="undo"
        @redo="redo"
        @fit="toggle('fit')"
        @plan="toggle('plan')"
        @versions="toggle('versions')"
        @help="toggle('help')"
        @card="card"
        @compare="compare()"
        @export="exportAs"
      />
      <div>
        <LeaveBar :losing="losing" @stay="stayed" @leave="leave" />
        <ConflictBar v-if="conflict" :conflict="conflict" @mine="putOnTop" @theirs="takeTheirs" />
        <FitPanel v-if="panel === 'fit'" @close="panel = null" />
        <PlanPanel v-if="panel === 'plan' && id !== NEW" :session="id" :save="save" @close="panel = null" />
        <VersionsPanel
          v-if="panel === 'versions' && id !== NEW"
          :session="id"
          @restore="restore"
          @close="panel = null"
        />
        <HelpPanel v-if="panel === 'help'" @close="panel = null" />
      </div>
      <section class="tape" aria-label="Stave">
        <StaveView
          v-if="stave && filled"
          :stave="stave"
          :stale="wrong.size > 0"
          :open="openEnds"
          :lit="isLit"
          :lit-row="lit?.row"
          @point="pointed = $event"
        />
        <p v-else-if="!filled" class="quiet">An empty page. Add a block, or write on the board.</p>
        <p v-else-if="wrong.size === 0 && !trouble" class="quiet" role="status">Working it out …</p>
        <p v-else class="quiet">No stave while something is wrong.</p>
      </section>
      <div ref="lane" class="lane">
        <section class="board" :aria-label="view === 'blocks' ? 'Blocks' : 'Board'">
          <h2 class="visually-hidden">{{ view === 'blocks' ? 'Blocks' : 'Board text' }}</h2>
          <div class="tabs">
            <button
              type="button"
              class="plain tab"
              :class="{ on: view === 'blocks' }"
              :aria-pressed="view === 'blocks'"
              @click="show('blocks')"
            >
              Blocks
            </button>
            <button
              type="button"
              class="plain tab"
              :class="{ on: view === 'board' }"
              :aria-pressed="view === 'board'"
              @click="show('board')"
            >
              Board text
            </button>
            <span class="grow"></span>
            <WhoPanel v-if="filled" v-model="given" :document="document" :squad="squad" />
            <button v-if="view === 'blocks'" type="button" class="link" title="a" @click="addBlock">Add block</button>
          </div>
          <template v-if="view === 'blocks'">
            <template v-for="entry in entries" :key="entry.block.id ?? entry.path">
              <SectionLine
                v-if="entry.section"
                :section="entry.section"
                :place="entry.sectionPlace"
                :path="entry.sectionPath"
              />
              <BlockCard :placed="entry" @compare="compare(entry.block.id ?? undefined)" />
            </template>
            <p v-if="!filled" class="start">
              <button type="button" class="link big" @click="show('board')">Start from a text</button>
              <span class="quiet">paste or write it in your own words; or add a block:</span>
            </p>
            <AddBlock v-if="adding" @added="adding = false" @close="adding = false" />
            <button v-else type="button" class="link add" @click="addBlock">Add a block</button>
          </template>
          <template v-else>
            <MovementForm v-if="defining" :words="defining" @made="defined" @close="defining = null" />
            <p v-if="board.told.value.sessions.length" class="note-bar" role="status">
              These are {{ board.told.value.sessions.length }} sessions by their days.
              <button type="button" class="link" @click="makeSeveral">
                Make {{ board.told.value.sessions.length }} sessions of it
              </button>
            </p>
            <div class="words">
              <BoardEditor
                :text="board.text.value"
                :problems="board.problems.value"
                :told="board.told.value"
                :typed="board.typed.value"
                :trouble="board.trouble.value"
                @typed="board.typedText"
                @define="defining = $event"
                @choose="board.choose"
                @call="board.call"
                @keep-all="board.keepAll"
                @write-out="board.writeOut"
              />
              <BoardOutline :outline="board.told.value.outline" />
            </div>
          </template>
        </section>
        <TallyPanel :trouble="trouble" />
      </div>
    </template>
  </main>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-rows: minmax(58px, auto) auto auto minmax(0, 1fr);
  min-height: 0;
  height: 100%;
}
.missing {
  padding: 40px;
  grid-row: 1 / -1;
}
.tape {
  padding: 10px 20px 4px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
  min-height: 60px;
}
.lane {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  min-height: 0;
}
.board {
  /* What is hidden from sight in it stays inside of it, or the page itself would scroll. */
  position: relative;
  padding: 4px 20px 30px;
  border-right: 1px solid var(--rule);
  overflow: auto;
}
.words {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 0 24px;
}
.start {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.big {
  font: 600 20px/1.3 var(--head);
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.tab {
  padding: 2px 0;
  color: var(--mute);
  font-weight: 600;
}
.tab.on {
  color: var(--ink);
  box-shadow: 0 2px 0 var(--ink);
}
.grow {
  flex: 1;
}
.add {
  margin-top: 10px;
}
.quiet {
  color: var(--mute);
}
@media (max-width: 1000px) {
  .bench {
    display: block;
    overflow: auto;
  }
  .lane {
    display: block;
  }
  .board {
    border-right: 0;
  }
  .words {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
