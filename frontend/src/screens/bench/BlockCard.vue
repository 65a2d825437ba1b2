<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Block } from '@/api/types'
import type { PlacePart } from '@/composables/edits'
import { clock, tenth } from '@/words/format'

import { blockFields, stepLists, useBench, type FieldSpec, type PlacedBlock } from './bench'
import StepLine from './StepLine.vue'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ placed: PlacedBlock }>()
const { edit, figures, formats } = useBench()

const PARTS = ['warm-up', 'main', 'finisher', 'cool-down'] as const
const block = computed(() => props.placed.block)
const own = computed(() => figures.value?.blocks[props.placed.number])
const more = ref(false)
const allFields = computed(() => blockFields(block.value))
// What is not set stays out of the way until it is asked for.
const fields = computed(() => allFields.value.filter((spec) => more.value || isSet(spec)))
const lists = computed(() => stepLists(props.placed))
const inner = computed(() => (block.value.clock.kind === 'rotation' ? block.value.clock.inner.kind : block.value.clock.kind))

function isSet(spec: FieldSpec): boolean {
  const value = fieldValue(spec)
  return value !== undefined && value !== null
}

function fieldValue(spec: FieldSpec): unknown {
  let here: unknown = block.value
  for (const key of spec.under) here = (here as Record<string, unknown>)[key]
  return (here as Record<string, unknown>)[spec.key]
}
const fieldPlace = (spec: FieldSpec): PlacePart[] => [...props.placed.place, ...spec.under, spec.key]
const fieldPath = (spec: FieldSpec): string => [props.placed.path, ...spec.under, spec.key].join('.')

function setPart(event: Event): void {
  const value = (event.target as HTMLSelectElement).value as Block['part']
  edit([{ op: 'set', place: [...props.placed.place, 'part'], value }])
}
// What the block is by its numbers: the core recognises it.
const format = computed(() => formats.value[props.placed.number]?.name ?? '')
const name = computed(() => block.value.title ?? format.value)
</script>

<template>
  <article class="block" :aria-label="`Block ${placed.number + 1}, ${name}`">
    <label class="part">
      <span class="visually-hidden">Part of block {{ placed.number + 1 }}</span>
      <select :value="block.part ?? 'main'" @change="setPart">
        <option v-for="part in PARTS" :key="part" :value="part">{{ part }}</option>
      </select>
    </label>
    <div class="body">
      <h3>
        <ValueCell
          label="Label" hide-label text :value="block.title" :place="[...placed.place, 'title']"
          :path="`${placed.path}.title`" class="label-cell"
        />
        <span v-if="format" class="clock">{{ format }}</span>
        <span v-if="block.visit && block.visit !== 'rounds'" class="clock">{{ block.visit }}</span>
        <span v-if="block.optional" class="clock">{{ block.optional === 'exit' ? 'may end before' : 'may be left out' }}</span>
      </h3>
      <p class="fields">
        <ValueCell
          v-for="spec in fields" :key="`${spec.under.join('.')}.${spec.key}`" :label="spec.label" :unit="spec.unit"
          :value="fieldValue(spec)" :place="fieldPlace(spec)" :path="fieldPath(spec)"
        />
        <button type="button" class="link more" :aria-expanded="more" @click="more = !more">
          {{ more ? 'fewer numbers' : 'more numbers' }}
        </button>
      </p>
      <div v-for="list in lists" :key="list.path">
        <p v-if="list.station" class="station">{{ list.station }}</p>
        <ul>
          <StepLine
            v-for="(step, index) in list.steps" :key="step.id ?? index" :step="step" :clock="inner" :more="more"
            :place="step.id ? [step.id] : [...list.place, index]" :path="`${list.path}[${index}]`"
          />
        </ul>
      </div>
    </div>
    <div class="sum">
      <b>{{ clock(own?.total_s) }}</b>
      <span v-if="own">effort {{ tenth(own.rpe) }}</span>
      <span v-for="(score, index) in (own?.scores ?? []).slice(0, 1)" :key="index">
        {{ 'time_s' in score ? `done in ${clock(Number(score.time_s))}` : `${score.rounds} rounds + ${score.reps}` }}
      </span>
    </div>
  </article>
</template>

<style scoped>
.block {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) auto;
  column-gap: 12px;
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
}
.part select {
  font: 600 13px var(--head);
  letter-spacing: 0.04em;
  color: var(--mute);
  background: transparent;
  border: 0;
  border-bottom: 1px dashed var(--rule);
  padding: 3px 0;
  width: 100%;
}
h3 {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: baseline;
}
.label-cell :deep(input) {
  font: 600 17px var(--head);
  border-bottom-color: transparent;
}
.label-cell :deep(input:hover),
.label-cell.unset :deep(input) {
  border-bottom-color: var(--rule);
}
.clock {
  font: 500 14px var(--head);
  color: var(--mute);
}
.more {
  font-size: 12.5px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 14px;
  margin: 2px 0 5px;
  font-size: 13px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.station {
  font: 600 14px var(--head);
  margin: 4px 0 0;
}
.sum {
  text-align: right;
  color: var(--mute);
  font-size: 12.5px;
}
.sum b {
  display: block;
  font: 600 18px var(--head);
  color: var(--ink);
}
.sum span {
  display: block;
}
@media (max-width: 600px) {
  .block {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .part {
    grid-column: 1 / -1;
  }
}
</style>
