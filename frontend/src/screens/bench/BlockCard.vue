<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Block } from '@/api/types'
import { withFreshIds } from '@/composables/edits'
import { useTables } from '@/composables/useTables'
import { clock, signed, tenth } from '@/words/format'
import { BLOCK_CARD as say } from '@/words/texts/bench'

import { formatKey, stepLists, useBench, type PlacedBlock } from './bench'
import BlockFoot from './BlockFoot.vue'
import BlockMore from './BlockMore.vue'
import BlockSentence from './BlockSentence.vue'
import FormatRow from './FormatRow.vue'
import StepList from './StepList.vue'
import { useMoveKeys } from './useMoves'

const props = defineProps<{ placed: PlacedBlock }>()
defineEmits<{ compare: []; add: [] }>()
const { edit, figures, formats, deltas, document, lit, light: shining } = useBench()
const keys = useMoveKeys(edit)

const { tables } = useTables()
const block = computed(() => props.placed.block)
// Found by what it is, not by where it stands: until figures come, a block that was moved keeps its own.
const own = computed(() => {
  const { id } = block.value
  return id ? figures.value?.blocks.find((one) => one.id === id) : figures.value?.blocks[props.placed.number]
})
const more = ref(false)
const shaping = ref(false)
const lists = computed(() => stepLists(props.placed))
const inner = computed(() =>
  block.value.clock.kind === 'rotation' ? block.value.clock.inner.kind : block.value.clock.kind,
)
// What the block is by its numbers: the core recognises it.
const format = computed(() => formats.value.get(formatKey(props.placed))?.name ?? '')
const name = computed(() => block.value.title ?? format.value)
const delta = computed(() => deltas.value?.[`blocks.${props.placed.number}.total_s`])

const putPart = (event: Event): void =>
  edit([{ op: 'set', path: [...props.placed.editPath, 'part'], value: (event.target as HTMLSelectElement).value }])
function again(): void {
  if (!document.value) return
  const copy = withFreshIds<Block>(document.value, block.value)
  edit([{ op: 'insert', path: props.placed.list, index: props.placed.index + 1, value: copy }])
}
const remove = (): void => edit([{ op: 'remove', path: props.placed.list, index: props.placed.index }])
const isPointed = computed(() => shining.value.blocks.has(props.placed.number))
const light = (on: boolean): void => {
  lit.value = on ? { block: props.placed.number } : null
}
</script>

<template>
  <article
    class="block"
    :class="{ pointed: isPointed }"
    :aria-label="say.block(placed.number + 1, name)"
    tabindex="-1"
    @mouseenter="light(true)"
    @mouseleave="light(false)"
    @focusin="light(true)"
    @focusout="light(false)"
  >
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
        <select :value="block.part ?? 'main'" @change="putPart">
          <option v-for="part in tables.parts" :key="part.key" :value="part.key">{{ part.label }}</option>
        </select>
      </label>
    </div>
    <BlockSentence :placed="placed" :format="format" :shaping="shaping" @shape="shaping = !shaping" />
    <p class="sum">
      <span v-for="(score, index) in (own?.scores ?? []).slice(0, 1)" :key="index">
        {{
          'time_s' in score
            ? say.doneIn(clock(Number(score.time_s)))
            : say.rounds(Number(score.rounds), Number(score.reps))
        }}
      </span>
      <span v-if="own">{{ say.effortIs(tenth(own.rpe)) }}</span>
      <span v-if="delta !== undefined" class="delta">{{ signed(delta, 's') }}</span>
      <b>{{ clock(own?.total_s) }}</b>
    </p>
    <div class="body">
      <FormatRow v-if="shaping" :placed="placed" />
      <p v-if="block.notes && !more" class="notes">{{ block.notes }}</p>
      <StepList
        v-for="list in lists"
        :key="list.path"
        :list="list"
        :clock="inner"
        :block="name"
        :number="placed.number"
      />
    </div>
    <BlockMore v-if="more" class="wide" :placed="placed" />
    <BlockFoot
      class="wide"
      :placed="placed"
      :name="name"
      :more="more"
      @compare="$emit('compare')"
      @again="again"
      @remove="remove"
      @more="more = !more"
      @add="$emit('add')"
    />
  </article>
</template>

<style scoped src="./block-card.css"></style>
