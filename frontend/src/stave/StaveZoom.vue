<script setup lang="ts">
import { ElButton, ElButtonGroup } from 'element-plus'

import { STAVE_ZOOM as say } from '@/words/texts/stave'

// Closer and further, and along once it is closer.
defineProps<{ zoomed: boolean }>()
defineEmits<{ pan: [share: number]; zoom: [closer: boolean]; all: [] }>()
</script>

<template>
  <ElButtonGroup class="zoom" size="small" role="group" :aria-label="say.zoomOfTheStave">
    <ElButton v-if="zoomed" :aria-label="say.earlier" @click="$emit('pan', -0.5)">‹</ElButton>
    <ElButton v-if="zoomed" :aria-label="say.later" @click="$emit('pan', 0.5)">›</ElButton>
    <ElButton :aria-label="say.closer" @click="$emit('zoom', true)">+</ElButton>
    <ElButton :aria-label="say.further" :disabled="!zoomed" @click="$emit('zoom', false)">−</ElButton>
    <ElButton v-if="zoomed" @click="$emit('all')">{{ say.all }}</ElButton>
  </ElButtonGroup>
</template>

<style scoped>
.zoom {
  white-space: nowrap;
  flex-shrink: 0;
}
</style>
