<script setup lang="ts">
import { ElSkeleton, ElTabPane, ElTabs } from 'element-plus'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, provide, ref, shallowRef, toRef } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import type { Given, ProblemItem, SessionDoc } from '@/api/types'
import { useAutosave } from '@/composables/useAutosave'
import { useDocument } from '@/composables/useDocument'
import { useFigures } from '@/composables/useFigures'
import { helpShown } from '@/composables/useHelp'
import { useLeaving } from '@/composables/useLeaving'
import { useOtherwise } from '@/composables/useOtherwise'
import { takeOver, takeWords } from '@/composables/usePending'
import { useTables } from '@/composables/useTables'
import { useWhatIf } from '@/composables/useWhatIf'
import ForeseenLines from '@/parts/ForeseenLines.vue'
import { OPENING } from '@/parts/opening'
import { lostText } from '@/words/saving'
import { LOST } from '@/words/texts/refusals'
import { BENCH_SCREEN as say } from '@/words/texts/bench'

import { BENCH, type BenchTools } from './bench'
import BenchHeader from './BenchHeader.vue'
import BenchPanels, { type Panel } from './BenchPanels.vue'
import BlocksPane from './BlocksPane.vue'
import BoardPane from './BoardPane.vue'
import ConflictBar from './ConflictBar.vue'
import { exportSession } from './exporting'
import LeaveBar from './LeaveBar.vue'
import { useLight, type Lit } from './light'
import { useShortcuts } from './shortcuts'
import StavePane from './StavePane.vue'
import TallyPanel from './TallyPanel.vue'
import { useBoard } from './useBoard'
import { NEW, useOpening } from './useOpening'
import WhoPanel from './WhoPanel.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()

const squad = ref(0)
const { document, load, edit, replace, undo, redo, canUndo, canRedo } = useDocument()
const { base, trying, nudge, keep, giveBack } = useWhatIf(document, edit, (wanted) => replace(wanted, 'what-if/back'))
const given = ref<Given>({} as Given)
const person = ref('')
const methods = ref<Record<string, unknown>>({})
const isPlain = computed(() => JSON.stringify(given.value) === '{}' && !person.value)
// What differences are held against: how it stood before the trial, or a plain day.
const against = computed(() => {
  if (base.value) return { document: base.value, given: given.value }
  return isPlain.value ? undefined : {}
})
const filled = computed(() => (document.value && document.value.blocks.length > 0 ? document.value : null))
/** What is worth saving: blocks, or words that could not be read yet. */
const written = computed(() => filled.value ?? (document.value?.wall?.unread ? document.value : null))
const shown = useFigures(filled, { squad, given, person, methods, against })
const { figures, formats, taken, deltas, problems, trouble } = shown

/** Without the lists of choices a field would be empty. */
const { isPending: listsPending } = useTables()
/** Drawn a moment after session and lists have arrived: the figures are requested first, and arrive meanwhile. */
const drawn = refDebounced(
  computed(() => document.value !== null && !listsPending.value),
  1,
)

/** The id of a new session that was saved for the first time. */
let madeId = ''
const saving = useAutosave(written, trying, squad, (made) => {
  madeId = made.id
  if (losing.value === null) void showMade()
})
const { state, unkept, problems: refused, conflict, begin, save, putOnTop } = saving
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
  if (board.draft.value) return LOST.board
  return unkept() ? lostText(state.value, refused.value) : ''
}

type View = 'blocks' | 'board'
const view = ref<View>('blocks')
const adding = ref(false)
const { missing } = useOpening(
  toRef(props, 'id'),
  squad,
  () => madeId,
  (session, opened) => {
    begin(session)
    load(opened)
    if (session === null) {
      const words = takeWords()
      if (words) void show('board').then(() => board.typedText(words))
      else adding.value = true
      return
    }
    const handed = takeOver(session.id)
    if (handed.length) edit(handed)
  },
)

const wrong = computed(
  () => new Map<string, ProblemItem>([...problems.value, ...refused.value].map((one) => [one.path, one])),
)
const lit = ref<Lit | null>(null)
const pointed = shallowRef<BenchTools['pointed']['value']>(null)
const light = useLight(shown.stave, lit, pointed)
const { byStep: otherwise, trouble: restrictionsUnknown } = useOtherwise(filled, squad)
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
  light,
  otherwise,
  question: () =>
    filled.value && {
      document: filled.value,
      squad: squad.value,
      given: given.value,
      methods: methods.value,
      person: person.value || null,
    },
}
provide(BENCH, tools)
provide(OPENING, { figures, question: tools.question, light: (what) => (lit.value = what) })

const panel = ref<Panel | null>(null)
const toggle = (which: Panel): void => {
  panel.value = panel.value === which ? null : which
}
async function show(which: View): Promise<void> {
  view.value = which
  adding.value = adding.value && which === 'blocks'
  if (which === 'board') await board.write()
}
/** A text of several days becomes a session for each. */
async function makeSeveral(): Promise<void> {
  for (const text of board.told.value.sessions) await api.importSession('txt', text, squad.value)
  await askAgain(KEYS.sessions())
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
  if (!filled.value) return
  const pinned = props.id !== NEW && (await save()) ? props.id : null
  await exportSession(filled.value, kind, squad.value, pinned)
}
</script>

<template>
  <main id="main" class="bench">
    <div v-if="missing" class="missing">
      <h1>{{ say.thisSessionCannotBeOpened }}</h1>
      <p>
        {{ missing }} <RouterLink to="/bench">{{ say.toTheSessions }}</RouterLink>
      </p>
    </div>
    <div v-else-if="document === null || !drawn" class="missing" role="status">
      <span class="visually-hidden">{{ say.openingTheSession }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
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
        @help="helpShown = true"
        @card="card"
        @compare="compare()"
        @export="exportAs"
      />
      <div>
        <LeaveBar :losing="losing" @stay="stayed" @leave="leave" />
        <p v-if="restrictionsUnknown" class="note-bar" role="alert">{{ restrictionsUnknown }}</p>
        <ConflictBar v-if="conflict" :conflict="conflict" @mine="putOnTop" @theirs="takeTheirs" />
        <BenchPanels v-model="panel" :session="id === NEW ? '' : id" :save="save" @restore="restore" />
      </div>
      <StavePane :stave="filled && shown.stave.value" :empty="!filled" :trouble="trouble" />
      <div ref="lane" class="lane">
        <section class="board" :aria-label="view === 'blocks' ? say.blocks : say.board">
          <h2 class="visually-hidden">{{ view === 'blocks' ? say.blocks : say.boardText }}</h2>
          <div class="beside">
            <WhoPanel
              v-if="filled"
              v-model="given"
              v-model:person="person"
              :document="document"
              :squad="squad"
              :taken="taken"
            />
            <button v-if="view === 'blocks'" type="button" class="link" title="a" @click="addBlock">
              {{ say.addBlock }}
            </button>
          </div>
          <ElTabs class="views" :model-value="view" @update:model-value="show($event as View)">
            <ElTabPane :label="say.blocks" name="blocks">
              <BlocksPane
                v-if="view === 'blocks'"
                :adding="adding"
                @adding="$event ? addBlock() : (adding = false)"
                @words="show('board')"
                @compare="compare"
              />
            </ElTabPane>
            <ElTabPane :label="say.boardText" name="board">
              <BoardPane v-if="view === 'board'" :board="board" @several="makeSeveral" />
            </ElTabPane>
          </ElTabs>
        </section>
        <TallyPanel :trouble="trouble">
          <ForeseenLines v-if="filled" :document="document" :squad="squad" :person="person" />
        </TallyPanel>
      </div>
    </template>
  </main>
</template>

<style scoped src="./bench.css"></style>
