<script setup lang="ts">
import { computed } from 'vue'

import type { Step } from '@/api/types'
import type { PlacePart } from '@/composables/edits'
import { useMovements } from '@/composables/useMovements'

import { useBench } from './bench'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ step: Step; place: PlacePart[]; path: string; clock: string; more: boolean }>()
const { wrong, document } = useBench()
const { byKey, codeOf, nameOf } = useMovements()

const own = computed(() => document.value?.movements?.find((one) => one.key === props.step.movement))
const code = computed(() => codeOf(own.value ?? byKey.value.get(props.step.movement)))
const name = computed(() => own.value?.name ?? nameOf(props.step.movement))
const unknown = computed(() => wrong.value.get(`${props.path}.movement`) ?? wrong.value.get(props.path))

const SIDES: Record<string, string> = {
  each: 'each side',
  alternate: 'sides take turns',
  swap: 'sides swap',
  left: 'left',
  right: 'right',
}
/** What is said behind the numbers: nothing that matters is dropped. */
const qualifiers = computed(() => {
  const { step } = props
  const words: string[] = []
  if (step.fill) words.push('to fill')
  if (step.chain) words.push('then in the same start')
  if (step.grow) words.push(`+${step.grow} each round`)
  if (step.sides && step.sides !== 'both') words.push(SIDES[step.sides] ?? step.sides)
  const load = Array.isArray(step.load) ? undefined : step.load
  if (load?.count) words.push(`${load.count} of them`)
  if (load?.pct_1rm) words.push(`${load.pct_1rm} % of 1RM`)
  if (load?.bodyweight) words.push(`${load.bodyweight} × body weight`)
  if (step.reserve !== undefined && step.reserve !== null) words.push(`${step.reserve} left in reserve`)
  if (step.tempo) words.push(`tempo ${step.tempo.join('-')}`)
  if (step.effort) words.push(step.effort)
  if (step.options?.length) words.push(`or ${step.options.map((option) => option.label).join(', ')}`)
  if (step.note) words.push(step.note)
  return words.join(', ')
})
/** Doses that this step has, or could have under its clock. */
const doses = computed(() => {
  const all = [
    { key: 'reps', label: 'reps', unit: '' },
    { key: 'seconds', label: 'for', unit: 's' },
    { key: 'metres', label: 'metres', unit: 'm' },
  ] as const
  const usual = props.clock === 'intervals' ? 'seconds' : 'reps'
  const any = all.some((dose) => props.step[dose.key] !== undefined)
  return all.filter((dose) => props.step[dose.key] !== undefined || (props.more && !any && !props.step.fill && dose.key === usual))
})
const kg = computed(() => (Array.isArray(props.step.load) ? undefined : props.step.load))
</script>

<template>
  <li class="step">
    <span class="code" aria-hidden="true">{{ code }}</span>
    <span class="name">{{ name }}</span>
    <ValueCell
      v-for="dose in doses" :key="dose.key" :label="dose.label" :unit="dose.unit" :value="step[dose.key]"
      :place="[...place, dose.key]" :path="`${path}.${dose.key}`"
    />
    <ValueCell
      v-if="kg?.kg !== undefined" label="load" unit="kg" :value="kg?.kg" :place="[...place, 'load', 'kg']"
      :path="`${path}.load.kg`"
    />
    <ValueCell
      v-if="step.rest_s !== undefined" label="rest" unit="s" :value="step.rest_s" :place="[...place, 'rest_s']"
      :path="`${path}.rest_s`"
    />
    <span v-if="qualifiers" class="said">{{ qualifiers }}</span>
    <span v-if="unknown" class="why" role="alert">
      {{ unknown.path }}: found {{ unknown.found }}; allowed: {{ unknown.allowed }}
    </span>
  </li>
</template>

<style scoped>
.step {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  padding: 1px 0;
}
.name {
  font-weight: 600;
}
.said {
  color: var(--mute);
}
.why {
  flex-basis: 100%;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
  font-size: 13px;
}
</style>
