<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { MovementChain } from '@/api/types'
import { useMovements } from '@/composables/useMovements'
import { MOVEMENT_PAGE as say } from '@/words/texts/movements'

// Easier to the left, harder to the right: a column a step, a line from each to what follows it.
const props = defineProps<{ chain: MovementChain }>()
const emit = defineEmits<{ show: [key: string] }>()
const { nameOf } = useMovements()
const WIDE = 168
const HIGH = 44
const GAP = 34
/** So many of a column are seen at once; the rest is asked for. */
const MOST = 6
const whole = ref(false)
watch(
  () => props.chain,
  () => (whole.value = false),
)
const columns = computed(() => props.chain.columns.map((one) => (whole.value ? one : one.slice(0, MOST))))
const hidden = computed(() => props.chain.columns.flat().length - columns.value.flat().length)
const rows = computed(() => Math.max(...columns.value.map((one) => one.length)))
const left = (column: number): number => column * (WIDE + GAP)
/** Columns stand in the middle of the tallest. */
const top = (column: number, row: number): number =>
  (row + (rows.value - (columns.value[column]?.length ?? 0)) / 2) * HIGH
const placeOf = (key: string): { column: number; row: number } => {
  const column = columns.value.findIndex((one) => one.includes(key))
  return { column, row: columns.value[column]?.indexOf(key) ?? 0 }
}
const lines = computed(() =>
  props.chain.links.flatMap((link) => {
    const from = placeOf(link.easier)
    const to = placeOf(link.harder)
    if (from.column < 0 || to.column < 0) return []
    const [x1, y1] = [left(from.column) + WIDE, top(from.column, from.row) + HIGH / 2]
    const [x2, y2] = [left(to.column), top(to.column, to.row) + HIGH / 2]
    return `M${x1} ${y1}C${x1 + GAP / 2} ${y1} ${x2 - GAP / 2} ${y2} ${x2} ${y2}`
  }),
)
const width = computed(() => left(columns.value.length) - GAP)
const height = computed(() => rows.value * HIGH)
const head = (column: number): string =>
  column < props.chain.place ? say.easiest : column > props.chain.place ? say.hardest : say.this
</script>

<template>
  <div class="chain" tabindex="0" role="group" :aria-label="say.chain">
    <div class="drawn" :style="{ width: `${width}px`, height: `${height + 22}px` }">
      <svg class="one-ink" :width="width" :height="height" aria-hidden="true">
        <path v-for="(line, index) in lines" :key="index" :d="line" />
      </svg>
      <ol
        v-for="(column, at) in columns"
        :key="at"
        :aria-label="head(at)"
        :style="{ left: `${left(at)}px`, width: `${WIDE}px` }"
      >
        <li v-for="(key, row) in column" :key="key" :style="{ top: `${top(at, row) + 22}px`, height: `${HIGH}px` }">
          <span v-if="at === chain.place" class="name here">{{ nameOf(key) }}</span>
          <button v-else type="button" class="name" @click="emit('show', key)">{{ nameOf(key) }}</button>
        </li>
        <li class="head" aria-hidden="true">{{ head(at) }}</li>
      </ol>
    </div>
    <button v-if="hidden" type="button" class="link" @click="whole = true">{{ say.whole(hidden) }}</button>
  </div>
</template>

<style scoped>
.chain {
  overflow-x: auto;
  padding-bottom: 6px;
}
.drawn {
  position: relative;
}
svg {
  position: absolute;
  top: 22px;
  fill: none;
  stroke: currentcolor;
  stroke-width: 1;
}
ol {
  position: absolute;
  inset-block: 0;
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  position: absolute;
  width: 100%;
  display: flex;
  align-items: center;
}
.head {
  top: 0;
  color: var(--mute);
  font-size: 12.5px;
}
.name {
  width: 100%;
  min-height: 34px;
  max-height: 40px;
  overflow: hidden;
  border: 1px solid var(--field);
  background: var(--sheet);
  padding: 2px 8px;
  line-height: 1.15;
  text-align: left;
  display: flex;
  align-items: center;
}
button.name {
  cursor: pointer;
  color: var(--act);
}
.here {
  border: 2px solid var(--ink);
  font-weight: 600;
}
</style>
