<script setup lang="ts">
import { computed } from 'vue'

import { useReports } from '@/composables/useReports'
import { longDay } from '@/words/dates'
import { REPORT_KINDS, REPORTS as say } from '@/words/texts/reports'

// Who reported pain or dizziness, or was hurt: for coaches, before the next training. Details stand in the log.
const props = defineProps<{ person?: string }>()
const all = useReports()
const shown = computed(() => all.value.filter((one) => !props.person || one.person === props.person))
</script>

<template>
  <section v-if="shown.length" class="reports" :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <ul>
      <li v-for="one in shown" :key="`${one.person}/${one.kind}/${one.day}`">
        <RouterLink :to="{ name: 'person', params: { id: one.person } }">{{ one.name }}</RouterLink>
        {{ REPORT_KINDS[one.kind] }}
        <span class="where">{{ say.where(longDay(one.day), one.title) }}</span>
        <RouterLink
          v-if="one.entry"
          :to="{ name: 'logged', params: { id: one.entry } }"
          :aria-label="say.detailsOf(one.name, one.title)"
          >{{ say.details }}</RouterLink
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.reports {
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 8px 14px;
  margin: 8px 0 14px;
}
h2 {
  font-size: 17px;
  margin: 0 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: baseline;
  padding: 2px 0;
}
.where {
  color: var(--mute);
}
</style>
