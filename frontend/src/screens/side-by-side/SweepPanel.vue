<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'

import { api, Refusal } from '@/api/client'
import type { Column, CompareIn, CompareRow, SweepPoint, Turn } from '@/api/types'
import { useFormats } from '@/composables/useTables'
import StaveThumb from '@/stave/StaveThumb.vue'
import { valueText } from '@/words/rows'

const props = defineProps<{ columns: readonly Column[]; rows: readonly CompareRow[]; body: CompareIn }>()
const { formats, byKey } = useFormats()

const format = ref('even-intervals')
const param = ref('')
const low = ref(15)
const high = ref(60)
const step = ref(5)
const points = shallowRef<readonly SweepPoint[]>([])
const turns = shallowRef<readonly Turn[]>([])
const trouble = ref('')
const busy = ref(false)
let flying: AbortController | null = null
onScopeDispose(() => flying?.abort())

const params = computed(() =>
  (byKey.value.get(format.value)?.params ?? []).filter((one) => ['seconds', 'count', 'reps'].includes(one.kind)),
)
const swept = computed(() =>
  formats.value.filter((one) => one.params.some((each) => ['seconds', 'count', 'reps'].includes(each.kind))),
)
/** The other numbers stand as they do in the table, if the format is there. */
const fixed = computed(() => props.columns.find((one) => one.key === format.value)?.params ?? {})

watch(
  params,
  (all) => {
    if (all.some((one) => one.name === param.value)) return
    param.value = all[0]?.name ?? ''
  },
  { immediate: true },
)
watch(param, (name) => {
  const one = params.value.find((each) => each.name === name)
  if (!one) return
  // A first range that fits on the page: from the least sensible value, in a dozen steps at most.
  const usual =
    one.kind === 'count'
      ? { low: 1, high: 8, step: 1 }
      : one.kind === 'reps'
        ? { low: 2, high: 20, step: 2 }
        : { low: 15, high: 60, step: 5 }
  low.value = Math.max(one.low, usual.low)
  high.value = Math.min(one.high, Math.max(usual.high, low.value))
  step.value = usual.step
  if (low.value > usual.high) {
    high.value = Math.min(one.high, low.value * 8)
    step.value = Math.ceil((high.value - low.value) / 8)
  }
})

async function go(): Promise<void> {
  flying?.abort()
  const mine = new AbortController()
  flying = mine
  busy.value = true
  trouble.value = ''
  try {
    const { document, source, movements, text, squad, hold, target } = props.body
    const answer = await api.sweep(
      {
        document,
        source,
        movements,
        text,
        squad,
        hold,
        target,
        format: format.value,
        param: param.value,
        params: fixed.value,
        low: low.value,
        high: high.value,
        step: step.value,
      },
      mine.signal,
    )
    if (flying !== mine) return
    points.value = answer.points
    turns.value = answer.turns
  } catch (error) {
    if (flying !== mine || !(error instanceof Refusal)) return
    trouble.value = error.told
    points.value = []
  } finally {
    if (flying === mine) busy.value = false
  }
}
const longest = computed(() => Math.max(1, ...points.value.map((one) => one.column.thumbnail?.total_s ?? 0)))
const along = computed(() =>
  props.rows.filter((row) =>
    ['total', 'work', 'density', 'effort', 'load', 'above-80', 'guessed', 'called'].includes(row.key),
  ),
)
const turnText = (turn: Turn): string => {
  const row = props.rows.find((one) => one.key === turn.row)
  return `${row?.label ?? turn.row} turns at ${turn.value} (${valueText(turn.figure, row?.unit ?? '')}): it ${turn.from_rising ? 'rises up to there and falls after it' : 'falls down to there and rises after it'}.`
}
/** How high a figure stands among those of its row: ink under the number, the number itself says it. */
function bar(row: string, value: number | null | undefined): string {
  const values = points.value.flatMap((one) => one.column.values[row] ?? [])
  const most = Math.max(...values, 0)
  return value && most > 0 ? `${Math.round((value / most) * 100)}%` : '0'
}
</script>

<template>
  <section class="sweep" :class="{ unasked: points.length === 0 }" aria-label="Sweep">
    <h2>Sweep one number</h2>
    <form @submit.prevent="go">
      <label
        >format
        <select v-model="format">
          <option v-for="one in swept" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </label>
      <label
        >number
        <select v-model="param">
          <option v-for="one in params" :key="one.name" :value="one.name">{{ one.label }}</option>
        </select>
      </label>
      <label>from <input v-model.number="low" type="number" min="0" required /></label>
      <label>to <input v-model.number="high" type="number" min="0" required /></label>
      <label>by <input v-model.number="step" type="number" min="1" required /></label>
      <ElButton native-type="submit" :loading="busy">Sweep</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="points.length" class="turns" role="status">
      {{ turns.length ? turns.map(turnText).join(' ') : 'Nothing turns in this range.' }}
    </p>
    <div v-if="points.length" class="scroll">
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
      One format over a range of one of its numbers, the others as in the table above: to see where effort or density
      turns.
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
input {
  width: 58px;
  text-align: right;
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
