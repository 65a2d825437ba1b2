<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { ElButton, ElSkeleton } from 'element-plus'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import { moment } from '@/words/dates'
import { HISTORY_PANEL as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number }>()
/** As many as the server gives at a time: fewer are the last. */
const AT_ONCE = 100
const { data, error, isPending, hasNextPage, isFetchingNextPage, fetchNextPage } = useInfiniteQuery(
  {
    queryKey: computed(() => KEYS.history(props.squad)),
    queryFn: ({ pageParam }) => api.history(props.squad, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.length < AT_ONCE ? undefined : last.at(-1)?.id),
  },
  queryClient,
)
const records = computed(() => data.value?.pages.flat() ?? [])
const trouble = troubleOf(error)
</script>

<template>
  <section :aria-label="say.history">
    <h2>{{ say.history }}</h2>
    <p class="said">{{ say.forAYear }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="isPending" role="status">
      <span class="visually-hidden">{{ say.readingIt }}</span>
      <ElSkeleton :rows="4" animated :throttle="200" />
    </div>
    <p v-else-if="records.length === 0" class="said">{{ say.none }}</p>
    <ol class="records">
      <li v-for="one in records" :key="one.id">
        <span class="said">{{ moment(one.at) }}</span>
        <span
          ><b>{{ one.by ?? say.gone }}</b> {{ one.says }}</span
        >
      </li>
    </ol>
    <ElButton v-if="hasNextPage" size="small" :loading="isFetchingNextPage" @click="fetchNextPage()">{{
      say.older
    }}</ElButton>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.records {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  max-height: 420px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 12px;
  border-bottom: 1px solid var(--rule);
  padding: 2px 0;
}
li .said {
  margin: 0;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
