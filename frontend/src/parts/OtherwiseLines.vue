<script setup lang="ts">
import { computed } from 'vue'

import type { Otherwise } from '@/api/types'
import { useMovements } from '@/composables/useMovements'
import { byStep, otherwiseLines } from '@/words/otherwise'
import { OTHERWISE as say } from '@/words/texts/parts'

// Who does a step otherwise: everybody sees the option; why is there for those who may know.
const props = defineProps<{
  all: readonly Otherwise[]
  /** Before each: which step it is, where that is not plain. */ named?: boolean
}>()
const { nameOf } = useMovements()
const steps = computed(() =>
  [...byStep(props.all).values()].map((some) => ({
    movement: props.named ? nameOf(some[0]?.movement ?? '') : '',
    lines: otherwiseLines(some, nameOf),
  })),
)
</script>

<template>
  <span v-for="(step, at) in steps" :key="at" class="others">
    <b v-if="step.movement">{{ step.movement }}</b>
    <span v-for="line in step.lines" :key="line.says" :class="{ open: line.open }"
      >{{ line.says }}<template v-if="line.why">{{ say.because(line.why) }}</template></span
    >
  </span>
</template>

<style scoped>
.others {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 10px;
  font-size: 13px;
  color: var(--act);
}
.open {
  color: var(--warn);
}
</style>
