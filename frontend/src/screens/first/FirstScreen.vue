<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { PlanEntry } from '@/api/types'
import { account, plansHere, squadNow } from '@/composables/useAccount'
import { useFirstPath } from '@/composables/useFirstPath'
import { handWords } from '@/composables/usePending'
import HealthReports from '@/parts/HealthReports.vue'
import StaveThumb from '@/stave/StaveThumb.vue'
import { longDay, today } from '@/words/dates'
import { clock, tenth, whole } from '@/words/format'
import { FIRST_SCREEN as say } from '@/words/texts/first'
import { FIRST_PATH as path } from '@/words/texts/first-path'

// Where a day begins: what stands on it, what was written last, and the two ways to begin something new.
const MOST = 6
const router = useRouter()
const squad = computed(() => account.value?.squads.find((one) => one.id === squadNow.value))
const planned = useQuery(
  {
    queryKey: computed(() => [...KEYS.week(), squadNow.value, today(), '']),
    queryFn: ({ signal }) => api.week(today(), squadNow.value, {}, signal),
  },
  queryClient,
)
const written = useQuery(
  { queryKey: [...KEYS.sessions(), {}], queryFn: ({ signal }) => api.sessions({}, signal) },
  queryClient,
)
const entries = computed(() => planned.data.value?.entries ?? null)
const now = computed(() => (entries.value ?? []).filter((one) => one.day === today() && !one.skipped))
const unlogged = computed(() => (entries.value ?? []).filter((one) => one.day < today() && !one.logged && !one.skipped))
const sessions = computed(() => written.data.value?.items.slice(0, MOST) ?? null)
const noWeek = troubleOf(planned.error)
const noSessions = troubleOf(written.error)

const { step, begin } = useFirstPath()
const words = ref('')
async function readIt(): Promise<void> {
  if (!words.value.trim()) return
  handWords(words.value)
  await router.push({ name: 'bench', params: { id: 'new' } })
}
const place = (one: PlanEntry) =>
  one.session ? { name: 'bench', params: { id: one.session } } : { name: 'week', query: { day: one.day } }
</script>

<template>
  <main id="main" class="first">
    <h1>{{ say.onDay(squad?.name ?? '', longDay(today())) }}</h1>
    <HealthReports />
    <div class="cols">
      <section :aria-label="say.waitsToday">
        <h2>{{ say.waitsToday }}</h2>
        <p v-if="noWeek" class="note-bar" role="alert">{{ noWeek }}</p>
        <div v-else-if="entries === null" role="status">
          <span class="visually-hidden">{{ say.reading }}</span>
          <ElSkeleton :rows="3" animated :throttle="200" />
        </div>
        <template v-else>
          <p v-if="now.length === 0" class="quiet">{{ say.nothingToday }}</p>
          <ul>
            <li v-for="one in now" :key="one.id">
              <RouterLink class="title" :to="place(one)">{{ one.title }}</RouterLink>
              <span class="quiet">
                <template v-if="one.time">{{ one.time.slice(0, 5) }} · </template
                >{{ say.comesTo(whole(one.minutes), tenth(one.effort)) }}
              </span>
            </li>
          </ul>
          <template v-if="unlogged.length">
            <h3>{{ say.waitsToBeLogged }}</h3>
            <ul>
              <li v-for="one in unlogged" :key="one.id">
                <RouterLink class="title" :to="place(one)">{{ one.title }}</RouterLink>
                <span class="quiet">{{ longDay(one.day) }}</span>
                <RouterLink
                  :to="{ name: 'week', query: { day: one.day, entry: one.id } }"
                  :aria-label="say.logIt(one.title)"
                  >{{ say.log }}</RouterLink
                >
              </li>
            </ul>
          </template>
          <RouterLink to="/week">{{ say.toTheWeek }}</RouterLink>
        </template>
      </section>
      <section :aria-label="say.lastSessions">
        <h2>{{ say.lastSessions }}</h2>
        <p v-if="noSessions" class="note-bar" role="alert">{{ noSessions }}</p>
        <ElSkeleton v-else-if="sessions === null" :rows="4" animated :throttle="200" />
        <p v-else-if="sessions.length === 0" class="quiet">{{ say.noSessionYet }}</p>
        <ul v-else>
          <li v-for="one in sessions" :key="one.id" class="session">
            <RouterLink class="title" :to="{ name: 'bench', params: { id: one.id } }">{{ one.title }}</RouterLink>
            <span class="quiet">{{ say.length(clock(one.figures.total_s)) }}</span>
            <StaveThumb v-if="one.figures.thumbnail" :thumbnail="one.figures.thumbnail" />
          </li>
        </ul>
        <RouterLink to="/bench">{{ say.allSessions }}</RouterLink>
      </section>
      <section :aria-label="say.start" class="start">
        <h2>{{ say.startFromAText }}</h2>
        <form @submit.prevent="readIt">
          <p class="quiet">{{ say.pasteIt }}</p>
          <ElInput
            v-model="words"
            type="textarea"
            :rows="7"
            :aria-label="say.startFromAText"
            :placeholder="say.example"
            @keydown.ctrl.enter="readIt"
          />
          <p class="acts">
            <ElButton type="primary" native-type="submit" :disabled="!words.trim()">{{ say.readIt }}</ElButton>
            <RouterLink :to="{ name: 'bench', params: { id: 'new' } }">{{ say.orFromBlocks }}</RouterLink>
            <ElButton v-if="step === 'write'" @click="words = path.example">{{ path.put }}</ElButton>
          </p>
        </form>
        <p v-if="plansHere && !step">
          <button type="button" class="link" @click="begin">{{ say.firstSteps }}</button>
        </p>
        <h2>{{ say.whichFormat }}</h2>
        <p class="quiet">{{ say.saysWhich }}</p>
        <RouterLink v-slot="{ href, navigate }" to="/side-by-side" custom>
          <ElButton tag="a" :href="href" @click="navigate">{{ say.ask }}</ElButton>
        </RouterLink>
      </section>
    </div>
  </main>
</template>

<style scoped>
.first {
  padding: 14px 20px 40px;
  overflow: auto;
}
h1 {
  font-size: 27px;
  margin-bottom: 16px;
}
h2 {
  font-size: 19px;
  border-bottom: 2px solid var(--ink);
  margin-bottom: 6px;
}
h3 {
  font-size: 15px;
  margin-top: 14px;
}
.cols {
  display: grid;
  grid-template-columns: 1fr 1fr 1.1fr;
  gap: 28px;
}
section {
  min-width: 0;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  padding: 7px 0;
  border-bottom: 1px solid var(--rule);
}
.title {
  font: 600 18px var(--head);
  color: var(--ink);
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.session .quiet {
  margin-left: auto;
}
.quiet {
  color: var(--mute);
  font-size: 13px;
}
p.quiet {
  margin: 4px 0 8px;
}
.acts {
  display: flex;
  gap: 16px;
  align-items: center;
}
@media (max-width: 1000px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
