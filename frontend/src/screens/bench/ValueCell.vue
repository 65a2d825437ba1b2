<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'

import type { Edit, PathPart } from '@/composables/edits'
import { clock } from '@/words/format'
import { signOf } from '@/words/units'
import { nudged, readValue, valueFromUnits, valueInUnits, writeValue } from '@/words/values'
import { VALUE_CELL as say } from '@/words/texts/bench'

import { useBench } from './bench'
import { useChosenWhole } from './useChosenWhole'

const props = defineProps<{
  label: string
  value: unknown
  editPath: PathPart[]
  /** The place as the server names it, to find its word on it. */
  path: string
  unit?: string
  text?: boolean
  /** Write whole seconds as 45:00, and read a plain number as minutes: so is a length told. */
  asClock?: boolean
  hideLabel?: boolean
  /** The number before its word, as in a sentence: 30 s work. */
  first?: boolean
  /** The rest of its name, for whoever does not see where it stands. */
  aside?: string
  placeholder?: string
}>()
/** From here on seconds are read as a clock. */
const CLOCK_FROM_S = 120

const { edit, wrong, nudge, trying, keep, giveBack } = useBench()
const id = useId()
const isFar = computed(() => props.unit === 'm')
function write(value: unknown): string {
  if (isFar.value) return writeValue(valueInUnits(value, 'm'))
  const long = props.asClock || (props.unit === 's' && Number.isInteger(value) && Number(value) >= CLOCK_FROM_S)
  return long && typeof value === 'number' ? clock(value) : writeValue(value)
}
const typed = ref(write(props.value))
function read(text: string): unknown {
  if (props.text) return text
  const value = isFar.value ? valueFromUnits(readValue(text), 'm') : readValue(text)
  return props.asClock && typeof value === 'number' && !text.includes(':') ? value * 60 : value
}
/** A clock needs no unit. */
const shownUnit = computed(() => {
  if (isFar.value) return signOf('m')
  return props.unit === 's' && typed.value.includes(':') ? '' : props.unit
})
/** A list for the rounds is a small row of numbers, one a round. */
const list = computed(() => (!props.text && Array.isArray(props.value) && props.value.length > 1 ? props.value : null))

// What was typed stays as it is while it means the value; the value wins when it changed elsewhere (undo).
watch(
  () => props.value,
  (value) => {
    if (JSON.stringify(read(typed.value)) !== JSON.stringify(value)) typed.value = write(value)
  },
)

function edits(value: unknown): Edit[] {
  return [
    value === undefined ? { op: 'set', path: props.editPath, unset: true } : { op: 'set', path: props.editPath, value },
  ]
}
const key = computed(() => props.editPath.join('/'))

function commit(): void {
  const value = read(typed.value)
  if (JSON.stringify(value) !== JSON.stringify(props.value)) edit(edits(value), key.value)
}
function commitOne(index: number, text: string): void {
  if (!list.value) return
  const value = list.value.map((one, at) => (at === index ? (read(text) ?? 0) : one))
  if (JSON.stringify(value) !== JSON.stringify(props.value)) edit(edits(value), key.value)
}
function oneForAll(): void {
  if (list.value) edit(edits(list.value[0]))
}

/** Arrow keys nudge a number on trial; Enter keeps it, Escape gives it back. */
function nudgeKeys(event: KeyboardEvent, index = -1): void {
  if (trying.value && event.key === 'Enter') keep()
  else if (trying.value && event.key === 'Escape') giveBack()
  else {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    if (by === undefined || props.text) return
    const now = index < 0 ? props.value : list.value?.[index]
    const step = by * (event.shiftKey ? 5 : 1)
    const next = isFar.value
      ? valueFromUnits(nudged(valueInUnits(now, 'm'), step, false), 'm')
      : nudged(now, step, props.unit === 's')
    if (next === undefined) return
    nudge(edits(index < 0 ? next : list.value?.map((one, at) => (at === index ? next : one))), key.value)
  }
  event.preventDefault()
  event.stopPropagation()
}
function leave(): void {
  if (trying.value) keep()
  // Minutes that were typed stand as a clock from then on.
  if (props.asClock && typeof props.value === 'number') typed.value = write(props.value)
}
const { pointAt, chooseAll } = useChosenWhole()

const problem = computed(() => {
  const exact = wrong.value.get(props.path)
  if (exact) return exact
  // A list or a range is named with its part: rest_s[1], reps.low.
  for (const [path, found] of wrong.value) {
    if (path.startsWith(`${props.path}[`) || path.startsWith(`${props.path}.`)) return found
  }
  return undefined
})
const size = computed(() => Math.max(props.text ? 8 : 3, Math.min(40, typed.value.length + 1)))
</script>

<template>
  <span class="cell" :class="{ bad: problem, unset: typed === '', first }">
    <template v-if="list">
      <span :id="id" :class="{ 'visually-hidden': hideLabel }" class="label">{{ label }}</span>
      <span class="row" role="group" :aria-labelledby="id">
        <input
          v-for="(one, index) in list"
          :key="index"
          :value="write(one)"
          size="3"
          inputmode="decimal"
          :aria-label="say.round(label, index + 1)"
          autocomplete="off"
          @input="commitOne(index, ($event.target as HTMLInputElement).value)"
          @keydown="nudgeKeys($event, index)"
          @mousedown="pointAt"
          @click="chooseAll"
          @blur="leave"
        />
        <span v-if="unit" class="unit" aria-hidden="true">{{ isFar ? signOf('m') : unit }}</span>
        <button type="button" class="link" :title="say.oneForAllRounds(label)" @click="oneForAll">
          {{ say.oneForAll }}<span class="visually-hidden">{{ say.rounds(label) }}</span>
        </button>
      </span>
    </template>
    <template v-else>
      <label :for="id" :class="{ 'visually-hidden': hideLabel }"
        >{{ label }}<span v-if="aside" class="visually-hidden">{{ aside }}</span></label
      >
      <input
        :id="id"
        v-model="typed"
        :size="size"
        :placeholder="placeholder"
        :inputmode="text ? 'text' : 'decimal'"
        autocomplete="off"
        spellcheck="false"
        :aria-invalid="problem ? 'true' : undefined"
        :aria-describedby="problem ? `${id}-why` : undefined"
        @input="commit"
        @keydown="nudgeKeys($event)"
        @mousedown="pointAt"
        @click="!text && chooseAll($event)"
        @blur="leave"
      />
      <span v-if="shownUnit && typed !== ''" class="unit" aria-hidden="true">{{ shownUnit }}</span>
    </template>
    <span v-if="problem" :id="`${id}-why`" class="why" role="alert">
      {{ say.foundAllowed(problem.path, problem.found, problem.allowed) }}
    </span>
  </span>
</template>

<style scoped>
.cell {
  display: inline-flex;
  align-items: baseline;
  gap: 4px;
  flex-wrap: wrap;
}
label,
.label {
  color: var(--mute);
}
.first > label,
.first > .label {
  order: 1;
  color: inherit;
}
.first {
  gap: 2px 3px;
}
.first input {
  border-bottom: 1px dotted var(--rule);
  padding-inline: 1px;
  text-align: center;
}
.row {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 3px;
}
/* A cell is as wide as what it holds, and quiet until it is pointed at. */
input {
  field-sizing: content;
  min-width: 14px;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  max-width: 100%;
}
.unset input {
  min-width: 30px;
}
.row input {
  width: 34px;
  text-align: center;
}
input:hover {
  background: var(--sheet);
}
input:focus {
  background: var(--sheet);
  outline: 2px solid var(--act);
  outline-offset: 0;
  border-radius: 2px;
}
/* Under a thumb a cell opens large. */
@media (max-width: 600px) {
  input:focus {
    min-width: 64px;
    min-height: 44px;
    font-size: 22px;
  }
}
.unset input {
  border-bottom-style: dashed;
}
.unit {
  color: var(--mute);
}
.link {
  font-size: 12px;
}
.bad input {
  border-bottom: 2px solid var(--warn);
}
.why {
  order: 2;
  flex-basis: 100%;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
  font-size: 13px;
}
</style>
