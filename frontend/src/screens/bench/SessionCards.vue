<script setup lang="ts">
import { ElTag } from 'element-plus'

import type { SessionItem } from '@/api/types'
import StaveThumb from '@/stave/StaveThumb.vue'
import ChoiceField from '@/parts/ChoiceField.vue'
import { SESSION_TABLE as say } from '@/words/texts/sessions'

import SessionActs from './SessionActs.vue'
import { COLUMNS } from './sessionColumns'
import type { SortBy } from './useSessionList'

// The list on a phone: a card a session, with all that a line of the table has.
defineProps<{ items: readonly SessionItem[]; sortBy: SortBy; archived: boolean }>()
defineEmits<{ sort: [by: SortBy]; duplicate: [id: string]; archive: [id: string] }>()
const ORDERS: { value: SortBy; label: string }[] = [
  { value: 'changed', label: say.lastChanged('') },
  { value: 'title', label: say.byName },
  ...COLUMNS.map(({ by, label }) => ({ value: by, label: label.toLowerCase() })),
]
</script>

<template>
  <p class="order">
    <ChoiceField
      :model-value="ORDERS.some((one) => one.value === sortBy) ? sortBy : null"
      :label="say.sortedBy"
      :said="say.sortedBy"
      :options="ORDERS"
      @update:model-value="$event && $emit('sort', $event)"
    />
  </p>
  <ul>
    <li v-for="one in items" :key="one.id">
      <RouterLink class="title" :to="{ name: 'bench', params: { id: one.id } }">{{ one.title }}</RouterLink>
      <span class="tags">
        <ElTag v-for="tag in one.tags" :key="tag" size="small" type="info" disable-transitions>{{ tag }}</ElTag>
      </span>
      <StaveThumb v-if="one.figures.thumbnail" :thumbnail="one.figures.thumbnail" />
      <p v-else class="problem">{{ one.figures.problem }}</p>
      <dl>
        <div v-for="column in COLUMNS" :key="column.by">
          <dt>{{ column.label }}</dt>
          <dd>{{ column.value(one.figures) }}</dd>
        </div>
      </dl>
      <p class="acts">
        <SessionActs
          :id="one.id"
          :title="one.title"
          :archived="archived"
          @duplicate="$emit('duplicate', one.id)"
          @archive="$emit('archive', one.id)"
        />
      </p>
    </li>
  </ul>
</template>

<style scoped>
.order {
  margin: 4px 0;
  color: var(--mute);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 2px solid var(--ink);
}
li {
  padding: 10px 0 4px;
  border-bottom: 1px solid var(--rule);
}
.title {
  font: 600 20px var(--head);
  color: var(--ink);
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
  margin: 2px 0 6px;
}
dl {
  display: flex;
  justify-content: space-between;
  margin: 6px 0 0;
}
dt {
  font-size: 12px;
  color: var(--mute);
}
dd {
  margin: 0;
  font: 600 18px var(--head);
}
.acts {
  display: flex;
  gap: 18px;
  margin: 4px 0 0;
}
.problem {
  color: var(--warn);
  font-size: 13px;
}
</style>
