<script setup lang="ts">
import { computed } from 'vue'

import type { FloorPerson } from '@/api/types'
import { standing } from '@/floor/dealing'
import type { KeptRun } from '@/floor/kept'
import { earlierOf, type ScoredWindow } from '@/floor/scoring'
import { scoreText } from '@/words/scores'
import { byStation, thenWords, todoWords } from '@/floor/todo'
import { shownTime, waitsNow, type RunState } from '@/floor/runState'
import { clock } from '@/words/format'
import { FLOOR as say, WALL as wall } from '@/words/texts/floor'

// The time as large as the width allows, what is done now, what comes next.
const props = defineProps<{
  state: RunState
  run: KeptRun
  people: readonly FloorPerson[]
  windows: readonly ScoredWindow[]
  small: boolean
}>()
/** So many names have room beside the time. */
const MOST_TARGETS = 3
const waiting = computed(() => waitsNow(props.state))
const time = computed(() => shownTime(props.state))
const kind = computed(() => {
  const { mode, beat } = props.state
  if (mode === 'paused') return say.paused
  if (waiting.value) return say.waitsFor(beat ? say[beat.kind] : '')
  return beat ? say[beat.kind] : ''
})
/** In a rest what comes is what people need to know. */
const worked = computed(() => {
  const { beat, following } = props.state
  return beat?.kind === 'work' ? beat : following?.kind === 'work' ? following : null
})
const shown = computed(() => byStation(worked.value?.lines ?? []))
/** Who is at each station, by its place among them. */
const stands = computed(() =>
  worked.value ? standing(props.state.pass, worked.value, props.people).map((some) => some.map((one) => one.name)) : [],
)
const then = computed(() =>
  props.state.beat?.kind === 'work' ? thenWords(props.state.beat, props.state.following) : '',
)
const splits = computed(() =>
  props.state.laps.map((lap, index) => clock(lap - (props.state.laps[index - 1] ?? 0))).slice(-4),
)
const self = computed(() => (props.state.beat?.self_paced && !waiting.value ? props.state : null))
/** Where the plan would be now, while the sheet's own beat runs. */
const planned = computed(() => {
  const of = self.value
  if (!of || of.item?.sheet !== 0 || props.run.apart) return ''
  const told = props.run.with?.planned.find((one) => one.beat === of.item?.number)
  return told ? say.planNow(told.done_s.filter((done) => done <= of.ranS).length + 1) : ''
})
const before = computed(() => {
  const window = self.value && props.windows.find((one) => one.place === self.value?.place)
  const earlier = props.run.with?.earlier ?? []
  const made = window && earlierOf(earlier, window, null)
  if (made) return say.lastTime(scoreText(made.last), scoreText(made.best))
  const named = window ? props.people.filter((one) => one.named) : []
  return named
    .flatMap((one) => {
      const theirs = window && earlierOf(earlier, window, one.person)
      return theirs ? [say.target(one.name, scoreText(theirs.last), scoreText(theirs.best))] : []
    })
    .slice(0, MOST_TARGETS)
    .join(', ')
})
</script>

<template>
  <section class="now" :class="{ small }" tabindex="0" :aria-label="say.nowPlace">
    <p class="kind">
      <span>{{ kind }}</span>
      <span v-if="state.round">{{ wall.round(state.round.round, state.round.of) }}</span>
    </p>
    <p class="time" :class="{ wide: time.length > 4, long: time.length > 5, several: shown.length > 1 }">{{ time }}</p>
    <div v-if="self" class="laps">
      <p>
        <template v-if="state.laps.length"
          >{{ state.laps.length === 1 ? say.oneRound : say.rounds(state.laps.length) }} ·
          {{ say.splits(splits.join(' ')) }}</template
        >
        <template v-else>{{ state.leftS === null ? say.sinceStart : say.left }}</template>
      </p>
      <p v-if="planned || before" class="quiet">{{ [planned, before].filter(Boolean).join(' · ') }}</p>
    </div>
    <div class="todo">
      <div v-for="([station, lines], place) in shown" :key="station" class="station">
        <h2 v-if="station">
          {{ station }} <small v-if="stands[place]?.length">{{ stands[place].join(', ') }}</small>
        </h2>
        <p v-for="(line, index) in lines.map((one) => todoWords(one, shown.length < 3))" :key="index" class="line">
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
/* The place is as high as the largest sign: at 10:00 to 9:59 the signs grow, and nothing under them may move. */
.time {
  --high: min(46vw, 30vh, 330px);
  height: calc(var(--high) * 0.95);
  flex: none;
  overflow: hidden;
  font: 600 var(--high) / calc(var(--high) * 0.95) var(--head);
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
/* Stations need the room: who is where is asked more often than the time. */
.time.several {
  --high: min(30vw, 17vh);
  font-size: var(--high);
}
/* Beside what is behind "More" the time stays whole, and the rest gives way. */
.small .time {
  --high: min(24vw, 15vh);
  font-size: var(--high);
}
.small .todo,
.small .laps {
  display: none;
}
.kind,
.laps,
.then {
  flex: none;
}
.laps {
  text-align: center;
  font-size: 17px;
  min-height: 25px;
}
.laps .quiet {
  font-size: 15px;
}
.todo {
  flex: 1 0 auto;
}
h2 small {
  font: 500 16px var(--text);
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
@media (max-width: 300px) {
  .now {
    flex: none;
    overflow: visible;
  }
}
</style>
