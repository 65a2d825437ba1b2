<script setup lang="ts">
import { autocompletion, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, keymap, lineNumbers, placeholder } from '@codemirror/view'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'

import type { BoardProblem } from '@/api/types'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import { EXAMPLE } from '@/words/board'
import { BOARD_EDITOR as say } from '@/words/texts/board'

import { completer } from './completing'
import MarkMenu from './MarkMenu.vue'
import { marked, marksByLine, setMarks, type LineMarks } from './marks'
import type { Told } from './useBoard'

const props = defineProps<{
  text: string
  problems: readonly BoardProblem[]
  told: Told
  trouble: string
  failed: boolean
  /** What was typed last is not read yet. */
  pending: boolean
  typed: boolean
}>()
const emit = defineEmits<{
  typed: [text: string]
  define: [words: string]
  choose: [id: string, reading: number]
  call: [key: string, words: string]
  keepAll: []
  writeOut: []
}>()

const frame = ref<HTMLElement | null>(null)
const { all } = useMovements()
const { tables } = useTables()
let view: EditorView | null = null

function diagnostics(state: EditorState): Diagnostic[] {
  return props.problems.map((one): Diagnostic => {
    const found = state.doc.line(Math.min(Math.max(1, one.line), state.doc.lines))
    const from = Math.min(found.to, found.from + Math.max(0, one.column - 1))
    return {
      from,
      to: Math.max(from, found.to),
      severity: 'error',
      message: say.foundAllowed(one.found, one.allowed),
    }
  })
}

const marks = computed(() => marksByLine(props.told))
const opened = ref<LineMarks | null>(null)
const top = ref(0)
/** Open what a line could mean; the menu stands under it. */
function open(line: number): boolean {
  const found = marks.value.get(line)
  if (!view || !found || (!found.assumed.length && !found.names.length)) return false
  const at = view.coordsAtPos(view.state.doc.line(line).to)
  const base = frame.value?.getBoundingClientRect().top ?? 0
  top.value = (at?.bottom ?? base) - base + 14
  opened.value = found
  return true
}
function close(): void {
  opened.value = null
  void nextTick(() => view?.focus())
}
function choose(id: string, reading: number): void {
  emit('choose', id, reading)
  close()
}
function call(key: string, words: string): void {
  emit('call', key, words)
  close()
}
function define(words: string): void {
  opened.value = null
  emit('define', words)
}
const here = (state: EditorState): number => state.doc.lineAt(state.selection.main.head).number
/** The next line with something open, from the cursor on and around. */
function next(): boolean {
  if (!view) return false
  const lines = [...marks.value.values()]
    .filter((one) => one.names.length || one.assumed.some((a) => !a.settled))
    .map((one) => one.line)
    .sort((a, b) => a - b)
  const now = here(view.state)
  const line = lines.find((one) => one > now) ?? lines[0]
  if (line === undefined) return false
  view.dispatch({ selection: { anchor: view.state.doc.line(line).to }, scrollIntoView: true })
  return true
}
const fresh = computed(() => new Set(props.told.names.map((one) => one.key)).size)
const openPlaces = computed(() => props.told.assumed.filter((one) => !one.settled).length)
const understood = computed(() => {
  const { unread, unused } = props.told
  return !props.pending && !props.trouble && !openPlaces.value && !fresh.value && !unread.length && !unused.length
})
function example(): void {
  if (!view) return
  view.dispatch({
    changes: { from: 0, to: view.state.doc.length, insert: EXAMPLE },
    selection: { anchor: 0, head: EXAMPLE.length },
  })
  view.focus()
}

onMounted(() => {
  if (!frame.value) return
  view = new EditorView({
    parent: frame.value,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        lineNumbers(),
        history(),
        drawSelection(),
        lintGutter(),
        autocompletion({
          override: [
            completer(
              () => tables.value.phrases,
              () => all.value,
            ),
          ],
        }),
        marked((line) => void open(line)),
        keymap.of([
          { key: 'Alt-ArrowDown', run: (target) => open(here(target.state)) },
          { key: 'Alt-n', run: () => next() },
          { key: 'Alt-k', run: () => (emit('keepAll'), true) },
        ]),
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': say.boardText, spellcheck: 'false' }),
        placeholder(say.writeOrPasteTheSession),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) emit('typed', update.state.doc.toString())
        }),
      ],
    }),
  })
  view.dispatch(setDiagnostics(view.state, diagnostics(view.state)))
  view.dispatch({ effects: setMarks.of(marks.value) })
  view.focus()
})
onBeforeUnmount(() => view?.destroy())

watch(
  () => props.text,
  (text) => {
    if (!view || view.state.doc.toString() === text) return
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } })
  },
)
watch([() => props.problems, () => props.told], () => {
  if (!view) return
  view.dispatch(setDiagnostics(view.state, diagnostics(view.state)))
  view.dispatch({ effects: setMarks.of(marks.value) })
})
</script>

<template>
  <div class="board-text">
    <p v-if="trouble" class="note-bar" role="status">{{ trouble }}</p>
    <div class="page">
      <div ref="frame" class="editor"></div>
      <MarkMenu
        v-if="opened"
        :marks="opened"
        :top="top"
        @choose="choose"
        @call="call"
        @define="define"
        @close="close"
      />
    </div>
    <ul v-if="problems.length" :aria-label="say.whatIsWrongWithThe">
      <li v-for="(one, index) in problems" :key="index" class="wrong">
        <b>{{ say.lineColumn(one.line, one.column) }}</b> {{ say.foundAllowed(one.found, one.allowed) }}
      </li>
    </ul>
    <p v-if="!text.trim()" class="quiet">
      {{ say.anyWordsWillDoRounds }}
      <button type="button" class="link" @click="example">{{ say.showMeAnExample }}</button>
    </p>
    <p v-else-if="failed" class="told" role="status">{{ say.notReadYet }}</p>
    <p v-else class="told" role="status">
      <span v-if="openPlaces">{{
        say.readOneWayOfSeveral(openPlaces === 1 ? say.onePlaceWas : say.placesWere(openPlaces))
      }}</span>
      <span v-if="fresh" class="fresh">{{ say.new(fresh === 1 ? say.oneMovementIs : say.movementsAre(fresh)) }}</span>
      <span v-if="told.unread.length" class="fresh">
        {{ say.notInTheFigures(told.unread.length === 1 ? say.oneLineIs : say.linesAre(told.unread.length)) }}
      </span>
      <span v-if="told.unused.length" class="fresh">
        {{ told.unused.length === 1 ? say.oneNumberUnused : say.numbersUnused(told.unused.length) }}
      </span>
      <span v-if="understood">{{ say.everythingUnderstood }}</span>
      <span class="grow"></span>
      <button v-if="openPlaces" type="button" class="link" :title="say.altK" @click="$emit('keepAll')">
        {{ say.keepAll }}
      </button>
      <button v-if="typed" type="button" class="link" @click="$emit('writeOut')">{{ say.writtenOut }}</button>
    </p>
    <p class="quiet">
      <template v-if="openPlaces || fresh">{{ say.altNGoesToThe }}</template>
      {{ say.ctrlSpaceOffersWhatCan }}
    </p>
  </div>
</template>

<style scoped src="./board-editor.css"></style>
