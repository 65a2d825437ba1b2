<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus'

import type { Column, Difference } from '@/api/types'
import { DIFFERENCES_PANEL as say } from '@/words/texts/side-by-side'

// What differs between whole sessions, each against the first.
defineProps<{ columns: readonly Column[]; differences: readonly (readonly Difference[])[] }>()
const written = (value: unknown): string => JSON.stringify(value) ?? 'nothing'
</script>

<template>
  <section class="differences" :aria-label="say.whatDiffers">
    <h2>{{ say.whatDiffersFrom(columns[0]?.name) }}</h2>
    <ElCollapse>
      <ElCollapseItem
        v-for="(list, number) in differences.slice(1)"
        :key="number"
        :name="number"
        :title="say.difference(columns[number + 1]?.name, list.length, list.length === 1 ? '' : 's')"
      >
        <ul>
          <li v-for="(one, index) in list" :key="index">
            <b>{{ one.kind }}</b> {{ one.what }} <code>{{ one.path }}</code>
            <template v-if="one.kind === 'changed'"> {{ written(one.before) }} → {{ written(one.after) }}</template>
          </li>
        </ul>
      </ElCollapseItem>
    </ElCollapse>
  </section>
</template>

<style scoped>
.differences {
  margin-top: 18px;
}
h2 {
  font-size: 19px;
}
code {
  color: var(--mute);
  font-size: 12px;
}
</style>
