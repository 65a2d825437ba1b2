<script setup lang="ts">
import { computed, reactive, useTemplateRef } from 'vue'

import type { MovementDef } from '@/api/types'
import { useMovements, type Narrowed } from '@/composables/useMovements'
import { MOVEMENT_PICKER as say } from '@/words/texts/parts'

import { plansHere, squadNow } from '@/composables/useAccount'
import { useLastDone } from '@/composables/useTables'
import ChoiceField from './ChoiceField.vue'
import FindField from './FindField.vue'

const props = defineProps<{
  label: string
  start?: string
  /** Movements that only this document knows. */
  own?: readonly MovementDef[]
  /** The key of the movement whose like is looked for: before anything is typed, those near to it stand first. */
  near?: string
  /** Whether what is not known can be defined here. */
  definable?: boolean
}>()
const emit = defineEmits<{ pick: [key: string]; define: [words: string]; close: [] }>()

interface Found {
  value: string
  movement: MovementDef | null
}
const MOST_SHOWN = 40
const { search, nearTo, codeOf, kits, joints, positions, patterns, ready } = useMovements()
const lastDone = useLastDone(() => (plansHere.value ? squadNow.value : 0))
const last = ({ key }: MovementDef): string => {
  const days = lastDone.value[key]
  return days === undefined ? '' : ` · ${days === 0 ? say.doneToday : say.lastDone(days)}`
}
const narrowed = reactive<Narrowed>({ pattern: '', kit: '', position: '', spare: '' })
const field = useTemplateRef<{ again: () => Promise<void>; typed: string }>('field')

/** A hand that is faster than the library waits for it. */
async function find(words: string): Promise<Found[]> {
  await ready()
  const { near: key, own = [] } = props
  const like = key && !words.trim() ? { key, near: await nearTo(key, own) } : undefined
  const found = search(words, narrowed, own, like).slice(0, MOST_SHOWN)
  return found.length
    ? found.map((movement) => ({ value: movement.name ?? movement.key, movement }))
    : [{ value: words, movement: null }]
}
function take(one: Found | null, words: string): void {
  if (one?.movement) emit('pick', one.movement.key)
  else if (props.definable && words.trim()) emit('define', words)
}
const weights = (m: MovementDef): string =>
  Object.entries(m.patterns ?? {})
    .map(([name, weight]) => (weight === 1 ? name : `${name} ${Math.round(weight * 100)} %`))
    .join(', ')
const pace = (m: MovementDef): string =>
  m.pace_s ? `${m.pace_s} s a rep` : m.speed_mps ? `${m.speed_mps} m a second` : say.noReps
const words = (all: readonly string[], say = (one: string): string => one) =>
  all.map((one) => ({ value: one, label: say(one) }))
const FILTERS = computed(() => [
  { name: 'pattern' as const, label: say.pattern, any: say.anyPattern, choices: words(patterns.value) },
  {
    name: 'kit' as const,
    label: say.kit,
    any: say.anyKit,
    choices: words(['none', ...kits.value], (one) => (one === 'none' ? say.noKit : one)),
  },
  { name: 'position' as const, label: say.position, any: say.anyPosition, choices: words(positions.value) },
  {
    name: 'spare' as const,
    label: say.jointToSpare,
    any: say.noJointToSpare,
    choices: words(joints.value, say.spare),
  },
])
function narrow(name: keyof Narrowed, to: string | null | undefined): void {
  narrowed[name] = to ?? ''
  void field.value?.again()
}
</script>

<template>
  <div class="choosing" @keydown.esc.capture.stop.prevent="emit('close')">
    <p class="choosing-line">
      <b aria-hidden="true">{{ label }}</b>
      <FindField
        ref="field"
        v-slot="{ item }: { item: Found }"
        :label="label"
        :start="start"
        :placeholder="say.aNameOrAPart"
        :at-once="near !== undefined"
        :find="find"
        @take="take"
      >
        <span v-if="item.movement" class="found">
          <span class="code" aria-hidden="true">{{ codeOf(item.movement) }}</span>
          <b>{{ item.value }}</b>
          <span>{{ weights(item.movement) }}</span>
          <small>
            {{ pace(item.movement) }}<template v-if="item.movement.rep_is"> · {{ item.movement.rep_is }}</template
            >{{ last(item.movement) }}
          </small>
        </span>
        <span v-else class="found none">
          {{ say.nothingIsCalledSoHere }}<template v-if="definable">{{ say.enterDefinesItAsA }}</template>
        </span>
      </FindField>
      <button v-if="definable" type="button" class="link" @click="emit('define', field?.typed ?? '')">
        {{ say.defineANewOne }}
      </button>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </p>
    <p class="choosing-line filters">
      <ChoiceField
        v-for="filter in FILTERS"
        :key="filter.name"
        :model-value="narrowed[filter.name]"
        :label="filter.label"
        :options="[{ value: '', label: filter.any }, ...filter.choices]"
        @update:model-value="narrow(filter.name, $event)"
      />
    </p>
  </div>
</template>

<style scoped src="@/styles/choosing.css"></style>
<style scoped>
.filters {
  color: var(--mute);
}
</style>
