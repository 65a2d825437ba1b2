<script lang="ts">
export interface Choice<V> {
  value: V
  label: string
  disabled?: boolean
}
</script>

<script setup lang="ts" generic="V extends string | number | boolean">
import { useMediaQuery } from '@vueuse/core'
import { ElSelect } from 'element-plus'
import { computed, onMounted, useTemplateRef } from 'vue'

// One of several, chosen from a list: all selects of the product. Long lists can be searched by typing.
const props = defineProps<{
  /** What is chosen, for whoever cannot see where it stands. */
  label: string
  /** What stands before it, to be seen. */
  said?: string
  options: readonly Choice<V>[]
  placeholder?: string
  disabled?: boolean
  /** On a line, as the fields of a form on paper, or in a box of its own. */
  boxed?: boolean
  /** Its list is open as soon as it is there: it was asked for to choose from. */
  opened?: boolean
}>()
const chosen = defineModel<V | null>()

/** On a desk any of them is found by typing; on a phone the keyboard would cover a short list. */
const phone = useMediaQuery('(pointer: coarse)')
const SEARCHED_FROM = 9
const LONGEST = 30
const select = useTemplateRef<InstanceType<typeof ElSelect>>('select')
onMounted(() => {
  if (!props.opened) return
  select.value?.focus()
  select.value?.toggleMenu()
})
const labelOf = (value: unknown): string => props.options.find((one) => one.value === value)?.label ?? ''
const letters = computed(() =>
  Math.min(LONGEST, Math.max(4, props.placeholder?.length ?? 0, ...props.options.map((one) => one.label.length))),
)
</script>

<template>
  <span class="choice">
    <span v-if="said" aria-hidden="true">{{ said }}</span>
    <ElSelect
      ref="select"
      v-model="chosen"
      class="chosen"
      :class="{ boxed }"
      :style="{ width: `${letters * 0.56 + 2.4}em` }"
      :aria-label="label"
      :placeholder="placeholder ?? ''"
      :disabled="disabled"
      :filterable="!phone || options.length >= SEARCHED_FROM"
      default-first-option
      :empty-values="[null, undefined]"
      :fit-input-width="false"
      size="small"
      :options="[...options]"
      :persistent="false"
    >
      <!-- The list is made when it is opened: a page of many fields waits for none of them. -->
      <template #label="{ value }">{{ labelOf(value) }}</template>
    </ElSelect>
  </span>
</template>

<style scoped>
.choice {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  max-width: 100%;
}
.chosen {
  max-width: 100%;
}
</style>
