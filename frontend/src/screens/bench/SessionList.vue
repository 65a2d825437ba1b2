<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref, watch } from 'vue'

import StaveThumb from '@/stave/StaveThumb.vue'
import { clock, percent, tenth, whole } from '@/words/format'

import { useSessionList, type SortBy } from './useSessionList'

const {
  items,
  asked,
  total,
  size,
  page,
  turn,
  trouble,
  clash,
  archived,
  words,
  tag,
  tags,
  rows,
  sortBy,
  downward,
  sort,
  fetchList,
  duplicate,
  archive,
  take,
} = useSessionList()
onMounted(fetchList)

const COLUMNS: { by: SortBy; label: string; number: boolean }[] = [
  { by: 'total_s', label: 'Length', number: true },
  { by: 'work_s', label: 'Work', number: true },
  { by: 'density', label: 'Density', number: true },
  { by: 'rpe', label: 'Effort', number: true },
  { by: 'load', label: 'Load', number: true },
]
const share = ref('')
watch(share, (row) => row && sort(`share:${row}`))
const order = (by: SortBy): 'ascending' | 'descending' | 'none' =>
  sortBy.value !== by ? 'none' : downward.value ? 'descending' : 'ascending'
const arrow = (by: SortBy): string => ({ none: '', ascending: ' ↑', descending: ' ↓' })[order(by)]
const file = ref<HTMLInputElement | null>(null)
async function taken(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  await take(input.files)
  input.value = ''
  await (trouble.value ? undefined : fetchList())
}
const replaceThem = (): void => void clash.value?.()
</script>

<template>
  <main id="main" class="list">
    <header>
      <h1>Sessions</h1>
      <label class="search">
        <span class="visually-hidden">Search</span>
        <input v-model="words" type="search" placeholder="title or tag" autocomplete="off" />
      </label>
      <label>
        <span class="visually-hidden">Tag</span>
        <select v-model="tag">
          <option value="">any tag</option>
          <option v-for="one in tags" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
      <label>
        <span class="visually-hidden">Sort by the share of a pattern</span>
        <select v-model="share">
          <option value="">share of …</option>
          <option v-for="row in rows" :key="row" :value="row">share of {{ row }}</option>
        </select>
      </label>
      <label><input v-model="archived" type="checkbox" /> put away</label>
      <span class="grow"></span>
      <a href="/api/movements.csv" download>movements as .csv</a>
      <input
        ref="file"
        type="file"
        accept=".json,.txt,.csv"
        multiple
        class="visually-hidden"
        aria-label="Files to take in"
        tabindex="-1"
        @change="taken"
      />
      <ElButton @click="file?.click()">Take in a file</ElButton>
      <RouterLink class="new" :to="{ name: 'bench', params: { id: 'new' } }">New session</RouterLink>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">
      {{ trouble }}
      <button v-if="clash" type="button" class="link" @click="replaceThem">Take those of the file</button>
    </p>
    <p v-if="items === null && !trouble" class="quiet" role="status">Fetching the sessions …</p>
    <p v-else-if="items?.length === 0 && asked" class="quiet">No session is called or tagged so.</p>
    <p v-else-if="items?.length === 0" class="quiet">
      {{ archived ? 'Nothing is put away.' : 'No session yet. “New session” starts one.' }}
    </p>
    <div v-else-if="items" class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col" :aria-sort="order('title')">
              <button type="button" class="plain" @click="sort('title')">Session{{ arrow('title') }}</button>
              <button type="button" class="plain changed" @click="sort('changed')">
                last changed{{ arrow('changed') }}
              </button>
            </th>
            <th scope="col" class="wide">Stave</th>
            <th v-if="sortBy.startsWith('share:')" scope="col" class="number" :aria-sort="order(sortBy)">
              <button type="button" class="plain" @click="sort(sortBy)">
                {{ sortBy.slice(6) }}{{ arrow(sortBy) }}
              </button>
            </th>
            <th v-for="column in COLUMNS" :key="column.by" scope="col" class="number" :aria-sort="order(column.by)">
              <button type="button" class="plain" @click="sort(column.by)">
                {{ column.label }}{{ arrow(column.by) }}
              </button>
            </th>
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
            <td v-if="sortBy.startsWith('share:')" class="number">
              {{ percent(item.figures.patterns[sortBy.slice(6)] ?? 0) }}
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
              <RouterLink :to="{ name: 'card', params: { id: item.id } }" :aria-label="`Card of ${item.title}`"
                >Card</RouterLink
              >
              <button
                type="button"
                class="link"
                :aria-label="`${archived ? 'Bring back' : 'Put away'} ${item.title}`"
                @click="archive(item.id)"
              >
                {{ archived ? 'Bring back' : 'Put away' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="total > size" class="pages">
        <ElButton size="small" :disabled="page <= 1" aria-label="The page before" @click="turn(page - 1)">◂</ElButton>
        {{ (page - 1) * size + 1 }} to {{ Math.min(page * size, total) }} of {{ total }}
        <ElButton size="small" :disabled="page * size >= total" aria-label="The next page" @click="turn(page + 1)"
          >▸</ElButton
        >
      </p>
      <p class="foot">
        Work, density and effort are of the parts that count (main and finisher); length and load of all.
      </p>
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
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  min-height: 58px;
}
header label {
  font-size: 13px;
}
.search input,
header select {
  font: inherit;
  font-size: 14px;
  background: var(--sheet);
  border: 1px solid var(--field);
  border-radius: 3px;
  padding: 4px 8px;
}
.new {
  background: var(--act);
  color: #fff;
  border-radius: 3px;
  padding: 6px 15px;
  text-decoration: none;
}
thead button {
  font: inherit;
  color: inherit;
}
.changed {
  margin-left: 14px;
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
  position: relative;
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
.acts > * + * {
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
@media (max-width: 700px) {
  tbody th {
    min-width: 150px;
  }
  .wide {
    width: 96px;
    min-width: 96px;
  }
  .changed {
    display: block;
    margin-left: 0;
  }
}
</style>
