<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, watch } from 'vue'

import type { Column, CompareRow, Pick, Wish } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import { whyNotWords } from '@/words/rows'
import { WHY_NOT as say } from '@/words/texts/side-by-side'

// Any format that is not the first: why it is not, with its numbers, and a way to see it beside the others.
const props = defineProps<{
  columns: readonly Column[]
  shown: number
  pick: Pick
  wishes: readonly Wish[]
  rows: ReadonlyMap<string, CompareRow>
}>()
defineEmits<{ show: [key: string] }>()
const key = ref<string | null>(null)
const others = computed(() =>
  props.columns.flatMap((column, number) =>
    column.key !== 'plan' && number !== props.pick.ranked[0]?.column ? [{ column, number }] : [],
  ),
)
const choices = computed(() =>
  others.value.map(({ column }) => ({
    value: column.key,
    label: column.why ? say.fitsNot(column.name) : column.name,
  })),
)
const chosen = computed(() => others.value.find((one) => one.column.key === key.value) ?? null)
watch(others, (all) => {
  if (!all.some((one) => one.column.key === key.value)) key.value = null
})
const sentences = computed(() =>
  chosen.value ? whyNotWords(chosen.value.number, props.pick, props.columns, props.wishes, props.rows) : [],
)
</script>

<template>
  <section class="why-not" :aria-label="say.whyNot">
    <h2>{{ say.whyNotHead }}</h2>
    <ChoiceField v-model="key" :label="say.whyNotWhichFormat" :placeholder="say.aFormat" :options="choices" boxed />
    <div v-if="chosen" class="answer" role="status">
      <p>
        <b>{{ chosen.column.name }}</b><template v-if="chosen.column.why">{{ say.doesNotFit }}</template>
      </p>
      <p v-for="one in sentences" :key="one">{{ one }}</p>
      <ElButton v-if="!chosen.column.why && chosen.number >= shown" @click="$emit('show', chosen.column.key)">{{
        say.showItBeside
      }}</ElButton>
    </div>
    <p v-else class="quiet">{{ say.everyFormatHasAnAnswer }}</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 19px;
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
.quiet {
  color: var(--mute);
  font-size: 13px;
}
</style>
