<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import type { CallsWanted } from '@/floor/calls'
import type { KeptRun } from '@/floor/kept'
import { typedScore } from '@/floor/scoring'
import type { RunState } from '@/floor/runState'
import type { Given } from '@/floor/useRun'
import { MORE as say } from '@/words/texts/floor'

import HoldButton from './HoldButton.vue'

// What is needed now and then: leaving out, once more, a note, a score, what is called.
const props = defineProps<{ state: RunState; run: KeptRun }>()
const wanted = defineModel<CallsWanted>('wanted', { required: true })
const outdoors = defineModel<boolean>('outdoors', { required: true })
const emit = defineEmits<{ give: [given: Given]; pocket: [] }>()

const live = computed(() => props.state.mode === 'playing' || props.state.mode === 'paused')
const inRound = computed(() => props.state.beat?.set !== null && props.state.beat !== null)
const note = ref('')
function keepNote(): void {
  const text = note.value.trim()
  if (text) emit('give', { do: 'note', text })
  note.value = ''
}

/** The window whose score is asked for: the running one, else the last that began. */
const scored = computed(() => {
  const { beats } = props.run.sheet
  const here = props.state.item?.number ?? beats.length
  const windows = beats
    .map((beat, number) => ({ beat, number }))
    .filter(({ beat }) => beat.self_paced && beat.set === null)
  const of = windows.findLast(({ number }) => number <= here)
  if (!of) return null
  const runs = [...new Set(beats.filter((beat) => beat.block === of.beat.block).map((beat) => beat.run))]
  const index = windows.filter(({ beat, number }) => beat.run === of.beat.run && number < of.number).length
  const title = props.run.sheet.blocks[of.beat.block]?.title ?? ''
  return { block: of.beat.block, pass: runs.indexOf(of.beat.run), index, title }
})
const score = ref('')
const bad = ref(false)
function keepScore(): void {
  const typed = typedScore(score.value)
  bad.value = typed === null
  if (!typed || !scored.value) return
  const { block, pass, index } = scored.value
  emit('give', { do: 'score', block, pass, index, ...typed })
  score.value = ''
}
</script>

<template>
  <section class="more" :aria-label="say.label">
    <p class="hint">{{ say.holdIt }}</p>
    <div class="pairs">
      <HoldButton v-if="inRound" :label="say.skipRound" @held="emit('give', { do: 'skip', what: 'round' })" />
      <HoldButton :label="say.skipBlock" @held="emit('give', { do: 'skip', what: 'block' })" />
      <HoldButton v-if="inRound" :label="say.againRound" @held="emit('give', { do: 'again', what: 'round' })" />
      <HoldButton :label="say.againBlock" @held="emit('give', { do: 'again', what: 'block' })" />
      <HoldButton v-if="live" :label="say.endNow" @held="emit('give', { do: 'next' })" />
      <HoldButton
        v-if="live && state.leftS !== null"
        :label="say.tenLess"
        @held="emit('give', { do: 'more', s: -10 })"
      />
      <HoldButton :label="say.stop" @held="emit('give', { do: 'stop' })" />
      <button type="button" class="floor-key" @click="emit('pocket')">{{ say.pocket }}</button>
    </div>
    <form v-if="scored" class="field" @submit.prevent="keepScore">
      <ElInput
        v-model="score"
        size="large"
        inputmode="text"
        :aria-label="say.scoreOf(scored.title)"
        :placeholder="`${say.scoreOf(scored.title)}: ${say.example}`"
      />
      <ElButton size="large" native-type="submit">{{ say.keepScore }}</ElButton>
    </form>
    <p v-if="bad" role="alert" class="note-bar">{{ say.badScore }}</p>
    <form class="field" @submit.prevent="keepNote">
      <ElInput v-model="note" size="large" :aria-label="say.note" :placeholder="say.noteText" maxlength="500" />
      <ElButton size="large" native-type="submit">{{ say.keepNote }}</ElButton>
    </form>
    <fieldset>
      <legend>{{ say.calls }}</legend>
      <ElCheckbox v-model="wanted.tones" size="large">{{ say.tones }}</ElCheckbox>
      <ElCheckbox v-model="wanted.voice" size="large">{{ say.voice }}</ElCheckbox>
      <ElCheckbox v-model="wanted.marks" size="large">{{ say.marks }}</ElCheckbox>
      <ElCheckbox v-model="outdoors" size="large">{{ say.outdoors }}</ElCheckbox>
    </fieldset>
  </section>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.more {
  flex: 0 1 auto;
  max-height: 52vh;
  overflow: auto;
  background: var(--sheet);
  color: var(--ink);
  padding: 10px;
  border: 2px solid currentcolor;
}
.hint {
  margin: 0 0 6px;
}
.pairs {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
}
.field {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  border: 0;
  margin: 8px 0 0;
  padding: 0;
}
</style>
