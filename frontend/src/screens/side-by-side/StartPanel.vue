<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { SessionItem } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { clock } from '@/words/format'

import QuestionPanel from './QuestionPanel.vue'
import type { Source } from './useComparison'

const emit = defineEmits<{ start: [source: Source] }>()
const sessions = shallowRef<readonly SessionItem[] | null>(null)
const left = ref(0)
const { trouble, attempt } = useAttempt()
const chosen = ref<string[]>([])
onMounted(() =>
  attempt(async () => {
    const page = await api.sessions()
    sessions.value = page.items
    left.value = page.total - page.items.length
  }),
)
const enough = computed(() => chosen.value.length >= 2 && chosen.value.length <= 8)
</script>

<template>
  <div class="start">
    <QuestionPanel @start="emit('start', $event)" />
    <section aria-label="From a session">
      <h2>A session’s main part in other formats, or whole sessions side by side</h2>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <p v-else-if="sessions === null" role="status">Fetching the sessions …</p>
      <p v-else-if="sessions.length === 0">No session yet. Choose movements, or write one on the Bench.</p>
      <ul v-else>
        <li v-for="one in sessions" :key="one.id">
          <label>
            <input
              v-model="chosen"
              type="checkbox"
              :value="one.id"
              :disabled="chosen.length >= 8 && !chosen.includes(one.id)"
            />
            <span class="visually-hidden">Compare whole: </span>{{ one.title }}
          </label>
          <span class="time">{{ clock(one.figures.total_s) }}</span>
          <button type="button" class="link" @click="emit('start', { session: one.id })">
            main part in other formats<span class="visually-hidden">: {{ one.title }}</span>
          </button>
        </li>
      </ul>
      <p v-if="left > 0">These are the ones changed last; {{ left }} more can be opened from the list of sessions.</p>
      <ElButton :disabled="!enough" @click="emit('start', { sessions: chosen })">
        Compare {{ chosen.length || 'ticked' }} sessions
      </ElButton>
    </section>
  </div>
</template>

<style scoped>
.start {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 30px;
  padding: 16px 20px;
}
h2 {
  font-size: 19px;
  margin-bottom: 8px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 12px;
}
ul li {
  display: flex;
  gap: 12px;
  align-items: baseline;
  border-bottom: 1px dotted var(--rule);
  padding: 5px 0;
}
label {
  flex: 1;
  overflow-wrap: anywhere;
}
.time {
  font: 600 16px var(--head);
}
@media (max-width: 900px) {
  .start {
    grid-template-columns: 1fr;
  }
}
</style>
