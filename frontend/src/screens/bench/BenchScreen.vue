<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onBeforeUnmount, onMounted, provide, ref, watch } from 'vue'

import { api, Refusal } from '@/api/client'
import { useAutosave } from '@/composables/useAutosave'
import { useDocument } from '@/composables/useDocument'
import { useFigures } from '@/composables/useFigures'
import StaveView from '@/stave/StaveView.vue'
import { clock } from '@/words/format'

import BlockCard from './BlockCard.vue'
import { BENCH, placed, type BenchTools } from './bench'
import ConflictBar from './ConflictBar.vue'
import TallyPanel from './TallyPanel.vue'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ id: string }>()

const squad = ref(0)
const missing = ref('')
const { document, load, edit, undo, redo, canUndo, canRedo } = useDocument()
const { figures, stave, formats, problems, trouble } = useFigures(document, squad)
const { state, problems: refused, conflict, begin, putOnTop } = useAutosave(document)

async function open(id: string): Promise<void> {
  missing.value = ''
  try {
    const session = await api.session(id)
    squad.value = session.squad
    begin(session)
    load(session.document)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    missing.value = error.message
  }
}
watch(() => props.id, open, { immediate: true })

const wrong = computed(() => new Map([...problems.value, ...refused.value].map((one) => [one.path, one])))
const tools: BenchTools = { edit, wrong, document, squad, figures, formats }
provide(BENCH, tools)

const entries = computed(() => (document.value ? placed(document.value) : []))

const SAVED: Record<typeof state.value, string> = {
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving …',
  refused: 'Not saved: see the marked place',
  conflict: 'Saved beside the other version',
  unreachable: 'Server out of reach, trying again',
}

const told = computed(() => {
  const total = figures.value?.timetable_s
  const announced = figures.value?.announced_s
  if (total === undefined || total === null) return ''
  if (announced === null || announced === undefined) return `comes to ${clock(total)}`
  const left = announced - total
  const rest = left >= 0 ? `slack ${clock(left)}` : `over by ${clock(-left)}`
  return `comes to ${clock(total)}, ${rest}`
})
const over = computed(() => (figures.value?.timetable_s ?? 0) > (figures.value?.announced_s ?? Infinity))

function takeTheirs(): void {
  if (conflict.value === null) return
  const { theirs } = conflict.value
  begin(theirs)
  load(theirs.document)
}

function keys(event: KeyboardEvent): void {
  const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea, [contenteditable]')
  if (!(event.ctrlKey || event.metaKey) || event.altKey || typing) return
  const key = event.key.toLowerCase()
  if (key === 'z' && !event.shiftKey) undo()
  else if (key === 'y' || (key === 'z' && event.shiftKey)) redo()
  else return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <main id="main" class="bench">
    <div v-if="missing" class="missing">
      <h1>This session cannot be opened</h1>
      <p>{{ missing }} <RouterLink to="/bench">To the sessions</RouterLink></p>
    </div>
    <p v-else-if="document === null" class="missing" role="status">Opening the session …</p>
    <template v-else>
      <header>
        <h1 class="title">
          <ValueCell
            label="Title" hide-label text :value="document.title" :place="['title']" path="title" class="title-cell"
          />
        </h1>
        <span class="told">
          <ValueCell label="told" as-clock :value="document.announced_s" :place="['announced_s']" path="announced_s" />
        </span>
        <span class="told" :class="{ over }">{{ told }}</span>
        <span class="grow"></span>
        <span class="state" role="status" :class="{ attention: state === 'refused' || state === 'unreachable' }">
          {{ SAVED[state] }}
        </span>
        <ElButton :disabled="!canUndo" title="Undo (Ctrl Z)" @click="undo">Undo</ElButton>
        <ElButton :disabled="!canRedo" title="Redo (Ctrl Shift Z)" @click="redo">Redo</ElButton>
      </header>
      <ConflictBar v-if="conflict" :conflict="conflict" @mine="putOnTop" @theirs="takeTheirs" />
      <section class="tape" aria-label="Stave">
        <StaveView v-if="stave" :stave="stave" :stale="wrong.size > 0" />
        <p v-else-if="wrong.size === 0 && !trouble" class="quiet" role="status">Working it out …</p>
        <p v-else class="quiet">No stave while something is wrong.</p>
      </section>
      <div class="lane">
        <section class="board" aria-label="Blocks">
          <h2 class="visually-hidden">Blocks</h2>
          <template v-for="entry in entries" :key="entry.path">
            <p v-if="entry.section" class="section">{{ entry.section }}</p>
            <BlockCard :placed="entry" />
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
  grid-template-rows: 58px auto auto minmax(0, 1fr);
  min-height: 0;
  height: 100%;
}
.missing {
  padding: 40px;
  grid-row: 1 / -1;
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 20px;
  border-bottom: 1px solid var(--rule);
  min-width: 0;
}
.title {
  min-width: 0;
}
.title-cell :deep(input) {
  font: 600 25px var(--head);
  border-bottom-color: transparent;
}
.title-cell :deep(input:hover) {
  border-bottom-color: var(--rule);
}
.told {
  color: var(--mute);
  white-space: nowrap;
}
.told.over {
  color: var(--warn);
  font-weight: 600;
}
.grow {
  flex: 1;
}
.state {
  color: var(--mute);
  font-size: 13px;
  white-space: nowrap;
}
.state.attention {
  color: var(--warn);
  font-weight: 600;
}
.tape {
  grid-row: 3;
  padding: 10px 20px 4px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
  min-height: 120px;
}
.lane {
  grid-row: 4;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  min-height: 0;
}
.board {
  padding: 4px 20px 30px;
  border-right: 1px solid var(--rule);
  overflow: auto;
}
.section {
  font: 600 15px var(--head);
  margin: 12px 0 0;
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
  header {
    flex-wrap: wrap;
    padding-block: 8px;
  }
  .board {
    border-right: 0;
  }
}
</style>
