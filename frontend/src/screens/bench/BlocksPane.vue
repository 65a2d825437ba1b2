<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, useTemplateRef, watch } from 'vue'

import { BLOCKS_PANE as say } from '@/words/texts/bench'
import AddBlock from './AddBlock.vue'
import { placed, useBench, type PlacedBlock } from './bench'
import BlockCard from './BlockCard.vue'
import SectionLine from './SectionLine.vue'
import { useBlockSorting } from './useDragging'

// The session as blocks, in the order of time; dragged by their grips. A new one is made where it will stand.
const props = defineProps<{ adding: boolean }>()
const emit = defineEmits<{ adding: [on: boolean]; words: []; compare: [block?: string] }>()
const { document, edit } = useBench()
const entries = computed(() => (document.value ? placed(document.value) : []))
const list = useTemplateRef<HTMLElement>('list')
useBlockSorting(list, () => entries.value, edit)

/** After which block a new one is made, where one was pointed out; otherwise before the cool-down. */
const chosen = ref<PlacedBlock | null>(null)
const after = computed(() => {
  if (chosen.value) return entries.value.find((one) => one.path === chosen.value?.path) ?? null
  return entries.value.filter((one) => one.block.part !== 'cool-down').at(-1) ?? entries.value.at(-1) ?? null
})
watch(
  () => props.adding,
  (on) => on || (chosen.value = null),
)
function addAfter(one: PlacedBlock): void {
  chosen.value = one
  emit('adding', true)
}
</script>

<template>
  <div>
    <div ref="list">
      <template v-for="entry in entries" :key="entry.block.id ?? entry.path">
        <SectionLine
          v-if="entry.section"
          :section="entry.section"
          :edit-path="entry.sectionEditPath"
          :path="entry.sectionPath"
        />
        <BlockCard :placed="entry" @compare="emit('compare', entry.block.id ?? undefined)" @add="addAfter(entry)" />
        <AddBlock
          v-if="adding && after?.path === entry.path"
          :after="entry"
          :beside="chosen === null"
          @added="emit('adding', false)"
          @close="emit('adding', false)"
        />
      </template>
    </div>
    <template v-if="entries.length === 0">
      <p class="start">
        <ElButton type="primary" @click="emit('words')">{{ say.startFromAText }}</ElButton>
        <span class="quiet">{{ say.pasteOrWriteItIn }}</span>
      </p>
      <AddBlock v-if="adding" :after="null" @added="emit('adding', false)" @close="emit('adding', false)" />
    </template>
    <button v-if="!adding" type="button" class="link" @click="emit('adding', true)">{{ say.addABlock }}</button>
  </div>
</template>

<style scoped>
.start {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.quiet {
  color: var(--mute);
}
</style>
