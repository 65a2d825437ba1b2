<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import type { Undoable } from '@/composables/undoable'
import { useAttempt } from '@/composables/useAttempt'
import { UNDO_BAR as say } from '@/words/texts/parts'

// What was just changed, and a button that undoes it; it is there until the next change.
const props = defineProps<{ change: Undoable }>()
const emit = defineEmits<{ undone: []; dismiss: [] }>()
const busy = ref(false)
const { trouble, attempt } = useAttempt()
async function undo(): Promise<void> {
  busy.value = true
  if (await attempt(props.change.undo)) emit('undone')
  busy.value = false
}
</script>

<template>
  <p class="undo" role="status">
    <span>{{ change.done }}</span>
    <ElButton size="small" :disabled="busy" @click="undo">{{ say.undo }}</ElButton>
    <button type="button" class="link" @click="emit('dismiss')">{{ say.dismiss }}</button>
    <span v-if="trouble" role="alert">{{ trouble }}</span>
  </p>
</template>

<style scoped>
.undo {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin: 8px 20px;
  padding: 6px 12px;
  border: 1px solid var(--rule);
  background: var(--sheet);
}
</style>
