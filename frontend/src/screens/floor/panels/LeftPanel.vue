<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { FitWay } from '@/api/types'
import { blocksNow } from '@/floor/blocksNow'
import type { KeptRun } from '@/floor/kept'
import { secondsLeft, wholeSteps, type LeaveOut } from '@/floor/leaveOut'
import type { Given, LiveRun } from '@/floor/useRun'
import NumberField from '@/parts/NumberField.vue'
import { clock, whole } from '@/words/format'
import { refusalText } from '@/words/refusal'
import { LEFT as say } from '@/words/texts/floor-panels'

// Short of time: with a network the core's ways for what has not begun; without one whole steps, summed from the beats.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const emit = defineEmits<{ give: [given: Given]; leave: [steps: LeaveOut[]] }>()

const planned = computed(() => {
  const t = props.live.state.value?.t ?? 0
  return secondsLeft(props.live.timer(), t)
})
const minutes = ref(Math.ceil(planned.value / 60))
const finding = ref(false)
const ways = shallowRef<FitWay[] | null>(null)
const steps = shallowRef<{ steps: LeaveOut[]; s: number } | null>(null)
const said = ref('')
const trouble = shallowRef<Refusal | null>(null)

async function ask(): Promise<void> {
  ways.value = steps.value = trouble.value = null
  said.value = ''
  const left = minutes.value * 60
  finding.value = true
  try {
    ways.value = (await api.minutesLeft(props.run.id, props.live.now(), left)).ways
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    if (!error.passing) trouble.value = error
    else alone(left)
  } finally {
    finding.value = false
  }
  if (ways.value?.length === 0) alone(left)
}
function alone(left: number): void {
  const timer = props.live.timer()
  steps.value = wholeSteps(timer, props.live.now(), left, blocksNow(props.run.sheet, timer.queue))
}
function take(way: FitWay): void {
  emit('give', { do: 'change', edits: way.edits })
  ways.value = null
  said.value = say.taken
}
function leave(): void {
  emit('leave', steps.value?.steps ?? [])
  steps.value = null
  said.value = say.chosen
}
const titleOf = (step: LeaveOut): string => (step.after ? say.fewer(step.title) : say.out(step.title))
</script>

<template>
  <section :aria-label="say.minutes">
    <p>{{ say.planned(clock(planned)) }}</p>
    <form class="field" @submit.prevent="ask">
      <NumberField v-model="minutes" :label="say.minutes" :min="0" :max="600" />
      <ElButton size="large" native-type="submit" :loading="finding" :disabled="disabled">{{ say.ask }}</ElButton>
    </form>
    <p v-if="finding" role="status">{{ say.finding }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ refusalText(trouble) }}</p>
    <p v-if="said" role="status">{{ said }}</p>
    <ul v-if="ways?.length">
      <li v-for="(way, index) in ways" :key="index">
        <span
          >{{ way.what }}<small>{{ say.ends(clock(way.timetable_s), whole(way.load)) }}</small></span
        >
        <button type="button" class="floor-key" :disabled="disabled" @click="take(way)">{{ say.take }}</button>
      </li>
    </ul>
    <template v-if="steps">
      <p v-if="ways === null" role="status">{{ say.alone }}</p>
      <p v-if="steps.s > minutes * 60" role="status">{{ say.none }}</p>
      <p v-else-if="steps.steps.length === 0" role="status">{{ say.fits }}</p>
      <ul v-if="steps.steps.length">
        <li>
          <span>
            <template v-for="(step, index) in steps.steps" :key="step.run"
              ><template v-if="index">, </template>{{ titleOf(step) }}</template
            >
            <small>{{ say.endsIn(clock(steps.s)) }}</small>
          </span>
          <button type="button" class="floor-key" :disabled="disabled" @click="leave">{{ say.take }}</button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="../floor.css"></style>
<style scoped src="./panels.css"></style>
