<script setup lang="ts">
import { useWakeLock } from '@vueuse/core'
import { computed } from 'vue'

import { standing } from '@/floor/dealing'
import { shownTime, waitsNow } from '@/floor/runState'
import { byStation, thenWords, todoWords } from '@/floor/todo'
import { WALL as say } from '@/words/texts/floor'

import BeatStrip from './BeatStrip.vue'
import { useWall } from './useWall'

// Read at ten metres: the time, what is done now, what comes next, which round. Nothing to operate.
const { code, lost, shown, state } = useWall()
const screen = useWakeLock()
if (screen.isSupported.value) void screen.request('screen').catch(() => undefined)

const waiting = computed(() => !!state.value && waitsNow(state.value))
const time = computed(() => {
  const now = state.value
  if (!now) return ''
  return now.mode === 'over' ? say.over : shownTime(now)
})
const shownBeat = computed(() => {
  const now = state.value
  return now?.beat?.kind === 'work' ? now.beat : (now?.following ?? null)
})
/** Nobody works now: what the clock counts is said in a word, and the work to come is named as what comes next. */
const word = computed(() => {
  const now = state.value
  if (!now || now.mode === 'over' || waiting.value || !now.beat || now.beat.kind === 'work') return ''
  return now.beat.kind === 'rest' ? say.rest : say.briefing
})
const isNext = computed(() => word.value !== '' || waiting.value)
const lines = computed(() => byStation(shownBeat.value?.kind === 'work' ? shownBeat.value.lines : []))
/** Who stands at each station, by its place among them. */
const stands = computed(() => {
  const beat = shownBeat.value
  if (beat?.kind !== 'work' || !shown.value) return []
  return standing(state.value?.pass ?? [], beat, shown.value.names).map((some) => some.map((one) => one.name))
})
/** The strip is looked at while nothing runs. */
const idle = computed(() => waiting.value || state.value?.mode === 'over')
const round = computed(() => state.value?.round ?? null)
const then = computed(() => {
  const now = state.value
  return now?.beat?.kind === 'work' ? thenWords(now.beat, now.following) : ''
})
const dark = computed(
  () => !!state.value && (waiting.value || state.value.mode === 'paused' || state.value.beat?.kind !== 'work'),
)
</script>

<template>
  <main id="main" class="wall" :class="{ dark }">
    <h1 class="visually-hidden">{{ shown?.title ?? say.label }}</h1>
    <section v-if="code" class="code">
      <p class="signs" :aria-label="say.code(code)">{{ code.slice(0, 3) }} {{ code.slice(3) }}</p>
      <p>{{ say.typeIt }}</p>
    </section>
    <p v-else-if="!state" class="nothing">{{ say.nothing }}</p>
    <template v-else>
      <p class="top">
        <span>{{ shown?.title }}</span>
        <span v-if="lost">{{ say.lost }}</span>
        <span v-else-if="state.mode === 'paused'">{{ say.stands }}</span>
        <span v-else-if="waiting">{{ say.waiting }}</span>
        <span v-if="round">{{ say.round(round.round, round.of) }}</span>
      </p>
      <p class="time" :class="{ long: time.length > 5 }">{{ time }}</p>
      <p v-if="word" class="word">{{ word }}</p>
      <p v-if="isNext && lines.length" class="next">{{ say.next }}</p>
      <div v-if="state.mode !== 'over'" class="todo" :class="{ several: lines.length > 1, coming: isNext }">
        <div v-for="([station, some], place) in lines" :key="station">
          <h2 v-if="station">
            {{ station }}<small v-if="stands[place]?.length">{{ stands[place].join(', ') }}</small>
          </h2>
          <p v-for="(line, index) in some.map((one) => todoWords(one, lines.length < 2))" :key="index" class="line">
            <template v-if="line.dose">{{ line.dose }}&nbsp;</template>{{ line.name
            }}<small v-if="line.more">{{ line.more }}</small>
          </p>
        </div>
      </div>
      <BeatStrip
        v-if="idle && shown"
        :sheet="shown.sheet"
        :at="state.mode === 'over' ? null : (state.item?.number ?? null)"
      />
      <p v-else class="then">{{ then }}</p>
    </template>
  </main>
</template>

<style scoped>
.wall {
  height: 100dvh;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  padding: 2vh 3vw;
  font-family: var(--head);
  font-weight: 600;
  background: var(--paper);
  color: var(--ink);
}
.dark {
  background: var(--ink);
  color: var(--sheet);
}
p {
  margin: 0;
}
.top,
.then,
h2,
.nothing,
.code {
  font-size: min(max(64px, 6vh), 9vw);
  line-height: 1.05;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 4vw;
}
.time {
  font-size: min(max(300px, 44vh), 40vw);
  line-height: 0.92;
  text-align: center;
  font-variant-numeric: tabular-nums;
}
.time.long {
  font-size: min(max(300px, 36vh), 28vw);
}
.word {
  font-size: min(max(64px, 12vh), 14vw);
  line-height: 1;
  text-align: center;
  text-transform: uppercase;
}
.next {
  font-size: min(64px, 9vw);
  line-height: 1.05;
}
.coming .line {
  font-size: min(64px, 9vw);
  font-weight: 500;
}
.todo {
  flex: 1;
  min-height: 0;
  overflow: hidden;
}
.several {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(400px, 100%), 1fr));
  gap: 0 3vw;
}
.line {
  font-size: min(max(64px, 13vh), 14vw);
  line-height: 1.02;
}
.several .line {
  font-size: min(64px, 9vw);
}
small {
  font-size: min(64px, 9vw);
  font-weight: 500;
  margin-left: 0.4em;
}
.code,
.nothing {
  margin: auto;
  text-align: center;
}
/* Not a wall but a hand's width: it is scrolled. */
@media (max-width: 600px) {
  .wall {
    overflow-y: auto;
  }
  .todo {
    flex: none;
    overflow: visible;
  }
}
.signs {
  font-size: min(300px, 24vw);
  line-height: 1;
  letter-spacing: 0.04em;
}
</style>
