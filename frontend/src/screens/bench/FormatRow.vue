<script setup lang="ts">
import { ElCheckbox } from 'element-plus'
import { computed, watch } from 'vue'

import { api } from '@/api/client'
import { newest } from '@/api/query'
import type { Block, FormatParam } from '@/api/types'
import { withFreshIds, type PathPart } from '@/composables/edits'
import { useAttempt } from '@/composables/useAttempt'
import { useFormats } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { readValue, writeValue } from '@/words/values'
import { FORMAT_ROW as say } from '@/words/texts/bench'

import { formatKey, useBench, type PlacedBlock } from './bench'

const props = defineProps<{ placed: PlacedBlock }>()
const { edit, document, squad, formats } = useBench()
const { formats: all, byKey } = useFormats()

const fit = computed(() => formats.value.get(formatKey(props.placed))?.fits[0] ?? null)
const shape = computed(() => (fit.value ? byKey.value.get(fit.value.key) : undefined))
const { trouble, attempt } = useAttempt()
const choices = computed(() => all.value.map((one) => ({ value: one.key, label: one.name })))

const unit = (param: FormatParam): string => (param.kind === 'seconds' || param.kind === 'seconds-list' ? 's' : '')

/** What was asked for last, until its figures are there: a change of another number builds on it. */
let asked: { key: string; params: Record<string, unknown> } | null = null
let underWay = 0
watch(fit, () => {
  if (underWay === 0) asked = null
})

/** The entries of the block as the format has them; undefined where another is asked for meanwhile. */
async function entriesOf(wanted: NonNullable<typeof asked>) {
  for (;;) {
    // What is typed into the block meanwhile goes into the format as well.
    const entry: unknown = props.placed.block
    const body = { ...wanted, entry: entry as Block, squad: squad.value }
    const made = await newest(['format', squad.value, formatKey(props.placed)], (signal) =>
      api.makeFormat(body, signal),
    )
    if (made === undefined || entry === props.placed.block) return made?.entries
  }
}
async function remake(key: string, params: Record<string, unknown>): Promise<void> {
  if (document.value === null) return
  const wanted = { key, params }
  asked = wanted
  underWay += 1
  const done = await attempt(async () => {
    const [first, ...more] = (await entriesOf(wanted)) ?? []
    if (!first || document.value === null) return
    const list: PathPart[] = props.placed.list
    const others = withFreshIds(document.value, more)
    edit([
      { op: 'set', path: [...list, props.placed.index], value: first },
      ...others.map((value, at) => ({ op: 'insert' as const, path: list, index: props.placed.index + 1 + at, value })),
    ])
  })
  underWay -= 1
  if (!done && asked === wanted) asked = null
}
function change(param: FormatParam, value: unknown): void {
  const now = asked ?? fit.value
  if (now) void remake(now.key, { ...now.params, [param.name]: value })
}
const typed = (event: Event): unknown => readValue((event.target as HTMLInputElement).value) ?? null
</script>

<template>
  <div class="shape" role="group" :aria-label="say.formatOfBlock(placed.number + 1)">
    <ChoiceField
      :model-value="fit?.key ?? null"
      :label="say.format"
      :said="say.format"
      :placeholder="say.noneOfTheNamed"
      :options="choices"
      opened
      @update:model-value="$event && remake($event, {})"
    />
    <template v-if="shape && fit">
      <template v-for="param in shape.params" :key="param.name">
        <ChoiceField
          v-if="param.kind === 'choice'"
          :model-value="String(fit.params[param.name])"
          :label="param.label"
          :said="param.label"
          :options="param.choices.map((one) => ({ value: one, label: one.replaceAll('-', ' ') }))"
          @update:model-value="change(param, $event)"
        />
        <ElCheckbox
          v-else-if="param.kind === 'flag'"
          :model-value="Boolean(fit.params[param.name])"
          @change="change(param, Boolean($event))"
        >
          {{ param.label }}
        </ElCheckbox>
        <label v-else>
          <span>{{ param.label }}</span>
          <input
            :value="writeValue(fit.params[param.name])"
            size="5"
            inputmode="decimal"
            autocomplete="off"
            @change="change(param, typed($event))"
          />
          <span v-if="unit(param)" aria-hidden="true">{{ unit(param) }}</span>
        </label>
      </template>
    </template>
    <p v-if="trouble" class="why" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.shape {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  background: var(--paper-2);
  padding: 6px 10px;
  margin: 4px 0;
  font-size: 13px;
}
label {
  display: inline-flex;
  gap: 4px;
  align-items: baseline;
}
span {
  color: var(--mute);
}
select,
input {
  font-weight: 600;
}
.why {
  flex-basis: 100%;
  margin: 2px 0 0;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
}
</style>
