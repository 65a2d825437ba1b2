<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton } from 'element-plus'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { longDay } from '@/words/dates'
import { REMOVED_LIST as say } from '@/words/texts/log'

// What was taken off the plan in the last 30 days, and can be put back with its log.
const removed = useQuery(
  { queryKey: computed(() => KEYS.removed(squadNow.value)), queryFn: () => api.removedEntries(squadNow.value) },
  queryClient,
)
const notRead = troubleOf(removed.error)
const { trouble, attempt } = useAttempt()
const putBack = (id: string) =>
  attempt(async () => {
    await api.restoreEntry(id)
    await Promise.all([KEYS.removed(squadNow.value), KEYS.log(), KEYS.week(), KEYS.today()].map(askAgain))
  })
</script>

<template>
  <section :aria-label="say.heading" class="removed">
    <h2>{{ say.heading }}</h2>
    <p v-if="notRead || trouble" class="note-bar" role="alert">{{ notRead || trouble }}</p>
    <p v-else-if="removed.data.value?.length === 0" class="said">{{ say.nothing }}</p>
    <ul v-if="removed.data.value?.length">
      <li v-for="one in removed.data.value" :key="one.id">
        <span>
          <b>{{ one.title }}</b>, {{ longDay(one.day) }}<template v-if="one.logged">, {{ say.logged }}</template>
        </span>
        <span class="said">{{ say.left(one.left) }}</span>
        <ElButton size="small" @click="putBack(one.id)">
          {{ say.putBack }}<span class="visually-hidden"> {{ one.title }}, {{ longDay(one.day) }}</span>
        </ElButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.removed {
  border-bottom: 1px solid var(--rule);
  margin-bottom: 12px;
}
h2 {
  font-size: 15px;
  margin: 4px 0;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  padding: 3px 0;
}
</style>
