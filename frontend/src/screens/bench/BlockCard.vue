<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Block } from '@/api/types'
import { withFreshIds, type PlacePart } from '@/composables/edits'
import { useTables } from '@/composables/useTables'
import { clock, signed, tenth } from '@/words/format'
import { BLOCK_CARD as say } from '@/words/texts/bench'

import { blockFields, formatKey, stepLists, useBench, type FieldSpec, type PlacedBlock } from './bench'
import FormatRow from './FormatRow.vue'
import StepList from './StepList.vue'
import { useMoveKeys } from './useMoves'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ placed: PlacedBlock }>()
defineEmits<{ compare: [] }>()
const { edit, figures, formats, deltas, document, lit, pointed } = useBench()
const keys = useMoveKeys(edit)

const { tables } = useTables()
const block = computed(() => props.placed.block)
const own = computed(() => figures.value?.blocks[props.placed.number])
const more = ref(false)
const shaping = ref(false)
const allFields = computed(() => blockFields(block.value))
// What is not set stays out of the way until it is asked for.
const fields = computed(() => allFields.value.filter((spec) => more.value || isSet(spec)))
const lists = computed(() => stepLists(props.placed))
const inner = computed(() =>
  block.value.clock.kind === 'rotation' ? block.value.clock.inner.kind : block.value.clock.kind,
)

function isSet(spec: FieldSpec): boolean {
  const value = fieldValue(spec)
  return value !== undefined && value !== null
}
function fieldValue(spec: FieldSpec): unknown {
  let here: unknown = block.value
  for (const key of spec.under) here = (here as Record<string, unknown>)[key]
  return (here as Record<string, unknown>)[spec.key]
}
const fieldPlace = (spec: FieldSpec): PlacePart[] => [...props.placed.place, ...spec.under, spec.key]
const fieldPath = (spec: FieldSpec): string => [props.placed.path, ...spec.under, spec.key].join('.')

function put(key: string, value: unknown): void {
  const place = [...props.placed.place, key]
  edit([value === '' ? { op: 'set', place, unset: true } : { op: 'set', place, value }])
}
const checked = (event: Event): boolean => (event.target as HTMLInputElement).checked
const word = (event: Event): string => (event.target as HTMLSelectElement).value
// What the block is by its numbers: the core recognises it.
const format = computed(() => formats.value.get(formatKey(props.placed))?.name ?? '')
const name = computed(() => block.value.title ?? format.value)
const delta = computed(() => deltas.value?.[`blocks.${props.placed.number}.total_s`])

function again(): void {
  if (!document.value) return
  const copy = withFreshIds<Block>(document.value, block.value)
  edit([{ op: 'insert', place: props.placed.list, index: props.placed.index + 1, value: copy }])
}
const remove = (): void => edit([{ op: 'remove', place: props.placed.list, index: props.placed.index }])
const isPointed = computed(() => pointed.value?.block === props.placed.number)
</script>

<template>
  <article class="block" :class="{ pointed: isPointed }" :aria-label="say.block(placed.number + 1, name)">
    <div class="part">
      <button
        type="button"
        class="grip block-grip"
        :aria-label="say.moveBlockArrowUpOr(placed.number + 1)"
        :title="say.dragOrArrowKeys"
        @keydown="keys($event, placed.list, placed.index, placed.length)"
      >
        ⋮⋮
      </button>
      <label>
        <span class="visually-hidden">{{ say.partOfBlock(placed.number + 1) }}</span>
        <select :value="block.part ?? 'main'" @change="put('part', word($event))">
          <option v-for="part in tables.parts" :key="part.key" :value="part.key">{{ part.label }}</option>
        </select>
      </label>
    </div>
    <div class="body">
      <h3 @mouseenter="lit = { block: placed.number }" @mouseleave="lit = null">
        <ValueCell
          :label="say.label"
          hide-label
          text
          :value="block.title"
          :place="[...placed.place, 'title']"
          :path="`${placed.path}.title`"
          class="label-cell"
        />
        <button
          type="button"
          class="plain clock"
          :aria-expanded="shaping"
          :title="say.formatAndItsNumbers"
          @click="shaping = !shaping"
        >
          {{ format || say.format }} <i aria-hidden="true">{{ shaping ? '−' : '+' }}</i>
        </button>
        <span v-if="block.optional && !more" class="clock">{{
          block.optional === 'exit' ? say.mayEndBefore : say.mayBeLeftOut
        }}</span>
        <span v-if="block.effort && !more" class="clock">{{ block.effort }}</span>
      </h3>
      <FormatRow v-if="shaping" :placed="placed" />
      <p class="fields">
        <ValueCell
          v-for="spec in fields"
          :key="`${spec.under.join('.')}.${spec.key}`"
          :label="spec.label"
          :unit="spec.unit"
          :value="fieldValue(spec)"
          :place="fieldPlace(spec)"
          :path="fieldPath(spec)"
        />
        <span v-if="block.talk_over && !more" class="clock">{{ say.peopleMoveDuringTheTalk }}</span>
        <template v-if="more">
          <label>
            <input
              type="checkbox"
              :checked="block.talk_over ?? false"
              @change="put('talk_over', checked($event) || '')"
            />
            {{ say.peopleMoveDuringTheTalk }}
          </label>
          <label>
            {{ say.effort }}
            <select :value="block.effort ?? ''" @change="put('effort', word($event))">
              <option value="">{{ say.asUsual }}</option>
              <option v-for="one in tables.efforts" :key="one.key" :value="one.key">{{ one.label }}</option>
            </select>
          </label>
          <label>
            {{ say.optional }}
            <select :value="block.optional ?? ''" @change="put('optional', word($event))">
              <option value="">{{ say.no }}</option>
              <option v-for="one in tables.optional" :key="one.key" :value="one.key">{{ one.label }}</option>
            </select>
          </label>
          <ValueCell
            :label="say.notes"
            text
            :value="block.notes"
            :place="[...placed.place, 'notes']"
            :path="`${placed.path}.notes`"
          />
        </template>
        <button type="button" class="link more" :aria-expanded="more" @click="more = !more">
          {{ more ? say.fewerNumbers : say.moreNumbers }}
        </button>
      </p>
      <p v-if="block.notes && !more" class="notes">{{ block.notes }}</p>
      <StepList v-for="list in lists" :key="list.path" :list="list" :clock="inner" :block="name" />
    </div>
    <div class="sum">
      <b>{{ clock(own?.total_s) }}</b>
      <span v-if="delta !== undefined" class="delta">{{ signed(delta, 's') }}</span>
      <span v-if="own">{{ say.effortIs(tenth(own.rpe)) }}</span>
      <span v-for="(score, index) in (own?.scores ?? []).slice(0, 1)" :key="index">
        {{
          'time_s' in score
            ? say.doneIn(clock(Number(score.time_s)))
            : say.rounds(Number(score.rounds), Number(score.reps))
        }}
      </span>
      <span class="acts">
        <button v-if="block.id" type="button" class="link" @click="$emit('compare')">
          {{ say.otherFormats }}<span class="visually-hidden">: {{ name }}</span>
        </button>
        <button type="button" class="link" @click="again">
          {{ say.again }}<span class="visually-hidden">: {{ name }}</span>
        </button>
        <button v-if="placed.length > 1" type="button" class="link" @click="remove">
          {{ say.remove }}<span class="visually-hidden">{{ say.ofBlock(placed.number + 1) }}</span>
        </button>
      </span>
    </div>
  </article>
</template>

<style scoped src="./block-card.css"></style>
