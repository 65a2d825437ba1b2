<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { ElInput } from 'element-plus'
import { computed, onMounted, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { queryClient, troubleOf } from '@/api/query'
import type { DocumentIn, FitWay } from '@/api/types'
import type { Edit } from '@/composables/edits'
import { clock, percent, tenth, whole } from '@/words/format'
import { FIT_PANEL as say } from '@/words/texts/bench'

import { useBench } from './bench'

const emit = defineEmits<{ close: [] }>()
const { question, edit } = useBench()
const TYPING_MS = 200
const typed = ref('')
const wanted = refDebounced(typed, TYPING_MS)
const minutes = computed(() => Number(wanted.value.replace(',', '.')))
const asked = computed(() => (minutes.value > 0 ? question() : null))
const { data, error } = useQuery(
  {
    queryKey: computed(() => ['fit', minutes.value, JSON.stringify(asked.value)]),
    queryFn: ({ queryKey: [, time, body], signal }) =>
      api.fit({ ...(JSON.parse(String(body)) as DocumentIn), available_s: Number(time) * 60 }, signal),
    enabled: computed(() => asked.value !== null),
    gcTime: 0,
  },
  queryClient,
)
const ways = computed(() => (asked.value === null ? null : (data.value?.ways ?? null)))
const refused = troubleOf(error)
const trouble = computed(() => (wanted.value.trim() !== '' && !(minutes.value > 0) ? say.typeMinutes : refused.value))
const field = useTemplateRef('field')
onMounted(() => field.value?.focus())

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
  <section class="strip fit" :aria-label="say.fitToTime" @keydown="keys">
    <span class="minutes">
      <b aria-hidden="true">{{ say.minutesThereAre }}</b>
      <ElInput
        ref="field"
        v-model="typed"
        :aria-label="say.minutesThereAre"
        inputmode="decimal"
        autocomplete="off"
        size="small"
      />
    </span>
    <button type="button" class="link" @click="$emit('close')">{{ say.close }}</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-else-if="ways?.length === 0" role="status">
      {{ say.nothingHereBringsItTo }}
    </p>
    <ol v-else-if="ways">
      <li v-for="(way, index) in ways" :key="index">
        <button type="button" class="plain way" @click="take(way)">
          <b>{{ way.what }}</b>
          <span>
            {{ clock(way.timetable_s) }}<template v-if="way.left_s >= 1">{{ say.left(clock(way.left_s)) }}</template>
            {{ say.densityEffortLoad(percent(way.density), tenth(way.rpe), whole(way.load)) }}
          </span>
          <kbd>{{ index === 0 ? say.enter : `Alt ${index + 1}` }}</kbd>
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
.minutes {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.minutes .el-input {
  width: 5em;
}
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
