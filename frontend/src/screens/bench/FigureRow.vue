<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus'
import { computed, ref } from 'vue'

import type { Term } from '@/api/types'
import { signed } from '@/words/format'

import { useBench } from './bench'
import type { Lit } from './light'
import OpenedFigure from '@/parts/OpenedFigure.vue'

const props = defineProps<{ figure: string; label: string; value: string; unit?: Term['unit']; lights?: Lit }>()
const { deltas, lit, light } = useBench()
const unfolded = ref<string[]>([])
const open = computed(() => unfolded.value.length > 0)
/** Lit from elsewhere: a window, a block or a step of its row is pointed at. */
const shines = computed(
  () =>
    (props.lights?.row !== undefined && light.value.rows.has(props.lights.row)) ||
    (props.lights?.kind !== undefined && light.value.kinds.has(props.lights.kind)),
)
const delta = computed(() => deltas.value?.[props.figure])
</script>

<template>
  <ElCollapse
    v-model="unfolded"
    :class="{ shines }"
    @mouseenter="lit = lights ?? null"
    @mouseleave="lit = null"
    @focusin="lit = lights ?? null"
    @focusout="lit = null"
  >
    <ElCollapseItem name="figure">
      <template #title>
        <span class="head">
          <span>{{ label }}</span>
          <small v-if="delta !== undefined">{{ signed(delta, unit ?? 'count') }}</small>
          <b>{{ value }}</b>
        </span>
      </template>
      <template #icon>
        <i aria-hidden="true">{{ open ? '−' : '+' }}</i>
      </template>
      <OpenedFigure v-if="open" :figure="figure" />
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
.shines {
  box-shadow: inset 3px 0 0 var(--ribbon);
  background: var(--warn-sheet);
}
.head {
  display: flex;
  flex: 1;
  gap: 10px;
  align-items: baseline;
  text-align: left;
}
.head span {
  flex: 1;
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
