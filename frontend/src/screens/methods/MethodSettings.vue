<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, watch } from 'vue'

import type { MethodSetting } from '@/api/types'
import NumberField from '@/parts/NumberField.vue'
import { percent } from '@/words/format'
import { SETTING as say } from '@/words/texts/methods'

import { cellsOf, withCell, type Cell } from './settings'

// The constants of a paragraph: each with its bounds, unit and source. What is typed is kept only once it is said so.
const props = defineProps<{
  heading: string
  settings: readonly MethodSetting[]
  methods: Readonly<Record<string, unknown>>
  changes: boolean
}>()
const emit = defineEmits<{ change: [key: string, value: unknown] }>()
const typed = ref<Record<string, unknown>>({})
watch(
  () => props.methods,
  () => (typed.value = {}),
)
const valueOf = (one: MethodSetting): unknown =>
  one.key in typed.value ? typed.value[one.key] : props.methods[one.key]
const label = (cell: Cell): string => (cell.share === null ? cell.label : say.atShare(percent(cell.share)))
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const shipped = (one: MethodSetting): string =>
  cellsOf(one, one.default)
    .map((cell) => cell.value ?? say.nothing)
    .join(' / ')
const rows = computed(() =>
  props.settings.map((one) => ({
    one,
    cells: cellsOf(one, valueOf(one)),
    differs: !same(props.methods[one.key], one.default),
    waits: one.key in typed.value && !same(typed.value[one.key], props.methods[one.key]),
    bounds: [...new Set(one.cells.map((cell) => say.between(cell.low, cell.high)))].join(' / '),
  })),
)
function type(one: MethodSetting, cell: Cell, value: number | null): void {
  typed.value = { ...typed.value, [one.key]: withCell(valueOf(one), cell, value) }
}
function leave(key: string): void {
  typed.value = Object.fromEntries(Object.entries(typed.value).filter(([name]) => name !== key))
}
</script>

<template>
  <section v-if="rows.length" class="settings" :aria-label="say.constantsOf(heading)">
    <div v-for="{ one, cells, differs, waits, bounds } in rows" :key="one.key" class="row" :class="{ differs }">
      <span class="what"
        >{{ one.label }}
        <small>{{ say.source(one.source) }}</small>
      </span>
      <span class="cells">
        <template v-for="cell in cells" :key="cell.key">
          <NumberField
            v-if="changes"
            :model-value="cell.value"
            :label="cells.length > 1 ? `${one.label}: ${label(cell)}` : one.label"
            :said="cells.length > 1 ? label(cell) : undefined"
            :min="cell.low"
            :max="cell.high"
            :step="one.step"
            :placeholder="one.empty ? say.nothing : undefined"
            @change="type(one, cell, $event)"
          />
          <span v-else>
            <template v-if="cells.length > 1">{{ label(cell) }} </template><b>{{ cell.value ?? say.nothing }}</b>
          </span>
        </template>
        <span class="said">{{ one.unit }}</span>
      </span>
      <span class="about">
        <small
          >{{ one.empty && cells[0]?.value === null ? one.empty : bounds }} · {{ say.shipped(shipped(one)) }}</small
        >
        <template v-if="changes && waits">
          <ElButton type="primary" size="small" @click="emit('change', one.key, typed[one.key])">{{
            say.keep
          }}</ElButton>
          <button type="button" class="link" @click="leave(one.key)">{{ say.leave }}</button>
        </template>
        <button v-else-if="changes && differs" type="button" class="link" @click="emit('change', one.key, null)">
          {{ say.reset }}<span class="visually-hidden"> {{ say.resetOf(one.label) }}</span>
        </button>
      </span>
    </div>
  </section>
</template>

<style scoped>
.settings {
  margin: 10px 0;
}
.row {
  display: grid;
  grid-template-columns: minmax(180px, 1.1fr) minmax(0, 1.5fr) minmax(170px, 1fr);
  gap: 4px 18px;
  border-bottom: 1px solid var(--rule);
  padding: 6px 0;
  align-items: center;
}
.row.differs .what {
  font-weight: 600;
}
small {
  display: block;
  color: var(--mute);
  font-size: 12.5px;
  font-weight: 400;
}
.cells {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.said {
  color: var(--mute);
}
.link {
  margin-left: 6px;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
