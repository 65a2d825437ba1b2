<script setup lang="ts">
import { ElButton } from 'element-plus'
import { defineAsyncComponent, nextTick, ref } from 'vue'

import { BOARD_PANE as say } from '@/words/texts/board'
import BoardOutline from './BoardOutline.vue'
import MovementForm from './MovementForm.vue'
import type { Board } from './useBoard'

// The session as words, with what they come to beside them.
const props = defineProps<{ board: Board }>()
const emit = defineEmits<{ several: [] }>()
// The editor is fetched when somebody first writes on the board.
const BoardEditor = defineAsyncComponent(() => import('./BoardEditor.vue'))
const { text, told, problems, typed, trouble, failed, draft } = props.board

const defining = ref<string | null>(null)
/** A movement was told: the words are read again with it. */
async function defined(): Promise<void> {
  defining.value = null
  await nextTick()
  await props.board.again()
}
</script>

<template>
  <div>
    <MovementForm v-if="defining" :words="defining" @made="defined" @close="defining = null" />
    <p v-if="told.sessions.length" class="note-bar" role="status">
      {{ say.theseAreSessionsByTheir(told.sessions.length) }}
      <ElButton size="small" @click="emit('several')">{{ say.makeSessionsOfIt(told.sessions.length) }}</ElButton>
    </p>
    <div class="words">
      <BoardEditor
        :text="text"
        :problems="problems"
        :told="told"
        :typed="typed"
        :trouble="trouble"
        :failed="failed"
        :pending="draft"
        @typed="board.typedText"
        @define="defining = $event"
        @choose="board.choose"
        @call="board.call"
        @keep-all="board.keepAll"
        @write-out="board.writeOut"
      />
      <BoardOutline :outline="told.outline" />
    </div>
  </div>
</template>

<style scoped>
.words {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 0 24px;
}
@media (max-width: 1000px) {
  .words {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
