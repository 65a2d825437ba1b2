<script setup lang="ts">
import { useDocumentVisibility, useEventListener, useIntervalFn } from '@vueuse/core'
import { watch } from 'vue'

import { account } from '@/composables/useAccount'
import { sendWaitingRuns, waitingRuns } from '@/floor/waitingRuns'
import { WAITING_RUNS as say } from '@/words/texts/parts'

import PutBack from './PutBack.vue'

// Runs on this device that are not sent yet: sent from any page as soon as there is a network, and told until then.
const AGAIN_MS = 20_000
const seen = useDocumentVisibility()
const send = (): void => {
  if (seen.value === 'visible') void sendWaitingRuns()
}
watch([() => account.value?.name, seen], send, { immediate: true })
useEventListener(window, 'online', send)
useIntervalFn(() => waitingRuns.value.length && send(), AGAIN_MS)
</script>

<template>
  <p v-if="waitingRuns.length" class="note-bar" role="status">
    {{ waitingRuns.length === 1 ? say.one : say.several(waitingRuns.length) }}
    <template v-for="one in waitingRuns" :key="one.id">
      <PutBack v-if="one.removed && one.entry" :entry="one.entry" :title="one.title" @done="send" />
    </template>
  </p>
</template>

<style scoped>
p {
  position: fixed;
  left: 88px;
  bottom: 12px;
  z-index: 19;
  max-width: calc(100vw - 100px);
  margin: 0;
  border: 1px solid var(--warn);
  border-left-width: 3px;
}
@media (max-width: 700px) {
  p {
    left: 12px;
    max-width: calc(100vw - 24px);
  }
}
</style>
