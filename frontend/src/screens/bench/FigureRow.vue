<script setup lang="ts">
import { ref } from 'vue'

import OpenedFigure from './OpenedFigure.vue'

defineProps<{ figure: string; label: string; value: string }>()
const open = ref(false)
</script>

<template>
  <div class="row">
    <button type="button" class="plain head" :aria-expanded="open" @click="open = !open">
      <span>{{ label }}</span>
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
  display: grid;
  grid-template-columns: 1fr auto 18px;
  width: 100%;
  text-align: left;
  padding: 4px 0;
}
.head:hover {
  background: var(--paper);
}
i {
  color: var(--mute);
  font-style: normal;
  text-align: right;
}
</style>
