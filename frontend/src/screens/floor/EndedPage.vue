<script setup lang="ts">
import { computed } from 'vue'

import type { KeptRun } from '@/floor/kept'
import type { Given, LiveRun } from '@/floor/useRun'
import { isRemoved } from '@/floor/waitingRuns'
import PutBack from '@/parts/PutBack.vue'
import { publishedPlayed } from '@/timer/played'
import { clock } from '@/words/format'
import { ENDED as say } from '@/words/texts/floor'

import ScoresPanel from './panels/ScoresPanel.vue'

// After the last bell: what was played, and the ways on. Figures come from the log; these are sums of the clock.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const emit = defineEmits<{ give: [given: Given] }>()
const played = computed(() => {
  void props.live.turn.value
  const timer = props.live.timer()
  const all = publishedPlayed(timer, props.live.state.value?.t ?? 0)
  const ends = timer.played
  return { ...all, whole: (ends.at(-1)?.end ?? 0) - (ends[0]?.start ?? 0) }
})
/** Its entry was taken off the plan: there is no log of it until it is put back. */
const removed = computed(() => props.run.removed || isRemoved(props.live.trouble.value))
const kept = computed(() => !props.live.waiting.value && props.live.unsent.value === 0)
</script>

<template>
  <section class="ended">
    <h2>{{ say.heading }}</h2>
    <p class="title">{{ run.title }}</p>
    <p>{{ say.played(clock(played.whole)) }}</p>
    <p>{{ say.workRest(clock(played.work_s), clock(played.rest_s)) }}</p>
    <p>{{ say.waited(clock(played.waited_s), clock(played.paused_s)) }}</p>
    <p v-if="played.skipped?.length">{{ say.leftOut(played.skipped.length) }}</p>
    <p role="status" class="kept">{{ kept ? say.sent : say.notSent }}</p>
    <p v-if="run.entry && removed" class="note-bar" role="alert">
      <PutBack :entry="run.entry" :title="run.title" @done="live.send" />
    </p>
    <div class="keys">
      <button type="button" class="floor-key" @click="emit('give', { do: 'again', what: 'round' })">
        {{ say.onceMore }}
      </button>
      <button type="button" class="floor-key" @click="emit('give', { do: 'back' })">{{ say.backOne }}</button>
      <RouterLink
        v-if="run.entry && !removed"
        class="floor-key to"
        :to="{ name: 'ratings', params: { id: run.entry } }"
        >{{ say.rate }}</RouterLink
      >
      <RouterLink
        v-if="run.entry && !removed"
        class="floor-key to"
        :to="{ name: 'logged', params: { id: run.entry } }"
        >{{ say.log }}</RouterLink
      >
      <RouterLink class="floor-key to" to="/today">{{ say.today }}</RouterLink>
    </div>
    <ScoresPanel
      v-if="live.windows.value.length"
      class="scores"
      :live="live"
      :run="run"
      :disabled="disabled"
      @give="emit('give', $event)"
    />
  </section>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.ended {
  display: flex;
  flex-direction: column;
  gap: 6px;
  min-height: 100%;
  font-size: 18px;
}
p {
  margin: 0;
}
h2 {
  font-size: 40px;
}
.title {
  font: 600 24px/1.2 var(--head);
}
.scores {
  background: var(--sheet);
  color: var(--ink);
  color-scheme: light;
  padding: 10px;
}
.kept {
  margin-top: 8px;
}
.keys {
  display: grid;
  gap: 8px;
  margin-top: auto;
}
.to {
  display: grid;
  place-items: center;
  text-decoration: none;
}
</style>
