<script setup lang="ts">
import { computed } from 'vue'

import type { Figures } from '@/api/types'

const props = defineProps<{ beam: Figures['balance']['beams'][string] | undefined }>()
const share = computed(() => props.beam?.left_share ?? null)
const left = computed(() => Math.round((share.value ?? 0) * 100))
// The bar runs from the middle to the heavier side.
const bar = computed(() => ({
  left: `${left.value > 50 ? 100 - left.value : 50}%`,
  width: `${Math.abs(50 - left.value)}%`,
}))
</script>

<template>
  <div v-if="beam" class="beam">
    <span class="left">{{ beam.left_name }} {{ share === null ? '–' : left }}</span>
    <span class="bar" aria-hidden="true"><i v-if="share !== null" :style="bar"></i><u></u></span>
    <span>{{ share === null ? '–' : 100 - left }} {{ beam.right_name }}</span>
  </div>
</template>

<style scoped>
.beam {
  display: grid;
  grid-template-columns: 76px 1fr 76px;
  align-items: center;
  gap: 8px;
  font-size: 12.5px;
  padding: 3px 0;
}
.left {
  text-align: right;
}
.bar {
  height: 9px;
  background: #e7e2d4;
  position: relative;
}
.bar i {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--e2);
}
.bar u {
  position: absolute;
  left: 50%;
  top: -3px;
  bottom: -3px;
  border-left: 1px solid var(--ink);
}
</style>
