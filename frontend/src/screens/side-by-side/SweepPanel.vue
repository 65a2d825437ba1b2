<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { max } from 'd3-array'
import { ElButton } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { queryClient, troubleOf } from '@/api/query'
import type { Body, Column, CompareIn, CompareRow, Format, Turn } from '@/api/types'
import { useFormats } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import StaveThumb from '@/stave/StaveThumb.vue'
import { valueText } from '@/words/rows'
import { SWEEP_PANEL as say } from '@/words/texts/side-by-side'

const props = defineProps<{ columns: readonly Column[]; rows: readonly CompareRow[]; body: CompareIn }>()
const { formats, byKey } = useFormats()

const format = ref('even-intervals')
const param = ref<string | null>(null)
const low = ref<number | null>(null)
const high = ref<number | null>(null)
const step = ref<number | null>(null)

const sweepable = (one: Format): Format['params'] => one.params.filter((each) => each.sweep !== null)
const params = computed(() => {
  const chosen = byKey.value.get(format.value)
  return chosen ? sweepable(chosen) : []
})
const swept = computed(() => formats.value.filter((one) => sweepable(one).length > 0))
const formatChoices = computed(() => swept.value.map((one) => ({ value: one.key, label: one.name })))
const paramChoices = computed(() => params.value.map((one) => ({ value: one.name, label: one.label })))
/** The other numbers stand as they do in the table, if the format is there. */
const fixed = computed(() => props.columns.find((one) => one.key === format.value)?.params ?? {})

watch(
  params,
  (all) => {
    if (!all.some((one) => one.name === param.value)) param.value = all[0]?.name ?? null
  },
  { immediate: true },
)
watch(
  [param, params],
  ([name, all]) => {
    const usual = all.find((one) => one.name === name)?.sweep
    if (usual) [low.value, high.value, step.value] = [usual.low, usual.high, usual.step]
  },
  { immediate: true },
)

const asked = shallowRef<Body<'SweepIn'> | null>(null)
const { data, error, isFetching } = useQuery(
  {
    queryKey: computed(() => ['sweep', JSON.stringify(asked.value)]),
    queryFn: ({ queryKey, signal }) => api.sweep(JSON.parse(String(queryKey[1])) as Body<'SweepIn'>, signal),
    enabled: computed(() => asked.value !== null),
    placeholderData: keepPreviousData,
    gcTime: 0,
  },
  queryClient,
)
const points = computed(() => data.value?.points ?? [])
const turns = computed(() => data.value?.turns ?? [])
const trouble = troubleOf(error)
function go(): void {
  if (param.value === null || low.value === null || high.value === null || step.value === null) return
  const { document, source, movements, text, squad, hold, target } = props.body
  const range = { low: low.value, high: high.value, step: step.value }
  const what = { format: format.value, param: param.value, params: fixed.value }
  asked.value = { document, source, movements, text, squad, hold, target, ...what, ...range }
}
const longest = computed(() => Math.max(1, ...points.value.map((one) => one.column.thumbnail?.total_s ?? 0)))
const along = computed(() =>
  props.rows.filter((row) =>
    ['total', 'work', 'density', 'effort', 'load', 'above-80', 'guessed', 'called'].includes(row.key),
  ),
)
const turnText = (turn: Turn): string => {
  const row = props.rows.find((one) => one.key === turn.row)
  const way = turn.from_rising ? say.risesUpToThereAnd : say.fallsDownToThereAnd
  return say.turns(row?.label ?? turn.row, turn.value, valueText(turn.figure, row?.unit ?? ''), way)
}
/** How high a figure stands among those of its row: ink under the number, the number itself says it. */
function bar(row: string, value: number | null | undefined): string {
  const values = points.value.flatMap((one) => one.column.values[row] ?? [])
  const most = max(values) ?? 0
  return value && most > 0 ? `${Math.round((value / most) * 100)}%` : '0'
}
</script>

<template>
  <section class="sweep" :class="{ unasked: points.length === 0 }" :aria-label="say.sweep">
    <h2>{{ say.sweepOneNumber }}</h2>
    <form @submit.prevent="go">
      <ChoiceField v-model="format" :label="say.format" :said="say.format" :options="formatChoices" />
      <ChoiceField v-model="param" :label="say.number" :said="say.number" :options="paramChoices" />
      <NumberField v-model="low" :label="say.from" :said="say.from" />
      <NumberField v-model="high" :label="say.to" :said="say.to" />
      <NumberField v-model="step" :label="say.by" :said="say.by" :min="1" />
      <ElButton native-type="submit" :loading="isFetching">{{ say.sweep }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="points.length" class="turns" role="status">
      {{ turns.length ? turns.map(turnText).join(' ') : say.nothingTurnsInThisRange }}
    </p>
    <div v-if="points.length" class="scroll" tabindex="0" role="group" :aria-label="say.theSweepInFigures">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ params.find((one) => one.name === param)?.label }}</th>
            <th v-for="one in points" :key="one.value" scope="col">
              <StaveThumb v-if="one.column.thumbnail" :thumbnail="one.column.thumbnail" :span="longest" />
              <span>{{ one.value }}</span>
              <small v-if="one.column.why">{{ one.column.why }}</small>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in along" :key="row.key">
            <th scope="row">{{ row.label }}</th>
            <td v-for="one in points" :key="one.value">
              {{ one.column.why ? '–' : valueText(one.column.values[row.key], row.unit) }}
              <i aria-hidden="true" :style="{ width: bar(row.key, one.column.values[row.key]) }"></i>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="quiet">
      {{ say.oneFormatOverARange }}
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 19px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  margin: 4px 0 8px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  table-layout: fixed;
  min-width: 560px;
}
th,
td {
  text-align: right;
  padding: 3px 5px;
  border-bottom: 1px dotted var(--rule);
  vertical-align: bottom;
  position: relative;
}
th:first-child {
  text-align: left;
  width: 104px;
  font-weight: 400;
  color: var(--mute);
}
thead th {
  border-bottom: 2px solid var(--ink);
  font: 600 16px var(--head);
}
small {
  display: block;
  font: 12px var(--text);
  color: var(--warn);
  text-align: left;
}
i {
  display: block;
  height: 3px;
  margin-left: auto;
  background: var(--e2);
}
.quiet {
  color: var(--mute);
  font-size: 13px;
}
@media print {
  .unasked {
    display: none;
  }
}
</style>
