<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Step } from '@/api/types'
import { withFreshIds, type PathPart } from '@/composables/edits'
import { movementIn, useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import OtherwiseLines from '@/parts/OtherwiseLines.vue'
import { STEP_LINE as say } from '@/words/texts/bench'

import { useBench } from './bench'
import LoadCells from './LoadCells.vue'
import MovementPicker from './MovementPicker.vue'
import StepMore from './StepMore.vue'
import { useMoveKeys } from './useMoves'
import ValueCell from './ValueCell.vue'

const props = defineProps<{
  step: Step
  editPath: PathPart[]
  path: string
  clock: string
  /** The block it is in. */
  number: number
  list: PathPart[]
  index: number
  length: number
}>()
const { wrong, document, edit, lit, light: shining, otherwise } = useBench()
const { byKey, codeOf } = useMovements()
const { tables, labelOf } = useTables()
const keys = useMoveKeys(edit)

const movement = computed(() => movementIn(document.value, byKey.value, props.step.movement))
const code = computed(() => codeOf(movement.value))
const name = computed(() => movement.value?.name ?? props.step.movement)
const unknown = computed(() => wrong.value.get(`${props.path}.movement`) ?? wrong.value.get(props.path))
/** Who does it otherwise. */
const others = computed(() => otherwise.value.get(props.path) ?? [])
const picking = ref(false)
const more = ref(false)

/** What is said behind the numbers: nothing that matters is dropped. */
const qualifiers = computed(() => {
  const { step } = props
  const words: string[] = []
  if (step.fill) words.push(say.toFill)
  if (step.chain) words.push(say.thenInTheSameStart)
  if (step.grow) words.push(say.moreEachRound(step.grow))
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
    { key: 'metres', label: say.distance, unit: 'm' },
  ] as const
  return all.filter((dose) => props.step[dose.key] !== undefined || (more.value && !props.step.fill))
})
/** Sides are said where they are not simply both: of a movement of one side, or where the step says so. */
const oneSided = computed(() => [props.step.sides, movement.value?.sides].some((sides) => sides && sides !== 'both'))
/** What holds where the step says nothing. */
const ownSides = computed(() =>
  movement.value?.sides ? labelOf('sides', movement.value.sides) : say.asTheMovementHasIt,
)
function putSides(event: Event): void {
  const place = [...props.editPath, 'sides']
  const value = (event.target as HTMLSelectElement).value
  edit([value ? { op: 'set', path: place, value } : { op: 'set', path: place, unset: true }])
}

function pick(key: string): void {
  picking.value = false
  const sides = movementIn(document.value, byKey.value, key)?.sides
  edit([
    { op: 'set', path: [...props.editPath, 'movement'], value: key },
    // One-sided movements say how their sides count, so that figures start honest.
    ...(sides && sides !== 'both' ? [{ op: 'set' as const, path: [...props.editPath, 'sides'], value: sides }] : []),
  ])
}
function again(): void {
  if (!document.value) return
  const copy = withFreshIds(document.value, props.step)
  edit([{ op: 'insert', path: props.list, index: props.index + 1, value: copy }])
}
const remove = (): void => edit([{ op: 'remove', path: props.list, index: props.index }])
/** Arrows on the grip move the step, Delete takes it out. */
function gripKeys(event: KeyboardEvent): void {
  if (event.key !== 'Delete' || props.length < 2) {
    keys(event, props.list, props.index, props.length)
    return
  }
  event.preventDefault()
  remove()
}
const light = (on: boolean): void => {
  lit.value = on ? { step: props.step.id ?? String(props.index) } : { block: props.number }
}
const isPointed = computed(() => shining.value.steps.has(props.step.id ?? String(props.index)))
</script>

<template>
  <li
    class="step"
    :class="{ pointed: isPointed, open: more, picking }"
    @mouseenter="light(true)"
    @mouseleave="light(false)"
    @focusin.stop="light(true)"
    @focusout="light(false)"
  >
    <button
      type="button"
      class="grip"
      :aria-label="`${code} ${say.moveArrowUpOrDown(name)}`.trim()"
      :title="say.dragOrArrowKeys"
      @keydown="gripKeys"
    >
      <span class="code" aria-hidden="true">{{ code }}</span>
    </button>
    <ValueCell
      v-for="dose in doses"
      :key="dose.key"
      :label="dose.label"
      :hide-label="!more"
      first
      :unit="dose.unit"
      :value="step[dose.key]"
      :edit-path="[...editPath, dose.key]"
      :path="`${path}.${dose.key}`"
    />
    <button
      type="button"
      class="plain name"
      :aria-expanded="picking"
      :title="say.change(name)"
      @click="picking = !picking"
    >
      {{ name }}
    </button>
    <LoadCells :step="step" :edit-path="editPath" :path="path" :more="more" />
    <ValueCell
      v-if="step.rest_s !== undefined || more"
      :label="say.rest"
      unit="s"
      first
      :value="step.rest_s"
      :edit-path="[...editPath, 'rest_s']"
      :path="`${path}.rest_s`"
    />
    <label v-if="oneSided || more" class="sides">
      <span :class="{ 'visually-hidden': !more }">{{ say.sides }}</span>
      <select :value="step.sides ?? ''" @change="putSides">
        <option value="">{{ ownSides }}</option>
        <option v-for="one in tables.sides" :key="one.key" :value="one.key">{{ one.label }}</option>
      </select>
    </label>
    <span v-if="qualifiers && !more" class="said">{{ qualifiers }}</span>
    <OtherwiseLines v-if="others.length" :all="others" />
    <button type="button" class="plain dots" :aria-expanded="more" :title="say.more" @click="more = !more">
      <span aria-hidden="true">{{ more ? '−' : '⋯' }}</span><span class="visually-hidden"
        >{{ more ? say.less : say.more }}{{ say.of(name) }}</span
      >
    </button>
    <span v-if="unknown" class="why" role="alert">
      {{ say.foundAllowed(unknown.path, unknown.found, unknown.allowed) }}
    </span>
    <MovementPicker
      v-if="picking"
      class="over"
      :label="say.insteadOf(name)"
      :near="step.movement"
      @pick="pick"
      @close="picking = false"
    />
    <StepMore v-if="more" class="wide" :step="step" :edit-path="editPath" :path="path" :clock="clock">
      <button type="button" class="link" @click="again">
        {{ say.again }}<span class="visually-hidden">: {{ name }}</span>
      </button>
      <button v-if="length > 1" type="button" class="link" @click="remove">
        {{ say.remove }}<span class="visually-hidden"> {{ name }}</span>
      </button>
    </StepMore>
  </li>
</template>

<style scoped src="./step-line.css"></style>
