<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, Refusal } from '@/api/client'
import type { SessionDoc, SessionItem } from '@/api/types'
import StaveThumb from '@/stave/StaveThumb.vue'
import { clock, percent, tenth, whole } from '@/words/format'

const items = ref<SessionItem[] | null>(null)
const trouble = ref('')
const router = useRouter()

async function fetchList(): Promise<void> {
  try {
    items.value = await api.sessions()
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.message
  }
}
onMounted(fetchList)

async function attempt(work: () => Promise<unknown>): Promise<void> {
  trouble.value = ''
  try {
    await work()
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.message
  }
}

const BLANK: SessionDoc = {
  fine_tally: 1,
  title: 'New session',
  blocks: [{ clock: { kind: 'intervals', work_s: 30, rest_s: 15 }, rounds: 3, steps: [{ movement: 'air-squat' }] }],
}
const create = () =>
  attempt(async () => {
    const made = await api.createSession(BLANK)
    await router.push({ name: 'bench', params: { id: made.id } })
  })
const duplicate = (id: string) =>
  attempt(async () => {
    await api.duplicateSession(id)
    await fetchList()
  })
const archive = (id: string) =>
  attempt(async () => {
    await api.archiveSession(id)
    await fetchList()
  })
</script>

<template>
  <main id="main" class="list">
    <header>
      <h1>Sessions</h1>
      <span class="grow"></span>
      <ElButton type="primary" @click="create">New session</ElButton>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="items === null && !trouble" class="quiet" role="status">Fetching the sessions …</p>
    <p v-else-if="items?.length === 0" class="quiet">No session yet. “New session” starts one.</p>
    <div v-else-if="items" class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">Session</th>
            <th scope="col" class="wide">Stave</th>
            <th scope="col" class="number">Length</th>
            <th scope="col" class="number">Work</th>
            <th scope="col" class="number">Density</th>
            <th scope="col" class="number">Effort</th>
            <th scope="col" class="number">Load</th>
            <th scope="col"><span class="visually-hidden">What to do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in items" :key="item.id">
            <th scope="row">
              <RouterLink :to="{ name: 'bench', params: { id: item.id } }">{{ item.title }}</RouterLink>
              <span class="tags">{{ item.tags.join(' · ') }}</span>
            </th>
            <td class="wide">
              <StaveThumb v-if="item.figures.thumbnail" :thumbnail="item.figures.thumbnail" />
              <span v-else class="problem">{{ item.figures.problem }}</span>
            </td>
            <td class="number big">{{ clock(item.figures.total_s) }}</td>
            <td class="number">{{ clock(item.figures.work_s) }}</td>
            <td class="number">{{ percent(item.figures.density) }}</td>
            <td class="number">{{ item.figures.rpe === null ? '–' : tenth(item.figures.rpe) }}</td>
            <td class="number">{{ item.figures.load === null ? '–' : whole(item.figures.load) }}</td>
            <td class="acts">
              <button type="button" class="link" :aria-label="`Copy ${item.title}`" @click="duplicate(item.id)">
                Copy
              </button>
              <button type="button" class="link" :aria-label="`Archive ${item.title}`" @click="archive(item.id)">
                Archive
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="foot">Work, density and effort are of the parts that count (main and finisher); length and load of all.</p>
    </div>
  </main>
</template>

<style scoped>
.list {
  padding: 0 20px 30px;
  overflow: auto;
}
header {
  display: flex;
  align-items: center;
  height: 58px;
}
h1 {
  font-size: 25px;
}
.grow {
  flex: 1;
}
.quiet {
  color: var(--mute);
  padding: 30px 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font: 500 13px var(--head);
  letter-spacing: 0.03em;
  color: var(--mute);
  text-align: left;
  border-bottom: 2px solid var(--ink);
  padding: 4px 12px 4px 0;
}
tbody th,
td {
  border-bottom: 1px solid var(--rule);
  padding: 9px 12px 9px 0;
  text-align: left;
  font-weight: 400;
  vertical-align: middle;
}
tbody th a {
  font: 600 18px var(--head);
  color: var(--ink);
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.tags {
  display: block;
  color: var(--mute);
  font-size: 12.5px;
}
.wide {
  width: 32%;
  min-width: 200px;
}
thead .number,
.number {
  text-align: right;
  white-space: nowrap;
}
.big {
  font: 600 18px var(--head);
}
.acts {
  white-space: nowrap;
  text-align: right;
}
.acts .link + .link {
  margin-left: 12px;
}
.problem {
  color: var(--warn);
  font-size: 13px;
}
.foot {
  color: var(--mute);
  font-size: 12.5px;
}
</style>
