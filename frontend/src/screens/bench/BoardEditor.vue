<script setup lang="ts">
import { autocompletion, completionKeymap, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, keymap, lineNumbers, placeholder } from '@codemirror/view'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

import type { BoardProblem, MovementDef, Stub } from '@/api/types'
import { useMovements } from '@/composables/useMovements'

const props = defineProps<{
  text: string
  problems: readonly BoardProblem[]
  stubs: readonly Stub[]
  trouble: string
  draft: boolean
}>()
const emit = defineEmits<{ typed: [text: string]; define: [words: string] }>()

const frame = ref<HTMLElement | null>(null)
const { all } = useMovements()
let view: EditorView | null = null

const HEADS = ['Warm-up: ', 'Main: ', 'Finisher: ', 'Cool-down: ', 'rest 1:00', 'note: ', 'together "", 3 times, 1:00 between:', 'end together']
const PHRASES = [
  '30 s each', '20 s on / 10 s off', '8 rounds', 'strict 20/10', '20/10 pairs', 'movement pyramid', 'every 1:00',
  'until 0:45', 'as many rounds as fit in 7:00', 'for time', 'cap 15:00', '45 s on / 15 s off', 'one at a time',
  'in pairs', '1:00 between groups', '1:00 between rounds', 'stations, 2 laps', '30 s to move on', 'at each station',
  'rest first', 'mirrored', 'building up', 'talk 1:00', 'hard', 'all-out',
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
  const movements = all.value.map((m: MovementDef) => ({ label: m.name ?? m.key, detail: Object.keys(m.patterns ?? {})[0] }))
  return { from, options: [...movements, ...QUALITIES.map((label) => ({ label, type: 'keyword' }))] }
}

function diagnostics(state: EditorState): Diagnostic[] {
  const at = (line: number, column: number): { from: number; to: number } => {
    const found = state.doc.line(Math.min(Math.max(1, line), state.doc.lines))
    const from = Math.min(found.to, found.from + Math.max(0, column - 1))
    return { from, to: Math.max(from, found.to) }
  }
  return [
    ...props.problems.map((one): Diagnostic => ({
      ...at(one.line, one.column), severity: 'error', message: `found ${one.found}; allowed: ${one.allowed}`,
    })),
    ...props.stubs.map((one): Diagnostic => ({
      ...at(one.line, one.column), severity: 'warning',
      message: `“${one.words}” is not known${one.nearest.length ? `; nearest: ${one.nearest.join(', ')}` : ''}`,
      actions: one.nearest.map((name) => ({
        name,
        apply(target: EditorView, from: number) {
          target.dispatch({ changes: { from, to: from + one.words.length, insert: name } })
        },
      })),
    })),
  ].sort((a, b) => a.from - b.from)
}

onMounted(() => {
  if (!frame.value) return
  view = new EditorView({
    parent: frame.value,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        lineNumbers(), history(), drawSelection(), lintGutter(), autocompletion({ override: [complete] }),
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': 'Board text', spellcheck: 'false' }),
        placeholder('Ridge day B, 45 min …'),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) emit('typed', update.state.doc.toString())
        }),
      ],
    }),
  })
  view.dispatch(setDiagnostics(view.state, diagnostics(view.state)))
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
watch([() => props.problems, () => props.stubs], () => {
  if (view) view.dispatch(setDiagnostics(view.state, diagnostics(view.state)))
})
</script>

<template>
  <div class="board-text">
    <p v-if="trouble" class="note-bar" role="status">{{ trouble }}</p>
    <div ref="frame" class="editor"></div>
    <ul v-if="problems.length || stubs.length" aria-label="What the board text does not say clearly">
      <li v-for="(one, index) in problems" :key="`p${index}`" class="wrong">
        <b>line {{ one.line }}, column {{ one.column }}</b> found {{ one.found }}; allowed: {{ one.allowed }}
      </li>
      <li v-for="(one, index) in stubs" :key="`s${index}`">
        <b>line {{ one.line }}</b> “{{ one.words }}” is not known<template v-if="one.nearest.length">;
          nearest: {{ one.nearest.join(', ') }}</template>
        <button type="button" class="link" @click="$emit('define', one.words)">define it</button>
      </li>
    </ul>
    <p class="quiet">
      {{ draft && problems.length ? 'The blocks stay as they were until this reads.' : 'Blocks and board text are the same session.' }}
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
.quiet {
  color: var(--mute);
  font-size: 13px;
}
</style>
