<script setup lang="ts">
import {
  autocompletion,
  completionKeymap,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, keymap, lineNumbers, placeholder } from '@codemirror/view'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'

import type { BoardProblem, MovementDef } from '@/api/types'
import { useMovements } from '@/composables/useMovements'

import MarkMenu from './MarkMenu.vue'
import { marked, marksByLine, setMarks, type LineMarks } from './marks'
import type { Told } from './useBoard'

const props = defineProps<{
  text: string
  problems: readonly BoardProblem[]
  told: Told
  trouble: string
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

const EXAMPLE = `Thurs top field, 40 mins
warm up 2 rds: 10 squats, 10 arm circles, 5 inchworms
A) 3x10 goblet squats 24/16
rest 90s
B) emom 9
12 pushups
15 kb swings 24kg
30s plank
cool: 30s each calf, quads, chest`

const frame = ref<HTMLElement | null>(null)
const { all } = useMovements()
let view: EditorView | null = null

const HEADS = [
  'Warm-up: ',
  'Main: ',
  'Finisher: ',
  'Cool-down: ',
  'rest 1:00',
  'note: ',
  'together "", 3 times, 1:00 between:',
  'end together',
]
const PHRASES = [
  '30 s each',
  '20 s on / 10 s off',
  '8 rounds',
  'strict 20/10',
  '20/10 pairs',
  'movement pyramid',
  'every 1:00',
  'until 0:45',
  'as many rounds as fit in 7:00',
  'for time',
  'cap 15:00',
  '45 s on / 15 s off',
  'one at a time',
  'in pairs',
  '1:00 between groups',
  '1:00 between rounds',
  'stations, 2 laps',
  '30 s to move on',
  'at each station',
  'rest first',
  'mirrored',
  'building up',
  'talk 1:00',
  'hard',
  'all-out',
]
const QUALITIES = ['each side', 'sides take turns', 'sides swap', 'to fill', '16 kg', '2 in reserve', 'rest 1:00']

/** Offers what can stand where the cursor is: heads at the margin, phrases in a head, movements in a step. */
function complete(context: CompletionContext): CompletionResult | null {
  const line = context.state.doc.lineAt(context.pos)
  const before = line.text.slice(0, context.pos - line.from)
  const word = /[\p{L}][\p{L}\p{N}\- ]*$/u.exec(before)
  if (!word && !context.explicit) return null
  const from = line.from + (word ? word.index : before.length)
  if (/^\S[^:]*$/.test(before)) {
    return before.length > 12 ? null : { from: line.from, options: HEADS.map((label) => ({ label, type: 'keyword' })) }
  }
  if (/^\S/.test(before)) return { from, options: PHRASES.map((label) => ({ label, type: 'keyword' })) }
  const movements = all.value.map((m: MovementDef) => ({
    label: m.name ?? m.key,
    detail: Object.keys(m.patterns ?? {})[0],
  }))
  return { from, options: [...movements, ...QUALITIES.map((label) => ({ label, type: 'keyword' }))] }
}

function diagnostics(state: EditorState): Diagnostic[] {
  return props.problems.map((one): Diagnostic => {
    const found = state.doc.line(Math.min(Math.max(1, one.line), state.doc.lines))
    const from = Math.min(found.to, found.from + Math.max(0, one.column - 1))
    return {
      from,
      to: Math.max(from, found.to),
      severity: 'error',
      message: `found ${one.found}; allowed: ${one.allowed}`,
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
const several = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`
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
        autocompletion({ override: [complete] }),
        marked((line) => void open(line)),
        keymap.of([
          { key: 'Alt-ArrowDown', run: (target) => open(here(target.state)) },
          { key: 'Alt-n', run: () => next() },
          { key: 'Alt-k', run: () => (emit('keepAll'), true) },
        ]),
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': 'Board text', spellcheck: 'false' }),
        placeholder('Write or paste the session as you would tell it …'),
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
    <ul v-if="problems.length" aria-label="What is wrong with the text">
      <li v-for="(one, index) in problems" :key="index" class="wrong">
        <b>line {{ one.line }}, column {{ one.column }}</b> found {{ one.found }}; allowed: {{ one.allowed }}
      </li>
    </ul>
    <p v-if="!text.trim()" class="quiet">
      Any words will do: rounds, windows, every minute, a table from a sheet.
      <button type="button" class="link" @click="example">Show me an example</button>
    </p>
    <p v-else class="told" role="status">
      <span v-if="openPlaces">{{ several(openPlaces, 'place was', 'places were') }} read one way of several</span>
      <span v-if="fresh" class="fresh">{{ several(fresh, 'movement is', 'movements are') }} new</span>
      <span v-if="told.unread.length" class="fresh">
        {{ several(told.unread.length, 'line is', 'lines are') }} not in the figures
      </span>
      <span v-if="!openPlaces && !fresh && !told.unread.length">All of it is read.</span>
      <span class="grow"></span>
      <button v-if="openPlaces" type="button" class="link" title="Alt+K" @click="$emit('keepAll')">Keep all</button>
      <button v-if="typed" type="button" class="link" @click="$emit('writeOut')">Written out</button>
    </p>
    <p class="quiet">
      <template v-if="openPlaces || fresh">Alt+N goes to the next mark, Alt+↓ opens it, Alt+K keeps all. </template>
      Ctrl Space offers what can stand here.
    </p>
  </div>
</template>

<style scoped>
.editor {
  border: 1px solid var(--rule);
  background: var(--sheet);
  margin: 10px 0 6px;
}
.editor :deep(.cm-editor) {
  font-size: 15px;
  outline-offset: -2px;
}
.editor :deep(.cm-editor.cm-focused) {
  outline: 2px solid var(--act);
}
.editor :deep(.cm-content),
.editor :deep(.cm-gutters),
.editor :deep(.cm-tooltip) {
  font-family: var(--text);
  line-height: 1.5;
}
.editor :deep(.cm-gutters) {
  background: var(--paper-2);
  color: var(--mute);
  border-right: 1px solid var(--rule);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-left: 3px solid var(--rule);
  padding: 2px 10px;
  margin-top: 4px;
  font-size: 13px;
}
.wrong {
  border-color: var(--warn);
  background: var(--warn-sheet);
}
.quiet,
.told {
  color: var(--mute);
  font-size: 13px;
}
.told {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 6px 0 0;
  color: var(--ink);
}
.fresh {
  color: var(--warn);
}
.grow {
  flex: 1;
}
.page {
  position: relative;
}
.editor :deep(.open-words) {
  border-bottom: 2px dotted var(--act);
}
.editor :deep(.kept-words) {
  border-bottom: 1px dotted var(--rule);
}
.editor :deep(.new-words) {
  border-bottom: 2px dotted var(--warn);
}
.editor :deep(.unread-line) {
  color: var(--mute);
  font-style: italic;
}
/* A label that has no room beside its words stands below them, in its own line. */
.editor :deep(.cm-line) {
  display: flow-root;
}
.editor :deep(.mark-label) {
  float: right;
  margin-left: 12px;
  border: 0;
  background: none;
  color: var(--act);
  padding: 0;
  font: 600 12px/20px var(--text);
  cursor: pointer;
}
.editor :deep(.mark-label.new) {
  color: var(--warn);
}
.editor :deep(.mark-label.kept),
.editor :deep(.mark-label.unread) {
  color: var(--mute);
}
.editor :deep(.mark-label.unread) {
  cursor: default;
}
</style>
