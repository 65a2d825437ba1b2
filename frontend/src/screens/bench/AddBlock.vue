<script setup lang="ts">
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { Format } from '@/api/types'
import { withFreshIds } from '@/composables/edits'
import { useAttempt } from '@/composables/useAttempt'
import { movementIn, useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { ADD_BLOCK as say } from '@/words/texts/bench'

import { additions } from './additions'
import { useBench, type PlacedBlock } from './bench'
import FormatPalette from './FormatPalette.vue'
import MovementPicker from './MovementPicker.vue'

/** `after`: the block it will stand after, null for the first; `beside`: after the section of that block. */
const props = defineProps<{ after: PlacedBlock | null; beside?: boolean }>()
const emit = defineEmits<{ added: []; close: [] }>()
const { document, squad, edit } = useBench()
const { byKey } = useMovements()

const format = ref<Format | null>(null)
const params = ref<Record<string, unknown>>({})
const part = ref('main')
const { choicesOf } = useTables()
const chosen = ref<string[]>([])
const round = ref(0)
const { trouble, clear, attempt } = useAttempt()
const nameOf = (key: string): string => movementIn(document.value, byKey.value, key)?.name ?? key
const wanted = computed(() => {
  if (!format.value) return ''
  const { least, by } = format.value
  return by > 1 ? say.atLeastBy(least, by) : say.atLeast(least)
})

function choose(one: Format, set: Record<string, unknown>): void {
  format.value = one
  params.value = set
}
function pick(key: string): void {
  chosen.value = [...chosen.value, key]
  clear()
  // A fresh picker for the next movement.
  round.value += 1
}

async function add(): Promise<void> {
  const doc = document.value
  if (!doc || !format.value || chosen.value.length === 0) return
  const { key } = format.value
  await attempt(async () => {
    const made = await api.makeFormat({
      key,
      params: params.value,
      movements: chosen.value,
      definitions: doc.movements ?? [],
      squad: squad.value,
    })
    // The session as it stands now: it may have been changed while the block was made.
    const now = document.value ?? doc
    const entries = withFreshIds<object[]>(now, made.entries)
    const place = { after: props.after?.path, beside: props.beside, part: part.value, rest_s: made.rest_before_s }
    edit(additions(now, entries, place))
    emit('added')
  })
}
function keys(event: KeyboardEvent): void {
  const field = event.target as HTMLInputElement
  // An empty line ends the list, as a full stop does on a wall.
  if (event.key === 'Enter' && field.value === '' && chosen.value.length > 0) {
    event.preventDefault()
    event.stopPropagation()
    void add()
  } else if (event.key === 'Backspace' && field.value === '' && chosen.value.length > 0) {
    chosen.value = chosen.value.slice(0, -1)
  }
}
</script>

<template>
  <section :aria-label="say.addABlock">
    <FormatPalette v-if="!format" :label="say.format" @pick="choose" @close="$emit('close')" />
    <div v-else class="steps" @keydown.capture="keys">
      <p class="head">
        <b>{{ format.name }}</b>
        <ChoiceField v-model="part" :label="say.partOfTheNewBlock" :options="choicesOf('parts')" />
        <span class="quiet">{{ say.enterOnAnEmptyLine(wanted) }}</span>
        <button type="button" class="link" :disabled="chosen.length === 0" @click="add">{{ say.addTheBlock }}</button>
        <button type="button" class="link" @click="format = null">{{ say.anotherFormat }}</button>
      </p>
      <ol v-if="chosen.length">
        <li v-for="(key, index) in chosen" :key="index">{{ nameOf(key) }}</li>
      </ol>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <MovementPicker :key="round" :label="say.movement(chosen.length + 1)" @pick="pick" @close="$emit('close')" />
    </div>
  </section>
</template>

<style scoped>
.steps {
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 12px;
  margin: 8px 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  margin: 0;
}
b {
  font: 600 17px var(--head);
}
ol {
  margin: 4px 0;
  padding-left: 22px;
}
.quiet {
  color: var(--mute);
  font-size: 13px;
}
</style>
