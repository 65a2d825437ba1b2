<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus'

import type { Column, CompareRow } from '@/api/types'
import { valueText } from '@/words/rows'
import { PICTURE_TABLE as say } from '@/words/texts/side-by-side'

// The picture's marks as a table, for whoever cannot see it.
defineProps<{
  marks: readonly { number: number; column: Column; a: number; b: number }[]
  x: CompareRow | undefined
  y: CompareRow | undefined
  frontier: readonly number[]
}>()
const told = (value: number, row: CompareRow | undefined): string =>
  valueText(value, row?.unit ?? '', !Number.isFinite(value))
</script>

<template>
  <ElCollapse>
    <ElCollapseItem name="table" :title="say.thePictureAsATable">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ say.format }}</th>
            <th scope="col">{{ x?.label }}</th>
            <th scope="col">{{ y?.label }}</th>
            <th scope="col">{{ say.frontier }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in marks" :key="one.number">
            <th scope="row">{{ one.column.name }}</th>
            <td>{{ told(one.a, x) }}</td>
            <td>{{ told(one.b, y) }}</td>
            <td>{{ frontier.includes(one.number) ? say.onIt : '' }}</td>
          </tr>
        </tbody>
      </table>
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
table {
  border-collapse: collapse;
  margin-top: 4px;
}
th,
td {
  padding: 2px 12px 2px 0;
  border-bottom: 1px dotted var(--rule);
  text-align: left;
  font-weight: 400;
}
thead th {
  border-bottom: 2px solid var(--ink);
  font-weight: 600;
}
</style>
