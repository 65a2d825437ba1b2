<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElCheckbox, ElCheckboxGroup, ElEmpty, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import { clock } from '@/words/format'
import { START_PANEL as say } from '@/words/texts/side-by-side'

import QuestionPanel from './QuestionPanel.vue'
import type { Source } from './useComparison'

const emit = defineEmits<{ start: [source: Source] }>()
const { data, error } = useQuery(
  { queryKey: [...KEYS.sessions(), {}], queryFn: ({ signal }) => api.sessions({}, signal) },
  queryClient,
)
const sessions = computed(() => data.value?.items ?? null)
const left = computed(() => (data.value ? data.value.total - data.value.items.length : 0))
const trouble = troubleOf(error)
const MOST = 8
const chosen = ref<string[]>([])
const enough = computed(() => chosen.value.length >= 2 && chosen.value.length <= MOST)
</script>

<template>
  <div class="start">
    <QuestionPanel @start="emit('start', $event)" />
    <section :aria-label="say.fromASession">
      <h2>{{ say.aSessionsMainPartIn }}</h2>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <div v-else-if="sessions === null" role="status">
        <span class="visually-hidden">{{ say.fetchingTheSessions }}</span>
        <ElSkeleton :rows="6" animated :throttle="200" />
      </div>
      <ElEmpty v-else-if="sessions.length === 0" :image-size="0" :description="say.noSessionYetChooseMovements" />
      <ElCheckboxGroup v-else v-model="chosen" :max="MOST" :aria-label="say.sessionsToCompareWhole">
        <ul>
          <li v-for="one in sessions" :key="one.id">
            <ElCheckbox class="one" :value="one.id">
              <span class="visually-hidden">{{ say.compareWhole }}</span>{{ one.title }}
            </ElCheckbox>
            <span class="time">{{ clock(one.figures.total_s) }}</span>
            <button type="button" class="link" @click="emit('start', { session: one.id })">
              {{ say.mainPartInOtherFormats }}<span class="visually-hidden">: {{ one.title }}</span>
            </button>
          </li>
        </ul>
      </ElCheckboxGroup>
      <p v-if="left > 0">{{ say.theseAreTheOnesChanged(left) }}</p>
      <ElButton :disabled="!enough" @click="emit('start', { sessions: chosen })">
        {{ say.compareSessions(chosen.length || 'ticked') }}
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
.one {
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
