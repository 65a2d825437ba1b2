<script setup lang="ts">
import type { DoneDifference } from '@/api/types'
import { signed } from '@/words/format'
import { DIFFERED as say, KINDS, OF } from '@/words/texts/log'

// What took more or less than planned, block by block; null where nothing is known.
defineProps<{ all: readonly DoneDifference[] | null }>()
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="!all" class="said">{{ say.unknown }}</p>
    <p v-else-if="all.length === 0" class="said">{{ say.none }}</p>
    <ul v-else>
      <li v-for="(one, index) in all" :key="index">
        <b>{{ signed(one.seconds, 's') }}</b>
        <span>{{ say.line(one.title, OF[one.of], KINDS[one.kind] ?? one.kind) }}</span>
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
