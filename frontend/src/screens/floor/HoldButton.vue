<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'

import { HOLD as say } from '@/words/texts/floor'

// What must not happen by a stray touch is held for a moment: with a finger, or with a key.
const props = withDefaults(defineProps<{ label: string; holdMs?: number }>(), { holdMs: 600 })
const emit = defineEmits<{ held: [] }>()
/** A tap was too short: the button says what it wants. */
const hinted = ref(false)
const HINT_MS = 2_500
const { start: forget } = useTimeoutFn(() => (hinted.value = false), HINT_MS, { immediate: false })
const { start, stop, isPending } = useTimeoutFn(
  () => emit('held'),
  () => props.holdMs,
  { immediate: false },
)
function release(): void {
  if (isPending.value) {
    hinted.value = true
    forget()
  }
  stop()
}
function key(event: KeyboardEvent): void {
  if (event.key !== 'Enter' && event.key !== ' ') return
  event.preventDefault()
  event.stopPropagation()
  if (!event.repeat) start()
}
</script>

<template>
  <button
    type="button"
    class="floor-key holds"
    :class="{ holding: isPending }"
    :style="{ '--hold': `${holdMs}ms` }"
    @pointerdown="start"
    @pointerup="release"
    @pointerleave="stop"
    @pointercancel="stop"
    @contextmenu.prevent
    @keydown="key"
    @keyup="release"
    @blur="stop"
  >
    {{ hinted ? say.hint(label) : label }}
  </button>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.holds {
  position: relative;
  overflow: hidden;
  touch-action: none;
  user-select: none;
}
.holds::after {
  content: '';
  position: absolute;
  inset: auto 0 0;
  height: 6px;
  background: currentcolor;
  transform: scaleX(0);
  transform-origin: left;
}
.holding::after {
  transform: scaleX(1);
  transition: transform var(--hold) linear;
}
</style>
