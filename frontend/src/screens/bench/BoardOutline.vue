<script setup lang="ts">
import type { OutlineBlock } from '@/api/types'
import { useTables } from '@/composables/useTables'
import { clock } from '@/words/format'
import { BOARD_OUTLINE as say } from '@/words/texts/board'

import { useBench } from './bench'

defineProps<{ outline: readonly OutlineBlock[] }>()
const { figures, lit } = useBench()
const { labelOf } = useTables()
const partOf = (key: string): string => {
  const name = labelOf('parts', key)
  return `${name.charAt(0).toUpperCase()}${name.slice(1)}`
}
const length = (index: number): string => {
  const one = figures.value?.blocks[index]
  return one ? clock(one.total_s) : ''
}
</script>

<template>
  <ol class="outline" :aria-label="say.whatTheWordsComeTo">
    <li v-for="(block, index) in outline" :key="index" @mouseenter="lit = { block: index }" @mouseleave="lit = null">
      <h3>
        <span
          >{{ block.title ?? partOf(block.part) }}<i v-if="block.heading">{{ block.heading }}</i></span
        >
        <b>{{ length(index) }}</b>
      </h3>
      <p>
        <span v-for="(step, number) in block.steps" :key="number" class="step" :class="{ fresh: step.provisional }">
          <abbr>{{ step.code }}</abbr> {{ step.words
          }}<em v-if="step.provisional" class="visually-hidden">{{ say.newGuessed }}</em>
        </span>
      </p>
    </li>
  </ol>
</template>

<style scoped>
.outline {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--rule);
  padding: 8px 2px;
}
h3 {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  margin: 0;
  font: 600 17px/1.25 var(--head);
}
h3 i {
  display: block;
  color: var(--mute);
  font: 400 13px/1.35 var(--text);
}
b {
  font-variant-numeric: tabular-nums;
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 4px 0 0;
  font-size: 14px;
}
abbr {
  border: 1px solid var(--ink);
  padding: 0 3px;
  font: 600 11px/1.3 var(--head);
}
.fresh,
.fresh abbr {
  color: var(--warn);
  border-color: var(--warn);
}
.fresh abbr {
  border-style: dashed;
}
</style>
