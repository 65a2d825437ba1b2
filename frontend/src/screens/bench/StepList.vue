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
const props = defineProps<{ list: PlacedSteps; clock: string; block: string; number: number }>()
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
  edit([{ op: 'insert', path: props.list.editPath, index: props.list.steps.length, value }])
}
</script>

<template>
  <div class="steps" :class="{ of: list.station }">
    <span v-if="list.station" class="station">{{ list.station }}</span>
    <ul ref="steps" :data-list="JSON.stringify(list.editPath)">
      <StepLine
        v-for="(step, index) in list.steps"
        :key="step.id ?? index"
        :step="step"
        :clock="clock"
        :number="number"
        :list="list.editPath"
        :index="index"
        :length="list.steps.length"
        :edit-path="step.id ? [step.id] : [...list.editPath, index]"
        :path="`${list.path}[${index}]`"
      />
    </ul>
    <MovementPicker v-if="adding" class="over" :label="say.movementToAdd" @pick="add" @close="adding = false" />
    <button v-else type="button" class="plain add" :title="say.addAMovement" @click="adding = true">
      <span aria-hidden="true">+</span
      ><span class="visually-hidden">{{ say.addAMovement }}{{ say.to(list.station ?? block) }}</span>
    </button>
  </div>
</template>

<style scoped>
/* Movements stand in a line, as words do. */
ul {
  display: inline;
  list-style: none;
  margin: 0;
  padding: 0;
}
.steps {
  position: relative;
}
.over {
  position: absolute;
  left: 0;
  right: 0;
  z-index: 3;
}
.station {
  font: 600 14px var(--head);
  margin-right: 10px;
}
.add {
  min-width: 24px;
  color: var(--act);
  font-weight: 600;
}
</style>
