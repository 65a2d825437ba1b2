<script setup lang="ts">
import { ElTable, ElTableColumn, ElTag } from 'element-plus'

import type { SessionItem } from '@/api/types'
import StaveThumb from '@/stave/StaveThumb.vue'
import { percent } from '@/words/format'
import { SESSION_TABLE as say } from '@/words/texts/sessions'

import SessionActs from './SessionActs.vue'
import { COLUMNS } from './sessionColumns'
import type { SortBy } from './useSessionList'

const props = defineProps<{
  items: readonly SessionItem[]
  sortBy: SortBy
  downward: boolean
  archived: boolean
}>()
defineEmits<{ sort: [by: SortBy]; duplicate: [id: string]; archive: [id: string] }>()

type Order = 'ascending' | 'descending' | 'none'
const order = (by: SortBy): Order => {
  if (props.sortBy !== by) return 'none'
  return props.downward ? 'descending' : 'ascending'
}
const ARROWS: Record<Order, string> = { none: '', ascending: ' ↑', descending: ' ↓' }
const sortedText = (how: Order): string => (how === 'none' ? '' : how === 'ascending' ? say.leastFirst : say.mostFirst)
</script>

<template>
  <!-- Laid out as one table: headings and cells stand in one, so that a reader is told which belongs to which. -->
  <ElTable :data="[...items]" row-key="id" table-layout="auto" class="sessions">
    <ElTableColumn min-width="150">
      <template #header>
        <button type="button" class="plain" @click="$emit('sort', 'title')">
          {{ say.session(ARROWS[order('title')]) }}<span class="visually-hidden">{{ sortedText(order('title')) }}</span>
        </button>
        <button type="button" class="plain changed" @click="$emit('sort', 'changed')">
          {{ say.lastChanged(ARROWS[order('changed')])
          }}<span class="visually-hidden">{{ sortedText(order('changed')) }}</span>
        </button>
      </template>
      <template #default="{ row }">
        <RouterLink class="title" :to="{ name: 'bench', params: { id: row.id } }">{{ row.title }}</RouterLink>
        <span class="tags">
          <ElTag v-for="one in row.tags" :key="one" size="small" type="info" disable-transitions>{{ one }}</ElTag>
        </span>
      </template>
    </ElTableColumn>
    <ElTableColumn :label="say.stave" class-name="wide">
      <template #default="{ row }">
        <StaveThumb v-if="row.figures.thumbnail" :thumbnail="row.figures.thumbnail" />
        <span v-else class="problem">{{ row.figures.problem }}</span>
      </template>
    </ElTableColumn>
    <ElTableColumn v-if="sortBy.startsWith('share:')" align="right">
      <template #header>
        <button type="button" class="plain" @click="$emit('sort', sortBy)">
          {{ sortBy.slice(6) }}{{ ARROWS[order(sortBy)]
          }}<span class="visually-hidden">{{ sortedText(order(sortBy)) }}</span>
        </button>
      </template>
      <template #default="{ row }">
        {{ percent(row.figures.patterns[sortBy.slice(6)] ?? 0) }}
      </template>
    </ElTableColumn>
    <ElTableColumn v-for="column in COLUMNS" :key="column.by" align="right" :class-name="`figure ${column.by}`">
      <template #header>
        <button type="button" class="plain" @click="$emit('sort', column.by)">
          {{ column.label }}{{ ARROWS[order(column.by)]
          }}<span class="visually-hidden">{{ sortedText(order(column.by)) }}</span>
        </button>
      </template>
      <template #default="{ row }">{{ column.value(row.figures) }}</template>
    </ElTableColumn>
    <ElTableColumn align="right" class-name="acts">
      <template #header
        ><span class="visually-hidden">{{ say.whatToDo }}</span></template
      >
      <template #default="{ row }">
        <SessionActs
          :id="row.id"
          :title="row.title"
          :archived="archived"
          @duplicate="$emit('duplicate', row.id)"
          @archive="$emit('archive', row.id)"
        />
      </template>
    </ElTableColumn>
  </ElTable>
</template>

<style scoped>
.sessions :deep(th.el-table__cell) {
  border-bottom: 2px solid var(--ink);
  font: 500 13px var(--head);
  letter-spacing: 0.03em;
}
.sessions :deep(.cell) {
  padding: 0 12px 0 0;
  word-break: normal;
}
.sessions :deep(.el-table__body) {
  width: 100%;
}
.sessions :deep(.wide) {
  width: 32%;
  min-width: 200px;
}
.sessions :deep(.figure),
.sessions :deep(.acts) {
  white-space: nowrap;
}
.sessions :deep(.figure .cell),
.sessions :deep(.acts .cell) {
  white-space: nowrap;
}
.sessions :deep(td.total_s) {
  font: 600 18px var(--head);
}
thead button,
.sessions :deep(th button) {
  font: inherit;
  color: inherit;
  min-height: 24px;
}
.changed {
  margin-left: 14px;
}
.title {
  font: 600 18px var(--head);
  color: var(--ink);
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
}
.sessions :deep(.acts .cell > * + *) {
  margin-left: 12px;
}
.problem {
  color: var(--warn);
  font-size: 13px;
}
@media (max-width: 700px) {
  .sessions :deep(.wide) {
    width: 96px;
    min-width: 96px;
  }
  .changed {
    display: block;
    margin-left: 0;
  }
}
</style>
