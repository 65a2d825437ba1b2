<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CheckResult } from '@/api/types'
import type { Edit } from '@/composables/edits'

import { useBench } from './bench'

const { figures, edit } = useBench()
const all = ref(false)

const SEVERITY: Record<CheckResult['severity'], string> = { stop: 'Will not work', look: 'Look', note: 'Note' }
const open = computed(() => (figures.value?.checks ?? []).filter((one) => !one.accepted))
const loud = computed(() => open.value.filter((one) => one.severity !== 'note'))
const shown = computed(() => (all.value ? open.value : loud.value))
const quiet = computed(() => open.value.length - loud.value.length)

function mend(one: CheckResult): void {
  if (one.mend) edit(one.mend.edits as unknown as Edit[])
}
</script>

<template>
  <section class="checks" aria-label="Checks">
    <h3>Checks</h3>
    <p v-if="open.length === 0" class="quiet">Nothing to look at.</p>
    <ul>
      <li v-for="(one, index) in shown" :key="index" :class="one.severity">
        <b>{{ SEVERITY[one.severity] }}</b> {{ one.text }}
        <button v-if="one.mend" type="button" class="link" @click="mend(one)">{{ one.mend.label }}</button>
      </li>
    </ul>
    <button v-if="quiet > 0" type="button" class="link" :aria-expanded="all" @click="all = !all">
      {{ all ? 'hide the notes' : `${quiet} more ${quiet === 1 ? 'note' : 'notes'}` }}
    </button>
  </section>
</template>

<style scoped>
.checks {
  padding-top: 8px;
}
h3 {
  font-size: 15px;
}
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li {
  border-left: 3px solid var(--rule);
  padding: 3px 10px;
  margin-top: 5px;
  font-size: 13px;
}
li.look,
li.stop {
  border-color: var(--warn);
  background: var(--warn-sheet);
}
li.stop {
  border-left-width: 6px;
}
.link {
  font-size: 13px;
}
.quiet {
  color: var(--mute);
  margin: 2px 0;
}
</style>
