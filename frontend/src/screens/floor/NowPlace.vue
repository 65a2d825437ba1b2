<script setup lang="ts">
import { computed } from 'vue'

import type { Beat } from '@/api/types'
import { byStation, roundOf, thenWords, todoWords } from '@/floor/todo'
import { shownTime, waitsNow, type RunState } from '@/floor/runState'
import { clock } from '@/words/format'
import { FLOOR as say, WALL as wall } from '@/words/texts/floor'

// The time as large as the width allows, what is done now, what comes next.
const props = defineProps<{ state: RunState; beats: readonly Beat[]; small: boolean }>()
const waiting = computed(() => waitsNow(props.state))
const time = computed(() => shownTime(props.state))
const kind = computed(() => {
  const { mode, beat } = props.state
  if (mode === 'paused') return say.paused
  if (waiting.value) return say.waitsFor(beat ? say[beat.kind] : '')
  return beat ? say[beat.kind] : ''
})
const round = computed(() => (props.state.beat ? roundOf(props.beats, props.state.beat) : null))
/** In a rest what comes is what people need to know. */
const shown = computed(() => {
  const { beat, following } = props.state
  return beat?.kind === 'work' ? beat.lines : following?.kind === 'work' ? following.lines : []
})
const then = computed(() =>
  props.state.beat?.kind === 'work' ? thenWords(props.state.beat, props.state.following) : '',
)
const lastLap = computed(() => props.state.laps.at(-1))
</script>

<template>
  <section class="now" :class="{ small }" tabindex="0" :aria-label="say.nowPlace">
    <p class="kind">
      <span>{{ kind }}</span>
      <span v-if="round">{{ wall.round(round.round, round.of) }}</span>
    </p>
    <p class="time" :class="{ wide: time.length > 4, long: time.length > 5 }">{{ time }}</p>
    <p v-if="state.beat?.self_paced && !waiting" class="laps">
      <template v-if="lastLap !== undefined"
        >{{ state.laps.length === 1 ? say.oneRound : say.rounds(state.laps.length) }} ·
        {{ say.roundAt(clock(lastLap)) }}</template
      >
      <template v-else>{{ state.leftS === null ? say.sinceStart : say.left }}</template>
    </p>
    <div class="todo">
      <div v-for="[station, lines] in byStation(shown)" :key="station" class="station">
        <h2 v-if="station">{{ station }}</h2>
        <p v-for="(line, index) in lines.map(todoWords)" :key="index" class="line">
          <strong
            ><template v-if="line.dose">{{ line.dose }}&nbsp;</template>{{ line.name }}</strong
          >
          <span v-if="line.more">{{ line.more }}</span>
        </p>
      </div>
    </div>
    <p class="then">{{ then }}</p>
  </section>
</template>

<style scoped>
.now {
  flex: 1 1 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
p {
  margin: 0;
}
.kind {
  display: flex;
  justify-content: space-between;
  font: 600 24px/1.1 var(--head);
}
.time {
  font: 600 min(46vw, 30vh, 330px) / 0.95 var(--head);
  font-variant-numeric: tabular-nums;
  text-align: center;
  letter-spacing: -0.02em;
}
.time.wide {
  font-size: min(37vw, 28vh, 300px);
}
.time.long {
  font-size: min(30vw, 30vh, 240px);
}
/* Beside what is behind "More" the time stays whole, and the rest gives way. */
.small .time {
  font-size: min(24vw, 15vh);
}
.small .todo,
.small .laps {
  display: none;
}
.laps {
  text-align: center;
  font-size: 17px;
  min-height: 25px;
}
.todo {
  flex: 1 0 auto;
}
h2 {
  font-size: 18px;
  margin-top: 6px;
}
.line {
  padding: 4px 0;
}
.line strong {
  display: block;
  font: 600 30px/1.1 var(--head);
  overflow-wrap: anywhere;
}
.line span {
  font-size: 17px;
}
.station:nth-child(n + 2) .line strong,
.station:has(h2) .line strong {
  font-size: 24px;
}
.then {
  font-size: 19px;
  min-height: 27px;
}
</style>
