<script setup lang="ts">
import { POCKET as say } from '@/words/texts/floor'

import HoldButton from './HoldButton.vue'

// Over everything while the phone is in a pocket: the screen stays awake, touches do nothing until one is held.
const emit = defineEmits<{ open: [] }>()
</script>

<template>
  <div class="cover" role="region" :aria-label="say.locked" @click.stop @pointerdown.stop>
    <p>{{ say.locked }}</p>
    <HoldButton :label="say.open" :hold-ms="1000" @held="emit('open')" />
  </div>
</template>

<style scoped>
.cover {
  position: fixed;
  inset: 0;
  z-index: 20;
  background: #000;
  color: #8b8474;
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  padding: 30vh 24px 40px;
  font-size: 20px;
  text-align: center;
}
</style>
