<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Step } from '@/api/types'
import { withFreshIds, type PlacePart } from '@/composables/edits'
import { movementIn, useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import { STEP_LINE as say } from '@/words/texts/bench'

import { useBench } from './bench'
import LoadCells from './LoadCells.vue'
import MovementPicker from './MovementPicker.vue'
import StepMore from './StepMore.vue'
import { useMoveKeys } from './useMoves'
import ValueCell from './ValueCell.vue'

const props = defineProps<{
  step: Step
  place: PlacePart[]
  path: string
  clock: string
  list: PlacePart[]
  index: number
  length: number
}>()
const { wrong, document, edit, lit, pointed } = useBench()
const { byKey, codeOf } = useMovements()
const { labelOf } = useTables()
const keys = useMoveKeys(edit)

const movement = computed(() => movementIn(document.value, byKey.value, props.step.movement))
const code = computed(() => codeOf(movement.value))
const name = computed(() => movement.value?.name ?? props.step.movement)
const unknown = computed(() => wrong.value.get(`${props.path}.movement`) ?? wrong.value.get(props.path))
const picking = ref(false)
const more = ref(false)

/** What is said behind the numbers: nothing that matters is dropped. */
const qualifiers = computed(() => {
  const { step } = props
  const words: string[] = []
  if (step.fill) words.push(say.toFill)
  if (step.chain) words.push(say.thenInTheSameStart)
  if (step.grow) words.push(say.moreEachRound(step.grow))
  if (step.sides && step.sides !== 'both') words.push(labelOf('sides', step.sides))
  if (step.reserve !== undefined && step.reserve !== null) words.push(say.leftInReserve(step.reserve))
  if (step.tempo) words.push(say.tempo(step.tempo.join('-')))
  if (step.pace_s) words.push(say.secondsARep(step.pace_s))
  if (step.effort) words.push(step.effort)
  if (step.options?.length) words.push(say.or(step.options.map((option) => option.label).join(', ')))
  if (step.note) words.push(step.note)
  return words.join(', ')
})
/** Doses that this step has, or could have under its clock. */
const doses = computed(() => {
  const all = [
    { key: 'reps', label: say.reps, unit: '' },
    { key: 'seconds', label: say.for, unit: 's' },
    { key: 'metres', label: say.metres, unit: 'm' },
  ] as const
  return all.filter((dose) => props.step[dose.key] !== undefined || (more.value && !props.step.fill))
})

function pick(key: string): void {
  picking.value = false
  const sides = movementIn(document.value, byKey.value, key)?.sides
  edit([
    { op: 'set', place: [...props.place, 'movement'], value: key },
    // One-sided movements say how their sides count, so that figures start honest.
    ...(sides && sides !== 'both' ? [{ op: 'set' as const, place: [...props.place, 'sides'], value: sides }] : []),
  ])
}
function again(): void {
  if (!document.value) return
  const copy = withFreshIds(document.value, props.step)
  edit([{ op: 'insert', place: props.list, index: props.index + 1, value: copy }])
}
const remove = (): void => edit([{ op: 'remove', place: props.list, index: props.index }])
const isPointed = computed(
  () => pointed.value !== null && pointed.value.step === (props.step.id ?? String(props.index)),
)
</script>

<template>
  <li
    class="step"
    :class="{ pointed: isPointed }"
    @mouseenter="lit = { step: step.id ?? String(index) }"
    @mouseleave="lit = null"
  >
    <button
      type="button"
      class="grip"
      :aria-label="say.moveArrowUpOrDown(name)"
      :title="say.dragOrArrowKeys"
      @keydown="keys($event, list, index, length)"
    >
      ⋮
    </button>
    <span class="code" aria-hidden="true">{{ code }}</span>
    <button
      type="button"
      class="plain name"
      :aria-expanded="picking"
      :title="say.change(name)"
      @click="picking = !picking"
    >
      {{ name }}
    </button>
    <ValueCell
      v-for="dose in doses"
      :key="dose.key"
      :label="dose.label"
      :unit="dose.unit"
      :value="step[dose.key]"
      :place="[...place, dose.key]"
      :path="`${path}.${dose.key}`"
    />
    <LoadCells :step="step" :place="place" :path="path" :more="more" />
    <ValueCell
      v-if="step.rest_s !== undefined || more"
      :label="say.rest"
      unit="s"
      :value="step.rest_s"
      :place="[...place, 'rest_s']"
      :path="`${path}.rest_s`"
    />
    <span v-if="qualifiers && !more" class="said">{{ qualifiers }}</span>
    <span class="tools">
      <button type="button" class="link" :aria-expanded="more" @click="more = !more">
        {{ more ? say.less : say.more }}<span class="visually-hidden">{{ say.of(name) }}</span>
      </button>
      <button type="button" class="link" @click="again">
        {{ say.again }}<span class="visually-hidden">: {{ name }}</span>
      </button>
      <button v-if="length > 1" type="button" class="link" @click="remove">
        {{ say.remove }}<span class="visually-hidden"> {{ name }}</span>
      </button>
    </span>
    <span v-if="unknown" class="why" role="alert">
      {{ say.foundAllowed(unknown.path, unknown.found, unknown.allowed) }}
    </span>
    <MovementPicker v-if="picking" class="wide" :label="say.insteadOf(name)" @pick="pick" @close="picking = false" />
    <StepMore v-if="more" class="wide" :step="step" :place="place" :path="path" :clock="clock" />
  </li>
</template>

<style scoped>
.step {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  padding: 1px 0;
  position: relative;
}
.pointed {
  background: var(--warn-sheet);
}
.grip {
  background: none;
  border: 0;
  min-width: 24px;
  min-height: 24px;
  padding: 0;
  color: var(--mute);
  cursor: grab;
  touch-action: none;
}
.name {
  font-weight: 600;
  text-align: left;
}
.name:hover {
  text-decoration: underline;
  text-underline-offset: 2px;
}
.said {
  color: var(--mute);
}
.tools {
  display: inline-flex;
  gap: 9px;
  position: absolute;
  right: 0;
  top: 2px;
  padding-left: 8px;
  background: var(--paper);
  font-size: 12.5px;
  opacity: 0;
}
.tools .link {
  font-size: 12.5px;
}
.step:hover .tools,
.step:focus-within .tools {
  opacity: 1;
}
.wide {
  flex-basis: 100%;
}
.why {
  flex-basis: 100%;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
  font-size: 13px;
}
@media (hover: none) {
  .tools {
    position: static;
    opacity: 1;
  }
}
</style>
