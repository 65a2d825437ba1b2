<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Term } from '@/api/types'
import { signed } from '@/words/format'

import { useBench, type Lit } from './bench'
import OpenedFigure from '@/parts/OpenedFigure.vue'

const props = defineProps<{ figure: string; label: string; value: string; unit?: Term['unit']; lights?: Lit }>()
const { deltas, lit } = useBench()
const open = ref(false)
const delta = computed(() => deltas.value?.[props.figure])
</script>

<template>
  <div class="row" @mouseenter="lit = lights ?? null" @mouseleave="lit = null">
    <button
      type="button"
      class="plain head"
      :aria-expanded="open"
      @click="open = !open"
      @focus="lit = lights ?? null"
      @blur="lit = null"
    >
      <span>{{ label }}</span>
      <small v-if="delta !== undefined">{{ signed(delta, unit ?? 'count') }}</small>
      <b>{{ value }}</b>
      <i aria-hidden="true">{{ open ? '−' : '+' }}</i>
    </button>
    <OpenedFigure v-if="open" :figure="figure" />
  </div>
</template>

<style scoped>
.row {
  border-bottom: 1px dotted var(--rule);
}
.head {
  display: flex;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  text-align: left;
  padding: 4px 0;
}
.head span {
  flex: 1;
}
.head:hover {
  background: var(--paper);
}
small {
  color: var(--warn);
  font-weight: 600;
}
i {
  color: var(--mute);
  font-style: normal;
  width: 12px;
  text-align: right;
}
</style>
