<script setup lang="ts">
import { ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { withFreshIds } from '@/composables/edits'
import { STEP_LIST as say } from '@/words/texts/bench'

import { useBench, type PlacedSteps } from './bench'
import MovementPicker from './MovementPicker.vue'
import StepLine from './StepLine.vue'
import { useStepSorting } from './useDragging'

// The steps of a block, or of one of its stations; dragged within it and to any other.
const props = defineProps<{ list: PlacedSteps; clock: string; block: string }>()
const { edit, document, squad } = useBench()
const adding = ref(false)
const steps = useTemplateRef<HTMLElement>('steps')
useStepSorting(steps, edit)

async function add(movement: string): Promise<void> {
  adding.value = false
  if (!document.value) return
  const definitions = document.value.movements ?? []
  const { step } = await api.usualStep({ movement, clock: props.clock, definitions, squad: squad.value })
  if (!document.value) return
  const value = withFreshIds(document.value, step)
  edit([{ op: 'insert', place: props.list.place, index: props.list.steps.length, value }])
}
</script>

<template>
  <div>
    <p v-if="list.station" class="station">{{ list.station }}</p>
    <ul ref="steps" :data-list="JSON.stringify(list.place)">
      <StepLine
        v-for="(step, index) in list.steps"
        :key="step.id ?? index"
        :step="step"
        :clock="clock"
        :list="list.place"
        :index="index"
        :length="list.steps.length"
        :place="step.id ? [step.id] : [...list.place, index]"
        :path="`${list.path}[${index}]`"
      />
    </ul>
    <MovementPicker v-if="adding" :label="say.movementToAdd" @pick="add" @close="adding = false" />
    <button v-else type="button" class="link add" @click="adding = true">
      {{ say.addAMovement }}<span class="visually-hidden">{{ say.to(list.station ?? block) }}</span>
    </button>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.station {
  font: 600 14px var(--head);
  margin: 4px 0 0;
}
.add {
  font-size: 12.5px;
  margin-left: 22px;
}
</style>
