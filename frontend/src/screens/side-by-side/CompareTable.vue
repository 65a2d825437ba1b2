<script setup lang="ts">
import { useMediaQuery, useSwipe } from '@vueuse/core'
import { ElButton, ElRadio } from 'element-plus'
import { computed, ref, useTemplateRef, watch } from 'vue'

import type { Column, CompareRow } from '@/api/types'
import StaveThumb from '@/stave/StaveThumb.vue'
import { useMovements } from '@/composables/useMovements'
import { deltaText, leftText, valueText } from '@/words/rows'
import { COMPARE_TABLE as say } from '@/words/texts/side-by-side'

import OpenedCell from './OpenedCell.vue'
import type { Hold } from './useComparison'

const props = defineProps<{
  columns: readonly Column[]
  rows: readonly CompareRow[]
  marked: number
  places: ReadonlyMap<number, number>
  squad: number
  /** What is held still, if anything. */
  hold?: Hold
  removable: boolean
  markable: boolean
}>()
const emit = defineEmits<{ mark: [column: number]; remove: [column: number] }>()

const { nameOf } = useMovements()
const sortBy = ref<{ row: string; down: boolean } | null>(null)
function sort(row: string): void {
  if (sortBy.value?.row !== row) sortBy.value = { row, down: false }
  else sortBy.value = sortBy.value.down ? null : { row, down: true }
}
/** The first column stays where it is: the others are held against it. */
const order = computed(() => {
  const numbers = props.columns.map((_, number) => number)
  const by = sortBy.value
  if (!by) return numbers
  const value = (number: number): number => props.columns[number]?.values[by.row] ?? Infinity
  const [base = 0, ...others] = numbers
  return [
    base,
    ...others.sort((a, b) => (value(a) === value(b) ? 0 : (value(a) < value(b) ? -1 : 1) * (by.down ? -1 : 1))),
  ]
})
const all = computed(() =>
  order.value.flatMap((number) => (props.columns[number] ? [{ number, column: props.columns[number] }] : [])),
)
/** On a phone one column a page, turned by buttons or swiped. */
const narrow = useMediaQuery('(max-width: 640px)')
const page = ref(0)
const at = computed(() => Math.min(page.value, all.value.length - 1))
const shown = computed(() => (narrow.value ? all.value.slice(at.value, at.value + 1) : all.value))
const turn = (by: number): void => {
  page.value = Math.max(0, Math.min(all.value.length - 1, at.value + by))
}
const sheet = useTemplateRef<HTMLElement>('sheet')
useSwipe(sheet, {
  onSwipeEnd: (_, direction) => {
    if (narrow.value && direction === 'left') turn(1)
    if (narrow.value && direction === 'right') turn(-1)
  },
})
watch(
  () => props.marked,
  (number) => {
    const there = all.value.findIndex((one) => one.number === number)
    if (there >= 0) page.value = there
  },
)
const longest = computed(() => Math.max(1, ...props.columns.map((one) => one.thumbnail?.total_s ?? 0)))

const open = ref<{ row: string; column: number } | null>(null)
function toggle(row: CompareRow, column: number): void {
  if (row.figure === null && row.key !== 'checks') return
  const same = open.value?.row === row.key && open.value.column === column
  open.value = same ? null : { row: row.key, column }
}
const arrow = (row: string): string => (sortBy.value?.row !== row ? '' : sortBy.value.down ? ' ←' : ' →')
const sorted = (row: string): string =>
  sortBy.value?.row !== row ? say.notSorted : sortBy.value.down ? say.sortedTheMostFirst : say.sortedTheLeastFirst
const ends = (column: Column, row: CompareRow): string => {
  const spread = column.spread[row.key]
  if (!spread) return ''
  const [low, high] = [valueText(spread.low, row.unit), valueText(spread.high, row.unit)]
  return low === high ? '' : say.to(low, high)
}
const opens = (column: Column, row: CompareRow): boolean =>
  column.values[row.key] !== null && (row.figure !== null || (row.key === 'checks' && column.checks.length > 0))
/** An opened figure stands under its own column as far as there is room. */
const openedColumn = computed(() => {
  const column = open.value ? props.columns[open.value.column] : undefined
  return column?.why ? undefined : column
})
</script>

<template>
  <nav v-if="narrow && all.length > 1" class="pages" :aria-label="say.columns">
    <ElButton :disabled="at === 0" @click="turn(-1)">{{ say.before }}</ElButton>
    <span aria-live="polite"
      >{{ say.of(at + 1, all.length) }} <b>{{ all[at]?.column.name }}</b></span
    >
    <ElButton :disabled="at === all.length - 1" @click="turn(1)">{{ say.next }}</ElButton>
  </nav>
  <div ref="sheet" class="scroll">
    <table
      :style="
        narrow ? {} : { minWidth: `${150 + columns.length * 118}px`, maxWidth: `${132 + columns.length * 260}px` }
      "
    >
      <thead>
        <tr>
          <th scope="col" class="corner">
            <span class="visually-hidden">{{ say.row }}</span>
          </th>
          <th
            v-for="{ number, column } in shown"
            :key="number"
            scope="col"
            :class="{ base: number === 0, marked: markable && number === marked, cannot: column.why }"
          >
            <StaveThumb v-if="column.thumbnail" :thumbnail="column.thumbnail" :span="longest" />
            <p v-else class="blank">{{ say.noStave }}</p>
            <div class="name">
              <span>{{ column.name }}</span>
              <small v-if="places.get(number)" class="place" :title="say.placeByYourWishes(places.get(number))"
                >{{ places.get(number) }}.</small
              >
            </div>
            <small v-if="!column.why" class="goes" :title="column.wall.join('; ')">{{ column.wall.join('; ') }}</small>
            <small v-if="column.why" class="why">{{ column.why }}</small>
            <small v-if="leftText(column, hold, nameOf)" class="left">{{ leftText(column, hold, nameOf) }}</small>
            <span v-if="column.key !== 'plan' && (removable || markable)" class="acts">
              <ElRadio
                v-if="markable && !column.why"
                :model-value="marked"
                :value="number"
                size="small"
                @change="emit('mark', number)"
              >
                {{ say.mark }}<span class="visually-hidden"> {{ column.name }}</span>
              </ElRadio>
              <button v-if="removable" type="button" class="link" @click="emit('remove', number)">
                {{ say.takeOut }}<span class="visually-hidden"> {{ column.name }}</span>
              </button>
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in rows" :key="row.key">
          <tr>
            <th scope="row">
              <button
                type="button"
                class="plain"
                :title="say.sortTheColumnsByThis(sorted(row.key))"
                @click="sort(row.key)"
              >
                {{ row.label }}{{ arrow(row.key) }}<span class="visually-hidden">, {{ sorted(row.key) }}</span>
              </button>
            </th>
            <td
              v-for="{ number, column } in shown"
              :key="number"
              :class="{ base: number === 0, marked: markable && number === marked }"
            >
              <component
                :is="opens(column, row) ? 'button' : 'span'"
                v-if="!column.why"
                class="plain value"
                :type="opens(column, row) ? 'button' : undefined"
                :aria-expanded="opens(column, row) ? open?.row === row.key && open.column === number : undefined"
                @click="toggle(row, number)"
              >
                <b>{{ valueText(column.values[row.key], row.unit, column.endless.includes(row.key)) }}</b>
                <small>{{ deltaText(column.deltas[row.key], row.unit) }}</small>
                <small v-if="ends(column, row)" class="ends">{{ ends(column, row) }}</small>
              </component>
              <span v-else class="none" aria-hidden="true">·</span>
            </td>
          </tr>
          <tr v-if="open?.row === row.key && openedColumn">
            <td :colspan="shown.length + 1" class="opened">
              <OpenedCell
                v-if="row.figure"
                :column="openedColumn"
                :figure="row.figure"
                :label="row.label"
                :squad="squad"
              />
              <ul v-else class="checks">
                <li v-for="(check, index) in openedColumn.checks" :key="index">{{ check.text }}</li>
              </ul>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped src="./compare-table.css"></style>
