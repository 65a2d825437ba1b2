<script setup lang="ts">
import type { Given } from '@/floor/useRun'

import type { Due } from './due'

// One place for what is due; quiet while a clock runs.
defineProps<{ due: Due | null; disabled: boolean }>()
const emit = defineEmits<{ tap: [given: Given] }>()
</script>

<template>
  <div class="due">
    <button v-if="due?.given" type="button" class="floor-key big" :disabled="disabled" @click="emit('tap', due.given)">
      {{ due.label }}
    </button>
    <p v-else class="big still">{{ due?.label }}</p>
    <button
      v-if="due?.also"
      type="button"
      class="floor-key also"
      :disabled="disabled"
      @click="emit('tap', due.also.given)"
    >
      {{ due.also.label }}
    </button>
  </div>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.due {
  flex: 0 0 132px;
  display: flex;
  gap: 8px;
}
.big {
  flex: 2;
  margin: 0;
  font: 600 38px/1 var(--head);
}
.also {
  flex: 1;
}
.still {
  display: grid;
  place-items: center;
  border: 2px dashed currentcolor;
  border-radius: 3px;
  font-size: 22px;
}
</style>
