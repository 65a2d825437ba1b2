<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput, ElPopover, ElSegmented } from 'element-plus'
import { computed, ref, watch } from 'vue'

import type { CompareRow } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import { valueText } from '@/words/rows'
import { HOLD_BAR as say } from '@/words/texts/side-by-side'

import type { Hold } from './useComparison'

// What is held still, at how much, and what the table shows.
const props = defineProps<{
  /** What the answer holds it at. */
  held: number | null | undefined
  rows: readonly CompareRow[]
  isNothing: (row: CompareRow) => boolean
  free: readonly { key: string; name: string; fits: boolean }[]
  room: boolean
}>()
const hold = defineModel<Hold>('hold', { required: true })
const target = defineModel<number | null>('target', { required: true })
const hidden = defineModel<string[]>('hidden', { required: true })
const emit = defineEmits<{ show: [key: string] }>()

const NAMES: Record<Hold, string> = { total: say.totalTime, work: say.workTime, reps: say.repsCalled, load: 'load' }
const UNITS = { total: 's', work: 's', load: 'load', reps: '' } as const
const holds = computed(() =>
  (Object.keys(NAMES) as Hold[]).map((key) => ({
    value: key,
    label: `${NAMES[key]}${hold.value === key && props.held ? ` ${valueText(props.held, UNITS[key])}` : ''}`,
  })),
)
function holdStill(what: Hold): void {
  hold.value = what
  target.value = null
}
const written = computed(() => (target.value === null ? '' : valueText(target.value, UNITS[hold.value])))
const typed = ref(written.value)
watch([written, hold], () => (typed.value = written.value))
// Minutes as coaches type them: 20 or 20:30; a load as a number.
function take(): void {
  const text = typed.value.trim()
  if (text === '') target.value = null
  else if (hold.value === 'load') target.value = Number(text) > 0 ? Number(text) : target.value
  else {
    const [minutes = '', seconds = '0'] = text.split(':')
    const found = Number(minutes) * 60 + Number(seconds)
    if (Number.isFinite(found) && found > 0) target.value = found
  }
  typed.value = written.value
}
const choices = computed(() =>
  props.free.map((one) => ({ value: one.key, label: one.fits ? one.name : say.doesNotFit(one.name) })),
)
const toggle = (key: string): void => {
  hidden.value = hidden.value.includes(key) ? hidden.value.filter((one) => one !== key) : [...hidden.value, key]
}
</script>

<template>
  <div class="hold">
    <span id="hold-still">{{ say.holdStill }}</span>
    <ElSegmented
      class="holds"
      :model-value="hold"
      :options="holds"
      :aria-label="say.holdStill"
      @change="(what) => holdStill(what as Hold)"
    />
    <ElInput
      v-if="hold !== 'reps'"
      v-model="typed"
      class="target"
      :aria-label="say.holdItAt"
      :placeholder="hold === 'load' ? say.otherLoad : say.otherMin"
      @change="take"
    />
    <span class="said" :title="say.eachFormatIsFilledTo">{{ say.filledUpNeverOver }}</span>
    <span class="grow"></span>
    <ChoiceField
      :model-value="null"
      :label="say.addAFormat"
      :placeholder="room ? say.addAFormatHere : say.inPlaceOfTheLast"
      :options="choices"
      @update:model-value="$event && emit('show', $event)"
    />
    <ElPopover trigger="click" placement="bottom-end" :width="420">
      <template #reference
        ><ElButton>{{ say.rows }}</ElButton></template
      >
      <div class="rows" role="group" :aria-label="say.rowsOfTheTable">
        <ElCheckbox
          v-for="row in rows"
          :key="row.key"
          :model-value="!hidden.includes(row.key)"
          @change="toggle(row.key)"
        >
          {{ row.label }}{{ isNothing(row) ? say.nothingHere : '' }}
        </ElCheckbox>
      </div>
    </ElPopover>
  </div>
</template>

<style scoped>
.hold {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 8px 20px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
.target {
  width: 92px;
}
.said {
  color: var(--mute);
}
.grow {
  flex: 1;
}
.rows {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
}
@media print {
  .hold :deep(.el-button),
  .hold :deep(.choice),
  .target {
    display: none;
  }
}
</style>
