<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElTable, ElTableColumn } from 'element-plus'

import type { PersonOut } from '@/api/types'
import GroupMark from '@/parts/GroupMark.vue'
import { fullDate } from '@/words/dates'
import { PEOPLE_TABLE as say } from '@/words/texts/people'

defineProps<{ people: readonly PersonOut[] }>()
const phone = useMediaQuery('(max-width: 700px)')
const today = (one: PersonOut): string =>
  [one.away ? say.away(fullDate(one.away)) : '', one.limited ? say.limited : ''].filter(Boolean).join(' · ')
</script>

<template>
  <ul v-if="phone" class="cards">
    <li v-for="one in people" :key="one.id">
      <RouterLink class="title" :to="{ name: 'person', params: { id: one.id } }">{{ one.name }}</RouterLink>
      <span v-if="one.under_age" class="code">{{ say.underAge }}</span>
      <GroupMark v-for="group in one.groups" :key="group.id" :group="group" />
      <span v-if="today(one)" class="today">{{ today(one) }}</span>
    </li>
  </ul>
  <!-- Laid out as one table: headings and cells stand in one, so that a reader is told which belongs to which. -->
  <ElTable v-else :data="[...people]" row-key="id" table-layout="auto" class="people">
    <ElTableColumn :label="say.name" min-width="200">
      <template #default="{ row }">
        <RouterLink class="title" :to="{ name: 'person', params: { id: row.id } }">{{ row.name }}</RouterLink>
        <span v-if="row.under_age" class="code">{{ say.underAge }}</span>
      </template>
    </ElTableColumn>
    <ElTableColumn :label="say.onTheWall" prop="short_name" min-width="110" />
    <ElTableColumn :label="say.groups" min-width="180">
      <template #default="{ row }">
        <span class="marks"><GroupMark v-for="group in row.groups" :key="group.id" :group="group" /></span>
      </template>
    </ElTableColumn>
    <ElTableColumn :label="say.today" min-width="180">
      <template #default="{ row }">
        <span class="today">{{ today(row as PersonOut) }}</span>
      </template>
    </ElTableColumn>
    <ElTableColumn :label="say.account" min-width="110">
      <template #default="{ row }">
        <span :class="{ none: !row.account }">{{ row.account ?? say.noAccount }}</span>
      </template>
    </ElTableColumn>
  </ElTable>
</template>

<style scoped>
.people {
  margin: 6px 20px 40px;
  width: calc(100% - 40px);
}
.people :deep(th.el-table__cell) {
  border-bottom: 2px solid var(--ink);
  font: 500 13px var(--head);
  letter-spacing: 0.03em;
}
.people :deep(.cell) {
  padding: 0 12px 0 0;
  word-break: normal;
}
.title {
  font: 600 16px var(--head);
  margin-right: 8px;
}
.marks {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 12px;
}
.today {
  color: var(--warn);
}
.none {
  color: var(--mute);
}
.cards {
  list-style: none;
  margin: 0 0 40px;
  padding: 0 14px;
}
.cards li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 6px 0;
  min-height: 44px;
}
</style>
