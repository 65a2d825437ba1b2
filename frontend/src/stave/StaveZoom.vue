<script setup lang="ts">
import { ElButton, ElButtonGroup } from 'element-plus'

// Closer and further, and along once it is closer.
defineProps<{ zoomed: boolean }>()
defineEmits<{ pan: [share: number]; zoom: [closer: boolean]; all: [] }>()
</script>

<template>
  <ElButtonGroup class="zoom" size="small" role="group" aria-label="Zoom of the stave">
    <ElButton v-if="zoomed" aria-label="Earlier" @click="$emit('pan', -0.5)">‹</ElButton>
    <ElButton v-if="zoomed" aria-label="Later" @click="$emit('pan', 0.5)">›</ElButton>
    <ElButton aria-label="Closer" @click="$emit('zoom', true)">+</ElButton>
    <ElButton aria-label="Further" :disabled="!zoomed" @click="$emit('zoom', false)">−</ElButton>
    <ElButton v-if="zoomed" @click="$emit('all')">all</ElButton>
  </ElButtonGroup>
</template>

<style scoped>
.zoom {
  white-space: nowrap;
  flex-shrink: 0;
}
</style>
