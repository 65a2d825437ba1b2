<script setup lang="ts">
import { computed, ref } from 'vue'

import { PERSON_LOG as say } from '@/words/texts/log'

// A table of sums: a name at the left, numbers in columns; the first rows, and the others once they are asked for.
const props = defineProps<{
  heading: string
  heads: readonly string[]
  /** Each with a key, its cells; `to`: an entry of the log that its name leads to. */
  rows: readonly { key: string; cells: readonly (string | number)[]; to?: string }[]
  most: number
}>()
const all = ref(false)
const shown = computed(() => (all.value ? props.rows : props.rows.slice(0, props.most)))
</script>

<template>
  <section :aria-label="heading">
    <h2>{{ heading }}</h2>
    <p v-if="rows.length === 0" class="said">{{ say.nothing }}</p>
    <div v-else class="wide" tabindex="0">
      <table>
        <thead>
          <tr>
            <th v-for="head in heads" :key="head" scope="col">{{ head }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in shown" :key="row.key">
            <th scope="row">
              <RouterLink v-if="row.to" :to="{ name: 'logged', params: { id: row.to } }">{{ row.cells[0] }}</RouterLink>
              <template v-else>{{ row.cells[0] }}</template>
            </th>
            <td v-for="(cell, index) in row.cells.slice(1)" :key="index">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="!all && rows.length > most" type="button" class="link" @click="all = true">
      {{ say.more(rows.length - most) }}
    </button>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font: 500 13px var(--head);
  color: var(--mute);
  text-align: right;
  padding: 0 12px 0 0;
}
tbody th {
  font-weight: 400;
}
th:first-child {
  text-align: left;
}
td {
  text-align: right;
}
td,
tbody th {
  border-top: 1px solid var(--rule);
  padding: 3px 12px 3px 0;
  white-space: nowrap;
}
</style>
