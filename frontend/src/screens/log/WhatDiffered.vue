<script setup lang="ts">
import type { LoggedRun } from '@/api/types'
import { signed } from '@/words/format'
import { DIFFERED as say } from '@/words/texts/log'

// What a run took more or less than planned, block by block.
defineProps<{ run: LoggedRun | null }>()
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="!run" class="said">{{ say.unknown }}</p>
    <p v-else-if="run.differences.length === 0" class="said">{{ say.none }}</p>
    <ul v-else>
      <li v-for="(one, index) in run.differences" :key="index">
        <b>{{ signed(one.seconds, 's') }}</b>
        <span>{{ say.line(one.title, one.of, one.kind) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
h2 {
  border: 0;
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 58px 1fr;
  border-top: 1px dotted var(--rule);
  padding: 4px 0;
}
b {
  font: 600 15px/1.4 var(--head);
  color: var(--warn);
}
</style>
