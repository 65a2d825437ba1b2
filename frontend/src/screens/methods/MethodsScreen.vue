<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed, nextTick, watch } from 'vue'
import { useRoute } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { plansHere, squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { tellDone } from '@/parts/notices'
import { moment } from '@/words/dates'
import { METHODS_SCREEN as say } from '@/words/texts/methods'

import MethodSchoolPanel from './MethodSchoolPanel.vue'
import MethodSettings from './MethodSettings.vue'

// Each paragraph with what coaches differ in and the constants that belong to it. Figures link to their paragraph.
const route = useRoute()
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.methods(squadNow.value)),
    queryFn: ({ queryKey }) => api.methodsPage(Number(queryKey[1])),
  },
  queryClient,
)
const page = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const { data: history } = useQuery(
  {
    queryKey: computed(() => KEYS.methodsHistory(squadNow.value)),
    queryFn: ({ queryKey }) => api.methodsHistory(Number(queryKey[1])),
    enabled: plansHere,
  },
  queryClient,
)
const { trouble, attempt } = useAttempt()
async function change(methods: Record<string, unknown>): Promise<void> {
  const version = page.value?.version ?? ''
  if (!(await attempt(() => api.changeMethods(squadNow.value, { methods, version })))) {
    await askAgain(KEYS.methods(squadNow.value))
    return
  }
  // Whatever was figured with the old ones is asked for anew where it is shown.
  await queryClient.invalidateQueries()
  tellDone(say.changed)
}
/** Whoever comes from a figure is led to its paragraph. */
watch(
  [() => route.hash, () => page.value !== null],
  async ([hash, there]) => {
    if (!hash || !there) return
    await nextTick()
    const target = document.getElementById(hash.slice(1))
    target?.scrollIntoView()
    target?.focus({ preventScroll: true })
  },
  { immediate: true },
)
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ say.methods }}</h1>
      <span class="said">{{ say.what }}</span>
    </header>
    <p v-if="notRead" class="note-bar" role="alert">{{ notRead }}</p>
    <div v-else-if="!page" class="waiting" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="10" animated :throttle="200" />
    </div>
    <div v-else class="page">
      <nav :aria-label="say.parts">
        <RouterLink v-for="one in page.paragraphs" :key="one.key" :to="{ hash: `#${one.key}` }">{{
          one.heading
        }}</RouterLink>
        <RouterLink :to="{ hash: '#history' }">{{ say.history }}</RouterLink>
      </nav>
      <div class="text">
        <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
        <p class="said">
          {{ page.can_change ? say.reach(page.reach.sessions, page.reach.planned, page.reach.logged) : say.headSets }}
        </p>
        <section v-for="one in page.paragraphs" :key="one.key" :aria-labelledby="one.key">
          <h2 :id="one.key" tabindex="-1">{{ one.heading }}</h2>
          <p v-for="sentence in one.says" :key="sentence" class="sentence">{{ sentence }}</p>
          <MethodSchoolPanel
            v-for="school in page.schools.filter((each) => each.paragraph === one.key)"
            :key="school.key"
            :school="school"
            :value="page.methods[school.key]"
            :changes="page.can_change"
            @take="change({ [school.key]: $event })"
          />
          <MethodSettings
            :heading="one.heading"
            :settings="page.settings.filter((each) => each.paragraph === one.key)"
            :methods="page.methods"
            :changes="page.can_change"
            @change="(key, value) => change({ [key]: value })"
          />
        </section>
        <section aria-labelledby="history">
          <h2 id="history" tabindex="-1">{{ say.history }}</h2>
          <p v-if="!plansHere" class="said">{{ say.onlyCoaches }}</p>
          <p v-else-if="history?.length === 0" class="said">{{ say.noHistory }}</p>
          <ul v-else class="lines">
            <li v-for="(one, index) in history ?? []" :key="index">
              <span class="grow">{{ one.says }}</span>
              <span class="said">{{ one.by ?? say.gone }}, {{ moment(one.at) }}</span>
            </li>
          </ul>
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/section.css"></style>
<style scoped>
main {
  overflow: auto;
}
.page {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 30px;
  padding: 14px 20px 60px;
  max-width: 1180px;
}
nav {
  position: sticky;
  top: 14px;
  align-self: start;
  display: flex;
  flex-direction: column;
  gap: 6px;
  border-right: 1px solid var(--rule);
  padding-right: 12px;
}
h2 {
  scroll-margin-top: 12px;
  font-size: 22px;
}
h2:focus {
  outline: none;
}
.sentence {
  max-width: 74ch;
  margin: 4px 0;
}
.waiting {
  padding: 20px;
}
@media (max-width: 800px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
    padding: 10px 14px 40px;
  }
  nav {
    position: static;
    border: 0;
    padding: 0;
  }
  nav a {
    min-height: 24px;
  }
}
</style>
