<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput, ElSkeleton } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { FloorSheet } from '@/api/types'
import { account, squadNow, squadOwn } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { keepSheet, sheetsKept, tidy } from '@/floor/kept'
import { mayWait } from '@/floor/mayWait'
import { runClock } from '@/floor/runClock'
import HealthReports from '@/parts/HealthReports.vue'
import { keepShell } from '@/shell'
import { dateOf, longDay, today } from '@/words/dates'
import { tenth, whole } from '@/words/format'
import { TODAY as say } from '@/words/texts/floor'

import WallPairing from './WallPairing.vue'

// The phone's first page: what stands on today, what runs, what waits to be sent; all it needs is fetched ahead.
const router = useRouter()
const day = useQuery(
  {
    queryKey: computed(() => KEYS.today(squadNow.value)),
    queryFn: async () => {
      const asked = Date.now()
      const told = await api.today(squadNow.value)
      runClock.measure(told.now, asked)
      return told
    },
  },
  queryClient,
)
const trouble = troubleOf(day.error)
const kept = shallowRef<FloorSheet[]>([])
const who = computed(() => account.value?.name ?? '')

/** The sheets of today are on the device before they are needed. */
async function fetchAhead(): Promise<void> {
  for (const one of (day.data.value?.entries ?? []).filter((entry) => entry.runs_here)) {
    const sheet = await api.floorSheet(one.id).catch(() => null)
    if (!sheet) return
    kept.value = [...kept.value.filter((other) => other.entry !== sheet.entry), sheet]
    await keepSheet(who.value, sheet)
  }
}
/** Who is away, who does something otherwise, what kit it takes. */
function needs(entry: string): string {
  const sheet = kept.value.find((one) => one.entry === entry)
  if (!sheet) return ''
  const away = sheet.people.filter((one) => one.away).map((one) => one.name)
  const others = [...new Set(sheet.others.flatMap((one) => one.names))]
  const kit = [...new Set(sheet.kit.map((one) => one.kit))]
  return [
    away.length ? say.away(away.join(', ')) : '',
    others.length ? say.otherwise(others.join(', ')) : '',
    kit.length ? say.kit(kit.join(', ')) : '',
  ]
    .filter(Boolean)
    .join(' · ')
}
// Runs that 1.0.0 kept on this device set no mark: opening this page looks for them.
mayWait.value = true
watch(day.data, () => void fetchAhead())
void keepShell()
void tidy(runClock.now(), today(), runClock.measured)
void sheetsKept(who.value).then((sheets) => (kept.value = sheets))

const entries = computed(() =>
  day.data.value
    ? day.data.value.entries
    : kept.value
        .filter((one) => one.day === today())
        .map((one) => ({
          id: one.entry,
          title: one.title,
          minutes: one.minutes,
          runs_here: true,
          time: null,
          effort: null,
          group: null,
          logged: false,
        })),
)
const running = computed(() => (day.data.value?.runs ?? []).filter((one) => one.ended === null))
const over = computed(() => (day.data.value?.runs ?? []).filter((one) => one.ended !== null))
const at = (seconds: number): string =>
  new Date(seconds * 1000).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })

const words = ref('')
const { trouble: unread, attempt } = useAttempt()
async function fromText(): Promise<void> {
  await attempt(async () => {
    const made = await api.importSession('txt', words.value, squadNow.value)
    const planned = await api.planEntry({ session: made.id, day: day.data.value?.day ?? dateOf(new Date()) })
    await router.push({ name: 'before', params: { entry: planned.id } })
  })
}
</script>

<template>
  <main id="main" class="today">
    <h1>{{ say.heading(squadOwn?.name ?? '', longDay(day.data.value?.day ?? today())) }}</h1>
    <p v-if="trouble" class="note-bar" role="alert">{{ kept.length ? say.offline : trouble }}</p>
    <HealthReports />
    <ElSkeleton v-if="day.isPending.value && !trouble" :rows="4" animated :throttle="200" />
    <p v-else-if="entries.length === 0" class="quiet">{{ say.nothing }}</p>
    <ul v-if="running.length">
      <li v-for="one in running" :key="one.id">
        <span class="name"
          >{{ one.name || one.title
          }}<small
            ><template v-if="one.name">{{ one.title }} · </template>{{ say.running(at(one.begun)) }}</small
          ></span
        >
        <RouterLink class="run" :to="{ name: 'floor', params: { id: one.id } }" :aria-label="say.goOnWith(one.title)">{{
          say.goOn
        }}</RouterLink>
      </li>
    </ul>
    <ul>
      <li v-for="one in entries" :key="one.id">
        <span class="name"
          >{{ one.title
          }}<small
            ><template v-if="one.time">{{ one.time.slice(0, 5) }} · </template
            ><template v-if="one.effort !== null">{{ say.comesTo(whole(one.minutes), tenth(one.effort)) }}</template
            ><template v-if="one.group"> · {{ one.group }}</template></small
          ><small v-if="needs(one.id)">{{ needs(one.id) }}</small></span
        >
        <span class="links">
          <span v-if="!one.runs_here" class="quiet">{{ say.other }}</span>
          <span v-if="one.logged" class="quiet">{{ say.logged }}</span>
          <RouterLink
            v-else-if="day.data.value"
            :to="{ name: 'logged', params: { id: one.id } }"
            :aria-label="say.rateIt(one.title)"
            >{{ say.rate }}</RouterLink
          >
        </span>
        <RouterLink
          v-if="one.runs_here"
          class="run"
          :to="{ name: 'before', params: { entry: one.id } }"
          :aria-label="say.runIt(one.title)"
          >{{ say.run }}</RouterLink
        >
      </li>
    </ul>
    <ul v-if="over.length" class="over">
      <li v-for="one in over" :key="one.id">
        <span class="name"
          >{{ one.title }}<small>{{ say.wasRun(at(one.begun)) }}</small></span
        >
        <span class="links">
          <RouterLink
            v-if="one.entry"
            :to="{ name: 'scores', params: { entry: one.entry }, query: { run: one.id } }"
            :aria-label="say.scoresOf(one.title)"
            >{{ say.scores }}</RouterLink
          >
          <RouterLink :to="{ name: 'floor', params: { id: one.id } }" :aria-label="say.lookAt(one.title)">{{
            say.look
          }}</RouterLink>
        </span>
      </li>
    </ul>
    <template v-if="day.data.value?.unlogged.length">
      <h2>{{ say.waits }}</h2>
      <ul class="over">
        <li v-for="one in day.data.value.unlogged" :key="one.id">
          <span class="name"
            >{{ one.title }}<small>{{ longDay(one.day) }}</small></span
          >
          <RouterLink :to="{ name: 'logged', params: { id: one.id } }" :aria-label="say.rateIt(one.title)">{{
            say.rate
          }}</RouterLink>
        </li>
      </ul>
    </template>
    <form class="text" @submit.prevent="fromText">
      <h2>{{ say.fromText }}</h2>
      <p class="quiet">{{ say.pasteIt }}</p>
      <ElInput v-model="words" type="textarea" :rows="4" :aria-label="say.words" />
      <p v-if="unread" class="note-bar" role="alert">{{ unread }}</p>
      <ElButton native-type="submit" size="large" :disabled="!words.trim()">{{ say.readAndRun }}</ElButton>
    </form>
    <WallPairing />
  </main>
</template>

<style scoped>
.today {
  padding: 14px 20px 40px;
  overflow: auto;
  max-width: 760px;
}
h1 {
  font-size: 27px;
}
h2 {
  font-size: 19px;
  margin-top: 18px;
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 72px;
  border-bottom: 1px solid var(--rule);
}
.over li {
  min-height: 44px;
}
.name {
  flex: 1;
  font: 600 21px/1.15 var(--head);
  min-width: 0;
  overflow-wrap: anywhere;
}
small {
  display: block;
  font: 13px var(--text);
  color: var(--mute);
}
.run {
  flex: none;
  display: grid;
  place-items: center;
  min-width: 110px;
  min-height: 64px;
  background: var(--act);
  color: var(--sheet);
  border-radius: 3px;
  font: 600 22px var(--head);
  text-decoration: none;
  padding: 0 12px;
}
.links {
  display: flex;
  gap: 16px;
  flex: none;
  align-items: center;
}
.quiet {
  color: var(--mute);
}
.text .el-button {
  margin-top: 8px;
}
</style>
