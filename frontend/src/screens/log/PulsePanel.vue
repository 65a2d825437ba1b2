<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { line } from 'd3-shape'
import { ElButton, ElUpload, type UploadFile } from 'element-plus'
import { computed, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import type { LogEntry, LoggedPicture, Pulse } from '@/api/types'
import { textOf } from '@/composables/textOf'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import SureButton from '@/parts/SureButton.vue'
import { timeScale } from '@/stave/scale'
import { clock, tenth, whole } from '@/words/format'
import { PULSE as say } from '@/words/texts/log'

// Recordings of watches: their figures, and the pulse over the breathing trace on one picture.
const props = defineProps<{ page: LogEntry; picture: LoggedPicture | null }>()
const emit = defineEmits<{ changed: [] }>()
const HIGH = 90
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
/** Folded, as all that is about health: the page may be shown round. */
const opened = ref(false)
const shown = ref<number | null>(null)
const pulse = computed<Pulse | null>(
  () => props.page.pulses.find((one) => one.id === shown.value) ?? props.page.pulses[0] ?? null,
)
const choices = computed(() => props.page.pulses.map((one) => ({ value: one.id, label: one.name })))
const span = computed(() => Math.max(props.picture?.total_s ?? 0, pulse.value?.curve?.total_s ?? 0, 1))
const scale = computed(() => timeScale(span.value, width.value))
/** A share of the maximum, or of capacity, from the bottom up. */
const y = (share: number): number => HIGH - 4 - share * (HIGH - 10)
function drawn(shares: readonly (number | null)[], total: number): string {
  const step = total / Math.max(1, shares.length - 1)
  const made = line<number | null>()
    .defined((one) => one !== null)
    .x((_, index) => scale.value.x(index * step))
    .y((one) => y(one ?? 0))
  return made([...shares]) ?? ''
}
const trace = computed(() => (props.picture ? drawn(props.picture.uptake, props.picture.total_s) : ''))
const curve = computed(() => (pulse.value?.curve ? drawn(pulse.value.curve.shares, pulse.value.curve.total_s) : ''))
const rows = computed(() => {
  const made = pulse.value?.figures
  if (!made) return []
  return [
    [say.peak, whole(made.peak)],
    [say.mean, whole(made.mean)],
    ...Object.entries(made.above).map(([share, seconds]) => [say.above(share), clock(seconds)]),
    [say.banister, say.menWomen(tenth(made.banister_men), tenth(made.banister_women))],
    [say.edwards, tenth(made.edwards)],
  ]
})

const adding = ref(false)
const person = ref(props.page.own ?? '')
const most = ref<number | null>(190)
const rest = ref<number | null>(60)
const people = computed(() => props.page.people.map((one) => ({ value: one.person, label: one.name })))
const { trouble, attempt } = useAttempt()
async function bring({ raw: file }: UploadFile): Promise<void> {
  if (!file) return
  const text = await textOf(file)
  const kind = file.name.toLowerCase().endsWith('.tcx') ? 'tcx' : 'csv'
  const body = { person: person.value, kind, text, max_hr: most.value ?? 0, rest_hr: rest.value ?? 0 } as const
  const kept = await attempt(() => api.putRecording(props.page.id, body))
  if (!kept) return
  adding.value = false
  emit('changed')
}
const forget = (id: number) =>
  attempt(async () => {
    await api.dropCurve(id)
    emit('changed')
  })
</script>

<template>
  <section v-if="page.asks_health && (page.plans || page.own)" :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="pulse" class="line">
      {{ choices.length > 1 ? say.some(choices.length) : say.one }}
      <button type="button" class="link" :aria-expanded="opened" @click="opened = !opened">
        {{ opened ? say.fold : say.show }}
      </button>
    </p>
    <template v-if="pulse && opened">
      <ChoiceField
        v-if="choices.length > 1"
        :model-value="pulse.id"
        :label="say.whose"
        :said="say.whose"
        :options="choices"
        @update:model-value="shown = $event ?? null"
      />
      <p v-else class="said">{{ pulse.name }}</p>
      <figure ref="frame">
        <svg :width="width" :height="HIGH" :viewBox="`0 0 ${width} ${HIGH}`" role="img" :aria-label="say.picture">
          <path :d="trace" class="trace" />
          <path :d="curve" class="pulse" />
        </svg>
        <figcaption>{{ pulse.curve ? say.picture : say.deleted }}</figcaption>
      </figure>
      <dl>
        <div v-for="[name, value] in rows" :key="name">
          <dt>{{ name }}</dt>
          <dd>{{ value }}</dd>
        </div>
      </dl>
      <p class="said">{{ say.withPulses(whole(pulse.figures.max_hr), whole(pulse.figures.rest_hr)) }}</p>
      <p v-if="pulse.curve" class="line">
        <SureButton :label="say.forget" :warning="say.warning" @sure="forget(pulse.id)" />
      </p>
    </template>
    <button v-if="!adding" type="button" class="link" @click="adding = true">{{ say.bring }}</button>
    <div v-else class="line">
      <ChoiceField v-model="person" :label="say.whose" :said="say.whose" :options="people" />
      <NumberField v-model="most" :label="say.most" :said="say.most" :max="250" />
      <NumberField v-model="rest" :label="say.rest" :said="say.rest" :max="150" />
      <ElUpload v-if="person" accept=".csv,.tcx" :auto-upload="false" :show-file-list="false" :on-change="bring">
        <!-- The upload is a button itself: what stands in it only looks like one. -->
        <span class="link">{{ say.file }}</span>
      </ElUpload>
      <ElButton size="small" @click="adding = false">{{ say.close }}</ElButton>
    </div>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
h2 {
  border: 0;
  margin: 10px 0 0;
}
figure {
  margin: 4px 0;
}
figcaption {
  font-size: 11.5px;
  color: var(--mute);
  text-align: right;
}
.trace,
.pulse {
  fill: none;
  stroke-width: 1.5;
}
.trace {
  stroke: var(--ribbon);
  stroke-dasharray: 4 3;
}
.pulse {
  stroke: var(--ink);
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 4px 0;
}
dt {
  font-size: 12px;
  color: var(--mute);
}
dd {
  margin: 0;
  font: 600 18px/1.2 var(--head);
}
</style>
