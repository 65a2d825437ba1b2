<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'

import { useMovements } from '@/composables/useMovements'
import { MARK_MENU as say } from '@/words/texts/board'

import type { LineMarks } from './marks'

const props = defineProps<{ marks: LineMarks; top: number }>()
const emit = defineEmits<{
  choose: [id: string, reading: number]
  call: [key: string, words: string]
  define: [words: string]
  close: []
}>()

interface Offer {
  text: string
  hint: string
  take: () => void
}
const { all, ready } = useMovements()
const keyOf = (name: string): string => all.value.find((one) => (one.name ?? one.key) === name)?.key ?? name
const groups = computed(() => [
  ...props.marks.assumed.map((one) => ({
    id: one.id,
    title: say.isReadAs(one.said, one.read_as),
    offers: one.readings.map((reading, number): Offer => ({
      text: reading,
      hint: number === one.chosen ? (one.settled ? say.kept : one.habit ? say.habit : say.asRead) : '',
      take: () => emit('choose', one.id, number),
    })),
  })),
  ...props.marks.names.map((one) => ({
    id: `${one.key}-${one.column}`,
    title: say.isNew(one.words),
    offers: [
      ...one.nearest.map((name): Offer => ({
        text: say.itIs(name),
        hint: say.hereAndInLaterSessions,
        take: () => void ready().then(() => emit('call', keyOf(name), one.words)),
      })),
      { text: say.tellWhatItIs, hint: '', take: () => emit('define', one.words) },
    ],
  })),
])
const numbered = computed(() => groups.value.flatMap((group) => group.offers))
const numberOf = (offer: Offer): number => numbered.value.indexOf(offer) + 1

const menu = ref<HTMLElement | null>(null)
function buttons(): HTMLButtonElement[] {
  return [...(menu.value?.querySelectorAll('button') ?? [])]
}
function keep(): void {
  const open = props.marks.assumed.find((one) => !one.settled)
  if (open) emit('choose', open.id, open.chosen)
  else emit('close')
}
function key(event: KeyboardEvent): void {
  const at = buttons().indexOf(globalThis.document.activeElement as HTMLButtonElement)
  if (event.key === 'Escape') emit('close')
  else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    const step = event.key === 'ArrowDown' ? 1 : -1
    buttons()[(at + step + buttons().length) % buttons().length]?.focus()
  } else if (/^[1-9]$/.test(event.key)) numbered.value[Number(event.key) - 1]?.take()
  else return
  event.preventDefault()
  event.stopPropagation()
}
onMounted(() => void nextTick(() => buttons()[0]?.focus()))
</script>

<template>
  <div
    ref="menu"
    class="menu"
    role="dialog"
    :aria-label="say.whatLineCouldMean(marks.line)"
    :style="{ top: `${top}px` }"
    @keydown="key"
  >
    <section v-for="group in groups" :key="group.id">
      <h3>{{ group.title }}</h3>
      <button v-for="offer in group.offers" :key="offer.text" type="button" class="plain offer" @click="offer.take()">
        <span
          >{{ offer.text }} <i v-if="offer.hint">{{ offer.hint }}</i></span
        >
        <kbd v-if="numberOf(offer) < 10">{{ numberOf(offer) }}</kbd>
      </button>
    </section>
    <p>
      <button v-if="marks.assumed.length" type="button" class="link" @click="keep">{{ say.keepWhatIsRead }}</button>
      <button type="button" class="link" @click="$emit('close')">
        {{ say.close }} <kbd>{{ say.esc }}</kbd>
      </button>
    </p>
  </div>
</template>

<style scoped>
.menu {
  position: absolute;
  right: 8px;
  z-index: 5;
  width: min(340px, calc(100% - 16px));
  padding: 8px 12px;
  border: 1px solid var(--ink);
  background: var(--sheet);
}
h3 {
  margin: 6px 0 4px;
  font: 600 13px/1.35 var(--text);
}
.offer {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  align-items: baseline;
  width: 100%;
  padding: 5px 2px;
  border-top: 1px dotted var(--rule);
  text-align: left;
  font-size: 13px;
}
.offer:hover,
.offer:focus-visible {
  background: var(--paper);
}
i {
  color: var(--mute);
}
kbd {
  border: 1px solid var(--rule);
  padding: 0 5px;
  font: 600 11px var(--text);
}
p {
  display: flex;
  justify-content: space-between;
  margin: 8px 0 0;
}
</style>
