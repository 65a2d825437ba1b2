<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, useTemplateRef } from 'vue'

import { BLOCKS_PANE as say } from '@/words/texts/bench'
import AddBlock from './AddBlock.vue'
import { placed, useBench } from './bench'
import BlockCard from './BlockCard.vue'
import SectionLine from './SectionLine.vue'
import { useBlockSorting } from './useDragging'

// The session as blocks, in the order of time; dragged by their grips.
defineProps<{ adding: boolean }>()
const emit = defineEmits<{ adding: [on: boolean]; words: []; compare: [block?: string] }>()
const { document, edit } = useBench()
const entries = computed(() => (document.value ? placed(document.value) : []))
const list = useTemplateRef<HTMLElement>('list')
useBlockSorting(list, () => entries.value, edit)
</script>

<template>
  <div>
    <div ref="list">
      <template v-for="entry in entries" :key="entry.block.id ?? entry.path">
        <SectionLine
          v-if="entry.section"
          :section="entry.section"
          :place="entry.sectionPlace"
          :path="entry.sectionPath"
        />
        <BlockCard :placed="entry" @compare="emit('compare', entry.block.id ?? undefined)" />
      </template>
    </div>
    <p v-if="entries.length === 0" class="start">
      <ElButton type="primary" @click="emit('words')">{{ say.startFromAText }}</ElButton>
      <span class="quiet">{{ say.pasteOrWriteItIn }}</span>
    </p>
    <AddBlock v-if="adding" @added="emit('adding', false)" @close="emit('adding', false)" />
    <button v-else type="button" class="link add" @click="emit('adding', true)">{{ say.addABlock }}</button>
  </div>
</template>

<style scoped>
.start {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.add {
  margin-top: 10px;
}
.quiet {
  color: var(--mute);
}
</style>
