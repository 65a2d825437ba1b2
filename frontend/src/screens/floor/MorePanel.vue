<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CallsWanted } from '@/floor/calls'
import type { KeptRun } from '@/floor/kept'
import type { LeaveOut } from '@/floor/leaveOut'
import type { RunState } from '@/floor/runState'
import type { Given, LiveRun } from '@/floor/useRun'
import { MORE as say } from '@/words/texts/floor'
import { PANELS as panels } from '@/words/texts/floor-panels'

import HelpButton from '@/parts/HelpButton.vue'

import HoldButton from './HoldButton.vue'
import CallsPanel from './panels/CallsPanel.vue'
import ChangePanel from './panels/ChangePanel.vue'
import LeftPanel from './panels/LeftPanel.vue'
import NotePanel from './panels/NotePanel.vue'
import PeoplePanel from './panels/PeoplePanel.vue'
import ScoresPanel from './panels/ScoresPanel.vue'

// What is needed now and then: leaving out, once more; and what has a place of its own behind it.
const props = defineProps<{ state: RunState; run: KeptRun; live: LiveRun; disabled: boolean }>()
const wanted = defineModel<CallsWanted>('wanted', { required: true })
const outdoors = defineModel<boolean>('outdoors', { required: true })
const emit = defineEmits<{ give: [given: Given]; leave: [steps: LeaveOut[]]; pocket: [] }>()

const KINDS = ['scores', 'note', 'people', 'left', 'change', 'calls'] as const
const PLACES = {
  scores: ScoresPanel,
  note: NotePanel,
  people: PeoplePanel,
  left: LeftPanel,
  change: ChangePanel,
} as const
const open = ref<(typeof KINDS)[number] | null>(null)
const live = computed(() => props.state.mode === 'playing' || props.state.mode === 'paused')
const inRound = computed(() => props.state.beat?.set !== null && props.state.beat !== null)
</script>

<template>
  <section class="more" :aria-label="say.label">
    <nav class="kinds">
      <button
        v-for="kind in KINDS"
        :key="kind"
        type="button"
        class="floor-key"
        :aria-pressed="open === kind"
        @click="open = open === kind ? null : kind"
      >
        {{ panels[kind] }}
      </button>
    </nav>
    <HelpButton v-if="open === null" />
    <component
      :is="PLACES[open]"
      v-if="open !== null && open !== 'calls'"
      :live="props.live"
      :run="run"
      :disabled="disabled"
      @give="emit('give', $event)"
      @leave="emit('leave', $event)"
    />
    <CallsPanel v-else-if="open === 'calls'" v-model:wanted="wanted" v-model:outdoors="outdoors" />
    <template v-else>
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
    </template>
  </section>
</template>

<style scoped src="./floor.css"></style>
<style scoped src="./panels/panels.css"></style>
<style scoped>
.more {
  flex: 0 1 auto;
  max-height: 56vh;
  overflow: auto;
  background: var(--sheet);
  color: var(--ink);
  color-scheme: light;
  padding: 10px;
  border: 2px solid currentcolor;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
  margin-bottom: 8px;
}
.kinds .floor-key {
  font-size: 17px;
}
.kinds [aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
@media (max-width: 300px) {
  .more {
    max-height: none;
  }
  .kinds,
  .pairs {
    grid-template-columns: minmax(0, 1fr);
  }
}
.hint {
  margin: 0 0 6px;
}
</style>
