<script setup lang="ts">
import type { Option, Step } from '@/api/types'
import type { PathPart } from '@/composables/edits'
import { useTables } from '@/composables/useTables'
import { signOf } from '@/words/units'
import { readValue, valueFromUnits, valueInUnits, writeValue } from '@/words/values'
import { STEP_MORE as say } from '@/words/texts/bench'

import { FILLED_CLOCKS, SLOTTED_CLOCKS, useBench } from './bench'
import EffortField from './EffortField.vue'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ step: Step; editPath: PathPart[]; path: string; clock: string }>()
const { edit } = useBench()

const { tables } = useTables()
function put(key: string, value: unknown): void {
  const place = [...props.editPath, key]
  edit([
    value === undefined || value === '' ? { op: 'set', path: place, unset: true } : { op: 'set', path: place, value },
  ])
}
const text = (event: Event): string => (event.target as HTMLInputElement).value

function putTempo(typed: string): void {
  const parts = typed
    .split(/[-,\s]+/)
    .filter(Boolean)
    .map(readValue)
  put('tempo', parts.length ? parts : undefined)
}
function putFlag(key: 'fill' | 'chain', on: boolean): void {
  const edits = [{ op: 'set' as const, path: [...props.editPath, key], ...(on ? { value: true } : { unset: true }) }]
  // What fills has no dose of its own.
  const doses = (['reps', 'seconds', 'metres'] as const).filter((dose) => props.step[dose] !== undefined)
  const cleared = on && key === 'fill' ? doses : []
  edit([...cleared.map((dose) => ({ op: 'set' as const, path: [...props.editPath, dose], unset: true })), ...edits])
}
const options = (): Option[] => props.step.options ?? []
function putOption(index: number, change: Partial<Option>): void {
  const made = options().map((one, at) => {
    if (at !== index) return one
    const merged: Record<string, unknown> = { ...one, ...change }
    return Object.fromEntries(
      Object.entries(merged).filter(([, value]) => value !== undefined && value !== ''),
    ) as Option
  })
  put('options', made)
}
const addOption = (): void =>
  put('options', [...options(), { label: `option ${options().length + 1}`, level: 'easier' }])
function removeOption(index: number): void {
  const left = options().filter((_, at) => at !== index)
  put('options', left.length ? left : undefined)
}
const kit = (option: Option): string => (Array.isArray(option.kit) ? option.kit.join(', ') : (option.kit ?? ''))
const asKit = (typed: string): string[] =>
  typed
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
const weight = (option: Option): unknown =>
  Array.isArray(option.load) ? undefined : valueInUnits(option.load?.kg, 'kg')
function putWeight(index: number, typed: string): void {
  putOption(index, { load: typed ? { kg: valueFromUnits(readValue(typed), 'kg') as number } : undefined })
}
</script>

<template>
  <div class="more">
    <EffortField :effort="step.effort" :otherwise="say.asTheBlock" @choose="put('effort', $event)" />
    <ValueCell
      :label="say.leftInReserve"
      :value="step.reserve"
      :edit-path="[...editPath, 'reserve']"
      :path="`${path}.reserve`"
    />
    <label>
      {{ say.tempo }}
      <input
        :value="(step.tempo ?? []).join('-')"
        size="9"
        placeholder="3-1-1-0"
        autocomplete="off"
        @change="putTempo(text($event))"
      />
    </label>
    <ValueCell
      :label="say.pace"
      unit="s"
      :value="step.pace_s"
      :edit-path="[...editPath, 'pace_s']"
      :path="`${path}.pace_s`"
    />
    <ValueCell
      :label="say.moreEachRound"
      :value="step.grow"
      :edit-path="[...editPath, 'grow']"
      :path="`${path}.grow`"
    />
    <label v-if="FILLED_CLOCKS.includes(clock)">
      <input
        type="checkbox"
        :checked="Boolean(step.fill)"
        @change="putFlag('fill', ($event.target as HTMLInputElement).checked)"
      />
      {{ say.toFill }}
    </label>
    <label v-if="SLOTTED_CLOCKS.includes(clock)">
      <input
        type="checkbox"
        :checked="Boolean(step.chain)"
        @change="putFlag('chain', ($event.target as HTMLInputElement).checked)"
      />
      {{ say.nextOneInTheSame }}
    </label>
    <ValueCell :label="say.note" text :value="step.note" :edit-path="[...editPath, 'note']" :path="`${path}.note`" />
    <fieldset v-for="(option, index) in options()" :key="index">
      <legend class="visually-hidden">{{ say.option(option.label) }}</legend>
      <span>{{ say.or }}</span>
      <label
        >{{ say.label }} <input :value="option.label" size="12" @change="putOption(index, { label: text($event) })"
      /></label>
      <label>
        {{ say.level }}
        <select
          :value="option.level ?? ''"
          @change="putOption(index, { level: (text($event) || undefined) as Option['level'] })"
        >
          <option value="">{{ say.theSame }}</option>
          <option v-for="one in tables.levels" :key="one.key" :value="one.key">{{ one.label }}</option>
        </select>
      </label>
      <label
        >{{ say.kit }} <input :value="kit(option)" size="10" @change="putOption(index, { kit: asKit(text($event)) })"
      /></label>
      <label>
        {{ say.movement }}
        <input
          :value="option.movement ?? ''"
          size="14"
          @change="putOption(index, { movement: text($event) || undefined })"
        />
      </label>
      <label>
        {{ say.reps }}
        <input
          :value="writeValue(option.reps)"
          size="4"
          @change="putOption(index, { reps: readValue(text($event)) as Option['reps'] })"
        />
      </label>
      <label>
        {{ signOf('kg') }}
        <input :value="writeValue(weight(option))" size="4" @change="putWeight(index, text($event))" />
      </label>
      <label>
        {{ say.dose }}
        <input
          :value="writeValue(option.dose_factor)"
          size="4"
          @change="putOption(index, { dose_factor: readValue(text($event)) as number | undefined })"
        />
      </label>
      <button type="button" class="link" @click="removeOption(index)">{{ say.removeTheOption }}</button>
    </fieldset>
    <button type="button" class="link" @click="addOption">{{ say.addAnOption }}</button>
    <slot></slot>
  </div>
</template>

<style scoped>
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  background: var(--paper-2);
  padding: 6px 10px;
  font-size: 13px;
}
label,
fieldset span {
  color: var(--mute);
}
fieldset {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  border: 0;
  border-left: 2px solid var(--rule);
  margin: 0;
  padding: 0 0 0 8px;
}
input:not([type='checkbox']),
select {
  font-weight: 600;
  color: var(--ink);
}
</style>
