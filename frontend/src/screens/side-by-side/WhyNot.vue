<script setup lang="ts">
import { ElButton, ElOption, ElSelect } from 'element-plus'
import { computed, ref, watch } from 'vue'

import type { Column, CompareRow, Pick, Wish } from '@/api/types'
import { whyNotWords } from '@/words/rows'

// Any format that is not the first: why it is not, with its numbers, and a way to see it beside the others.
const props = defineProps<{
  columns: readonly Column[]
  shown: number
  pick: Pick
  wishes: readonly Wish[]
  rows: ReadonlyMap<string, CompareRow>
}>()
defineEmits<{ show: [key: string] }>()
const key = ref('')
const others = computed(() =>
  props.columns.flatMap((column, number) =>
    column.key !== 'plan' && number !== props.pick.ranked[0]?.column ? [{ column, number }] : [],
  ),
)
const chosen = computed(() => others.value.find((one) => one.column.key === key.value) ?? null)
watch(others, (all) => {
  if (!all.some((one) => one.column.key === key.value)) key.value = ''
})
const sentences = computed(() =>
  chosen.value ? whyNotWords(chosen.value.number, props.pick, props.columns, props.wishes, props.rows) : [],
)
</script>

<template>
  <section class="why-not" aria-label="Why not">
    <h2>Why not …</h2>
    <ElSelect v-model="key" filterable placeholder="a format" aria-label="Why not which format">
      <ElOption v-for="one in others" :key="one.column.key" :value="one.column.key" :label="one.column.name">
        {{ one.column.name }}<small v-if="one.column.why" class="cannot"> · does not fit</small>
      </ElOption>
    </ElSelect>
    <div v-if="chosen" class="answer" role="status">
      <p>
        <b>{{ chosen.column.name }}</b><template v-if="chosen.column.why"> does not fit.</template>
      </p>
      <p v-for="one in sentences" :key="one">{{ one }}</p>
      <ElButton v-if="!chosen.column.why && chosen.number >= shown" @click="$emit('show', chosen.column.key)"
        >Show it beside</ElButton
      >
    </div>
    <p v-else class="quiet">Every format has an answer: what is in its way, or where the first does better.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 19px;
}
.el-select {
  max-width: 320px;
}
.answer {
  margin-top: 8px;
  padding: 6px 14px;
  border-left: 3px solid var(--act);
  background: var(--sheet);
}
p {
  margin: 2px 0;
  max-width: 72ch;
}
.cannot {
  color: var(--mute);
}
.quiet {
  color: var(--mute);
  font-size: 13px;
}
</style>
