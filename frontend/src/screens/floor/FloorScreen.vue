<script setup lang="ts">
import { useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'

import { account } from '@/composables/useAccount'
import { helpShown } from '@/composables/useHelp'
import { exitHere, takeExit } from '@/floor/exits'
import { runsGoing } from '@/floor/kept'
import { runClock } from '@/floor/runClock'
import { useCalls } from '@/floor/useCalls'
import { useLeaveOut } from '@/floor/useLeaveOut'
import { useOneTab } from '@/floor/useOneTab'
import { useRun, type Given } from '@/floor/useRun'
import { isRemoved } from '@/floor/waitingRuns'
import PutBack from '@/parts/PutBack.vue'
import { clock, whole } from '@/words/format'
import { refusalText } from '@/words/refusal'
import { ENDED as ended, FLOOR as say } from '@/words/texts/floor'

import DuePlace from './DuePlace.vue'
import EndedPage from './EndedPage.vue'
import FloorKeys from './FloorKeys.vue'
import HurtPanel from './HurtPanel.vue'
import MorePanel from './MorePanel.vue'
import NowPlace from './NowPlace.vue'
import OtherRun from './OtherRun.vue'
import PocketCover from './PocketCover.vue'
import { dueOf } from './due'
import { useUndo } from './useUndo'

// A run in the coach's hand: the time, what is done now, what comes next, one place for what is due.
const props = defineProps<{ id: string }>()
const mine = useOneTab(props.id)
const live = useRun(props.id, () => mine.value)
const panel = ref<'none' | 'more' | 'hurt' | 'pocket'>('none')
/** Other runs that go on on this phone: each in a strip. */
const others = ref<string[]>([])
void runsGoing(account.value?.name ?? '', runClock.now()).then((runs) => {
  others.value = runs.map((one) => one.id).filter((id) => id !== props.id)
})
const calls = useCalls(
  live,
  () => panel.value === 'hurt' || !mine.value,
  () => (others.value.length ? (live.run.value?.name ?? '') : ''),
)
const leaveOut = useLeaveOut(live, () => mine.value)
const outdoors = useLocalStorage('floor-outdoors', false)
const undo = useUndo(live)

const state = computed(() => live.state.value)
const run = computed(() => live.run.value)
/** Asked once, quietly: the session may end here, but for its cool-down. */
const exit = computed(() => (run.value && state.value ? exitHere(run.value, state.value, live) : null))
const due = computed(() => (state.value ? dueOf(state.value) : null))
/** Rests and waits lie on ink, work on paper: a change is seen from the corner of the eye. */
const ground = computed(() => {
  const now = state.value
  return !now || (now.mode === 'playing' && now.beat?.kind === 'work') ? 'work' : 'rest'
})

let last = { place: '', at: 0 }
/** A second tap on the same place within 0.7 s counts for nothing. */
function tap(place: string, given: Given | null): void {
  const at = performance.now()
  if (last.place === place && at - last.at < 700) return
  last = { place, at }
  calls.wake()
  if (given) void live.give(given)
}
/** Where a tap of a panel was: a score's and a person's places are their own; what was typed came by no tap. */
function placeOf(given: Given): string | null {
  switch (given.do) {
    case 'note':
    case 'option':
    case 'change':
      return null
    case 'here':
    case 'away':
      return `present ${given.person}`
    case 'score':
      return `score ${given.block} ${given.pass} ${given.index} ${given.person}`
    default:
      return `more ${given.do}`
  }
}
function panelGave(given: Given): void {
  const place = placeOf(given)
  if (place === null) void live.give(given)
  else tap(place, given)
}
function hurt(): void {
  void live.give({ do: 'pause' })
  calls.silence()
  panel.value = 'hurt'
}

// Whoever came by a tap is heard at once; else the first touch lets tones sound.
onMounted(calls.wake)
useEventListener(window, 'pointerdown', () => calls.ready.value || calls.wake())
useEventListener(window, 'keydown', (event) => {
  const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
  const onKey = event.target instanceof HTMLButtonElement && (event.key === ' ' || event.key === 'Enter')
  if (
    typing ||
    onKey ||
    helpShown.value ||
    panel.value === 'hurt' ||
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    event.repeat
  )
    return
  if (event.key === 'PageDown' || event.key === ' ') tap('due', due.value?.given ?? null)
  else if (event.key === 'PageUp') tap('back', { do: 'back' })
  else if (event.key === 'b' || event.key === 'B')
    tap('hold', { do: state.value?.mode === 'paused' ? 'resume' : 'pause' })
  else return
  event.preventDefault()
})

const announced = computed(() => {
  const now = state.value
  if (!now) return say.reading
  if (now.mode === 'waiting') return due.value?.label ?? ''
  if (now.mode === 'paused') return say.paused
  return now.beat
    ? `${say[now.beat.kind]}: ${now.beat.lines.map((line) => line.name).join(', ') || clock(now.beat.s)}`
    : ''
})
</script>

<template>
  <main id="main" class="floor" :class="[ground, { outdoors }]">
    <h1 class="visually-hidden">{{ run?.title ?? say.reading }}</h1>
    <p class="visually-hidden" aria-live="polite">{{ announced }}</p>
    <template v-if="live.trouble.value && !run">
      <p class="note-bar" role="alert">{{ refusalText(live.trouble.value) }}</p>
      <RouterLink to="/today">{{ ended.today }}</RouterLink>
    </template>
    <p v-else-if="!state || !run" role="status" class="opening">{{ say.reading }}</p>
    <EndedPage v-else-if="state.mode === 'over'" :live="live" :run="run" :disabled="!mine" @give="panelGave" />
    <HurtPanel
      v-else-if="panel === 'hurt'"
      :people="run.with?.people ?? []"
      :emergency="run.with?.emergency ?? ''"
      :health="run.with?.asks_health ?? true"
      @give="live.give"
      @close="panel = 'none'"
    />
    <template v-else>
      <header>
        <span class="title">{{ run.title }}</span>
        <span v-if="live.waiting.value" class="quiet">{{ say.unsent(live.unsent.value) }}</span>
        <button type="button" class="floor-key hurt" @click="hurt">{{ say.hurt }}</button>
      </header>
      <p v-if="!mine" class="note-bar">{{ say.otherTab }}</p>
      <p v-else-if="run.entry && (run.removed || isRemoved(live.trouble.value))" class="note-bar" role="alert">
        <PutBack :entry="run.entry" :title="run.title" @done="live.send" />
      </p>
      <p v-else-if="live.trouble.value" class="note-bar" role="alert">
        {{ say.refused }} {{ refusalText(live.trouble.value) }}
      </p>
      <OtherRun v-for="other in others" :id="other" :key="other" />
      <NowPlace
        :state="state"
        :run="run"
        :people="live.here.value"
        :windows="live.windows.value"
        :small="panel === 'more'"
      />
      <MorePanel
        v-if="panel === 'more'"
        v-model:wanted="calls.wanted.value"
        v-model:outdoors="outdoors"
        :state="state"
        :run="run"
        :live="live"
        :disabled="!mine"
        @give="panelGave"
        @leave="leaveOut.choose"
        @pocket="panel = 'pocket'"
      />
      <template v-else>
        <p v-if="exit" class="exit" role="status">
          {{ say.exit(clock(exit.ended_s), whole(exit.ended_load), clock(exit.whole_s), whole(exit.whole_load)) }}
          <button type="button" class="floor-key" :disabled="!mine" @click="takeExit(run, live)">
            {{ say.stopHere }}
          </button>
        </p>
        <DuePlace :due="due" :disabled="!mine" @tap="tap('due', $event)" />
      </template>
      <FloorKeys
        :state="state"
        :disabled="!mine"
        :more="panel === 'more'"
        :undoable="undo.offered.value"
        :soundless="!calls.ready.value && calls.wanted.value.tones"
        @wake="calls.wake"
        @give="(place, given) => tap(place, given)"
        @more="panel = panel === 'more' ? 'none' : 'more'"
      />
      <PocketCover v-if="panel === 'pocket'" @open="panel = 'none'" />
    </template>
  </main>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.floor {
  height: 100dvh;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px max(12px, env(safe-area-inset-left)) max(12px, env(safe-area-inset-bottom));
  overflow: auto;
  max-width: 760px;
  margin: 0 auto;
}
.rest {
  color-scheme: dark;
  background: var(--ink);
  color: var(--sheet);
  box-shadow: 0 0 0 100vmax var(--ink);
  clip-path: inset(0 -100vmax);
}
.work {
  background: var(--paper);
  color: var(--ink);
}
.outdoors {
  color-scheme: light;
  background: #fff;
  color: #000;
  box-shadow: none;
  clip-path: none;
  border: 24px solid #fff;
  max-width: none;
}
.outdoors.rest {
  border-color: #000;
}
header {
  display: flex;
  align-items: center;
  gap: 10px;
}
.title {
  flex: 1;
  min-width: 0;
  font: 600 18px/1.2 var(--head);
  overflow-wrap: anywhere;
}
.hurt {
  font-size: 17px;
}
.note-bar {
  margin: 0;
  color: var(--ink);
}
.exit {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0;
  font-size: 17px;
}
.exit .floor-key {
  flex: none;
}
/* Text at 200 % on a phone: all of it below each other, to be scrolled through. */
@media (max-width: 300px) {
  .floor {
    height: auto;
    min-height: 100dvh;
  }
  header {
    flex-wrap: wrap;
  }
}
.opening {
  margin: auto;
}
</style>
