<script setup lang="ts">
import type { CompareRow, Wish } from '@/api/types'

import TradeOff from './TradeOff.vue'
import type { Answer } from './useComparison'
import WhyNot from './WhyNot.vue'

// The picture of all that fit, and beside it why any one of them is not the first.
defineProps<{
  answer: Answer
  rows: readonly CompareRow[]
  byKey: ReadonlyMap<string, CompareRow>
  wishes: readonly Wish[]
  marked: number
  shown: number
  places: ReadonlyMap<number, number>
  whole: boolean
}>()
const axes = defineModel<[string, string]>('axes', { required: true })
defineEmits<{ mark: [column: number]; show: [key: string] }>()
</script>

<template>
  <div class="below">
    <TradeOff
      v-if="answer.pick.ranked.length"
      v-model:axes="axes"
      :columns="answer.columns"
      :rows="rows"
      :frontier="answer.frontier"
      :marked="marked"
      :shown="shown"
      :places="places"
      @mark="$emit('mark', $event)"
      @show="$emit('show', $event)"
    />
    <WhyNot
      v-if="!whole"
      :columns="answer.columns"
      :shown="shown"
      :pick="answer.pick"
      :wishes="wishes"
      :rows="byKey"
      @show="$emit('show', $event)"
    />
  </div>
</template>

<style scoped>
.below {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 30px;
  margin: 14px 0;
}
@media (max-width: 1000px) {
  .below {
    grid-template-columns: 1fr;
  }
}
@media print {
  .below {
    grid-template-columns: 1fr;
  }
}
</style>
