<script setup lang="ts">
import { computed } from 'vue'

import type { RunState } from '@/floor/runState'
import type { Given } from '@/floor/useRun'
import { FLOOR as say } from '@/words/texts/floor'

// What is at hand while a run goes: hold, ten seconds more, back, more; and taking the last order back.
const props = defineProps<{
  state: RunState
  disabled: boolean
  more: boolean
  undoable: boolean
  soundless: boolean
}>()
const emit = defineEmits<{ give: [place: string, given: Given]; more: []; wake: [] }>()
const stands = computed(() => props.state.mode === 'paused')
const live = computed(() => props.state.mode === 'playing' || stands.value)
</script>

<template>
  <div class="keys">
    <!-- Its place is kept for what is taken back: nothing moves when sound comes. -->
    <button v-if="soundless && !undoable" type="button" class="floor-key undo" @click="emit('wake')">
      {{ say.soundOff }}
    </button>
    <button
      v-else
      type="button"
      class="floor-key undo"
      :class="{ away: !undoable }"
      :disabled="disabled || !undoable"
      @click="emit('give', 'undo', { do: 'undo' })"
    >
      {{ say.undo }}
    </button>
    <button
      type="button"
      class="floor-key"
      :disabled="disabled || !live"
      @click="emit('give', 'hold', { do: stands ? 'resume' : 'pause' })"
    >
      {{ stands ? say.goOn : say.hold }}
    </button>
    <button
      type="button"
      class="floor-key"
      :disabled="disabled || !live || state.leftS === null"
      @click="emit('give', 'more-time', { do: 'more', s: 10 })"
    >
      {{ say.tenMore }}
    </button>
    <button
      type="button"
      class="floor-key"
      :disabled="disabled || (state.played === 0 && !live)"
      @click="emit('give', 'back', { do: 'back' })"
    >
      {{ say.back }}
    </button>
    <button type="button" class="floor-key" :aria-expanded="more" @click="emit('more')">
      {{ more ? say.less : say.more }}
    </button>
  </div>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px;
}
@media (max-width: 300px) {
  .keys {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
.undo {
  grid-column: 1 / -1;
}
.away {
  visibility: hidden;
}
</style>
