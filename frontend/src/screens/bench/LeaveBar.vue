<script setup lang="ts">
import { ElButton } from 'element-plus'
import { nextTick, ref, watch } from 'vue'

import { LEAVE_BAR as say } from '@/words/texts/bench'

// Stands where leaving would lose something, until it is decided.
const props = defineProps<{ losing: string | null }>()
const emit = defineEmits<{ stay: []; leave: [] }>()
const bar = ref<HTMLElement | null>(null)
watch(
  () => props.losing,
  async (what) => {
    if (!what) return
    await nextTick()
    bar.value?.querySelector('button')?.focus()
  },
)
</script>

<template>
  <div
    v-if="losing"
    ref="bar"
    class="note-bar asking"
    role="alertdialog"
    aria-labelledby="losing"
    @keydown.esc.stop="emit('stay')"
  >
    <span id="losing">{{ losing }}</span>
    <ElButton size="small" type="primary" @click="emit('stay')">{{ say.stayHere }}</ElButton>
    <ElButton size="small" @click="emit('leave')">{{ say.leaveWithoutIt }}</ElButton>
  </div>
</template>
