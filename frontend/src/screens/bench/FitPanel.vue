<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { FitWay } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'
import type { Edit } from '@/composables/edits'
import { clock, percent, tenth, whole } from '@/words/format'

import { useBench } from './bench'

const emit = defineEmits<{ close: [] }>()
const { question, edit } = useBench()
const typed = ref('')
const ways = shallowRef<readonly FitWay[] | null>(null)
const { trouble, attempt } = useAttempt()
const field = ref<HTMLInputElement | null>(null)
onMounted(() => field.value?.focus())
let timer = 0
const { ask: askLatest } = useLatest()

async function ask(): Promise<void> {
  const minutes = Number(typed.value.replace(',', '.'))
  const body = minutes > 0 ? question() : null
  ways.value = null
  await attempt(() =>
    askLatest(
      async () => (body ? (await api.fit({ ...body, available_s: minutes * 60 })).ways : null),
      (found) => (ways.value = found),
    ),
  )
  if (typed.value.trim() !== '' && !(minutes > 0)) trouble.value = 'Type the minutes there are, 32 say.'
}
function later(): void {
  window.clearTimeout(timer)
  timer = window.setTimeout(() => void ask(), 200)
}
function take(way: FitWay | undefined): void {
  if (!way) return
  edit(way.edits as unknown as Edit[])
  emit('close')
}
/** Enter takes the first way; Alt and a number, or a click, any of them. */
function keys(event: KeyboardEvent): void {
  if (event.key === 'Escape') emit('close')
  else if (event.key === 'Enter') take(ways.value?.[0])
  else if (event.altKey && /^[123]$/.test(event.key)) take(ways.value?.[Number(event.key) - 1])
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <section class="strip fit" aria-label="Fit to time" @keydown="keys">
    <label>
      Minutes there are
      <input ref="field" v-model="typed" size="5" inputmode="decimal" autocomplete="off" @input="later" />
    </label>
    <button type="button" class="link" @click="$emit('close')">close</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-else-if="ways?.length === 0" role="status">
      Nothing here brings it to that: no exit, round, window or rest is enough.
    </p>
    <ol v-else-if="ways">
      <li v-for="(way, index) in ways" :key="index">
        <button type="button" class="plain way" @click="take(way)">
          <b>{{ way.what }}</b>
          <span>
            {{ clock(way.timetable_s) }}<template v-if="way.left_s >= 1">, {{ clock(way.left_s) }} left</template> ·
            density {{ percent(way.density) }} · effort {{ tenth(way.rpe) }} · load {{ whole(way.load) }}
          </span>
          <kbd>{{ index === 0 ? 'Enter' : `Alt ${index + 1}` }}</kbd>
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
label {
  font: 600 15px var(--head);
}
input {
  font: 600 18px var(--head);
}
ol {
  padding-left: 20px;
}
.way {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: baseline;
  width: 100%;
  text-align: left;
  padding: 4px 6px;
}
.way:hover {
  background: var(--sheet);
}
.way span {
  color: var(--mute);
}
kbd {
  margin-left: auto;
  font: 600 12px var(--head);
  border: 1px solid var(--rule);
  padding: 0 5px;
  border-radius: 3px;
}
</style>
