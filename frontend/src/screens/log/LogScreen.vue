<script setup lang="ts">
import { useInfiniteQuery, useQuery } from '@tanstack/vue-query'
import { ElButton, ElEmpty, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { plansHere, squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import { LOG_SCREEN as say } from '@/words/texts/log'

import LogFiles from './LogFiles.vue'
import LogLines from './LogLines.vue'
import OffPanel from './OffPanel.vue'
import RemovedList from './RemovedList.vue'
import WaitingList from './WaitingList.vue'

// The log of a squad: what waits to be logged, settled in one step, and what was logged, the latest first.
const router = useRouter()
const log = useInfiniteQuery(
  {
    queryKey: computed(() => KEYS.log(squadNow.value)),
    queryFn: ({ pageParam }) => api.log(squadNow.value, pageParam || undefined),
    initialPageParam: '',
    getNextPageParam: (last) => last.earlier,
  },
  queryClient,
)
const notRead = troubleOf(log.error)
const first = computed(() => log.data.value?.pages[0] ?? null)
const lines = computed(() => log.data.value?.pages.flatMap((page) => page.entries) ?? [])
const people = useQuery(
  {
    queryKey: computed(() => KEYS.people(squadNow.value)),
    queryFn: () => api.people(squadNow.value),
    enabled: plansHere,
  },
  queryClient,
)
const choices = computed(() => (people.data.value ?? []).map((one) => ({ value: one.id, label: one.name })))
const { trouble, attempt } = useAttempt()
const learns = (how: 'auto' | 'ask') =>
  attempt(async () => {
    await api.setLearning(how, squadNow.value)
    await askAgain(KEYS.log())
  })
const files = ref(false)
const removed = ref(false)
const asked = computed(
  () => first.value?.plans === true && first.value.learning === '' && lines.value.some((one) => one.results > 0),
)
const toPerson = (id: string | null | undefined): void => {
  if (id) void router.push({ name: 'person-log', params: { id } })
}
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ say.log }}</h1>
      <span class="grow"></span>
      <ChoiceField
        v-if="plansHere && choices.length"
        :model-value="null"
        :label="say.person"
        :said="say.person"
        :placeholder="say.somebody"
        :options="choices"
        @update:model-value="toPerson"
      />
      <button v-if="plansHere" type="button" class="link" :aria-expanded="files" @click="files = !files">
        {{ say.files }}
      </button>
      <button v-if="plansHere" type="button" class="link" :aria-expanded="removed" @click="removed = !removed">
        {{ say.removed }}
      </button>
    </header>
    <p v-if="notRead" class="note-bar" role="alert">{{ notRead }}</p>
    <div v-else-if="!first" class="inside" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-else class="inside">
      <LogFiles v-if="files" />
      <RemovedList v-if="removed" />
      <p v-if="!first.plans" class="said">{{ say.onlyYours }}</p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <div v-if="asked" class="note-bar asking">
        <span>{{ say.learning }}</span>
        <ElButton type="primary" @click="learns('auto')">{{ say.learn }}</ElButton>
        <ElButton @click="learns('ask')">{{ say.ask }}</ElButton>
      </div>
      <WaitingList v-if="first.waiting.length" :lines="first.waiting" />
      <p v-else-if="first.plans && lines.length" class="said">{{ say.nothingWaits }}</p>
      <OffPanel v-if="first.off.length" :all="first.off" />
      <ElEmpty v-if="!lines.length && !first.waiting.length" :image-size="0" :description="say.empty" />
      <LogLines v-if="lines.length" :lines="lines" :own="!first.plans" />
      <p v-if="log.hasNextPage.value">
        <ElButton :disabled="log.isFetchingNextPage.value" @click="log.fetchNextPage()">
          {{ log.isFetchingNextPage.value ? say.loading : say.earlier }}
        </ElButton>
      </p>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped>
main {
  overflow: auto;
}
.inside {
  padding: 12px 20px 40px;
  max-width: 1160px;
}
@media (max-width: 700px) {
  .inside {
    padding: 10px 12px 40px;
  }
}
</style>
