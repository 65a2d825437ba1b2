<script setup lang="ts" generic="F extends { value: string }">
import { useEventListener } from '@vueuse/core'
import { ElAutocomplete } from 'element-plus'
import { nextTick, onMounted, ref, useTemplateRef, watchPostEffect } from 'vue'

// A field that finds one of many as it is typed: arrows walk through what is offered, Enter takes it.
const props = defineProps<{
  label: string
  start?: string
  placeholder: string
  /** Whether something is offered before anything is typed. */
  atOnce?: boolean
  /** What is offered for the words typed; the first is taken by Enter. */
  find: (words: string) => Promise<F[]>
}>()
const emit = defineEmits<{ take: [found: F | null, words: string] }>()
defineSlots<{ default: (props: { item: F }) => unknown }>()

const typed = ref(props.start ?? '')
const field = useTemplateRef('field')
/** What the control leaves out for readers: the name of its frame, and one list that is a list. */
function mend(): void {
  const input = field.value?.inputRef?.input
  input?.closest('[role="combobox"]')?.setAttribute('aria-label', props.label)
  const at = field.value?.highlightedIndex ?? -1
  if (at < 0) input?.removeAttribute('aria-activedescendant')
  else input?.setAttribute('aria-activedescendant', `${input.getAttribute('aria-controls')}-item-${at}`)
  const list = field.value?.popperRef?.popperRef?.contentRef
  list?.setAttribute('role', 'presentation')
  // What scrolls can be come to by keys, too.
  list?.querySelector('.el-scrollbar__wrap')?.setAttribute('tabindex', '0')
}
onMounted(() => {
  mend()
  field.value?.focus()
  // The click that led here is not over yet, and would close the list again.
  if (props.atOnce) setTimeout(() => void show())
})
watchPostEffect(mend)
/** The words for which stands what is offered. */
let offeredFor: string | null = null
async function offer(words: string, show: (found: F[]) => void): Promise<void> {
  const found = await props.find(words)
  offeredFor = words
  show(found)
  await nextTick()
  mend()
}
const firstOf = async (words: string): Promise<F | null> => (await props.find(words))[0] ?? null
/** Chosen from what is offered; or Enter was quicker than the offer, so the first of what it would have been is taken. */
async function take(chosen: Partial<F>): Promise<void> {
  const words = typed.value
  const offered = Object.keys(chosen).length > 1 ? (chosen as F) : await firstOf(words)
  emit('take', offered, words)
}
// Enter may be quicker than the offer for the last letter: what is offered for those before is not taken then.
useEventListener(
  () => field.value?.inputRef?.input,
  'keydown',
  (event: KeyboardEvent) => {
    const words = (event.target as HTMLInputElement).value
    if (event.key !== 'Enter' || event.isComposing || words === offeredFor) return
    event.preventDefault()
    event.stopImmediatePropagation()
    void firstOf(words).then((first) => emit('take', first, words))
  },
  { capture: true },
)
async function show(): Promise<void> {
  if (!field.value) return
  field.value.activated = true
  await field.value.getData(typed.value)
}
/** Look once more for what is typed: it is narrowed otherwise. */
async function again(): Promise<void> {
  field.value?.focus()
  await field.value?.getData(typed.value)
}
defineExpose({ again, typed })
</script>

<template>
  <ElAutocomplete
    ref="field"
    v-model="typed"
    class="find"
    :aria-label="label"
    :fetch-suggestions="offer"
    :debounce="0"
    :placeholder="placeholder"
    highlight-first-item
    hide-loading
    :loop-navigation="false"
    select-when-unmatched
    fit-input-width
    popper-class="found-list"
    @select="(one) => void take(one as Partial<F>)"
  >
    <template #default="{ item }"><slot :item="item as F" /></template>
  </ElAutocomplete>
</template>

<style scoped>
.find {
  flex: 1;
  min-width: 160px;
}
</style>
