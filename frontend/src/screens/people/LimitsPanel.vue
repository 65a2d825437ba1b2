<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { Limit, OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import DayField from '@/parts/DayField.vue'
import MovementPicker from '@/parts/MovementPicker.vue'
import { fullDate, today } from '@/words/dates'
import { LIMITS_PANEL as say } from '@/words/texts/people'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const { tables, choicesOf, labelOf } = useTables()
const { nameOf } = useMovements()
const MOVEMENT = '…'
const what = ref('')
const movement = ref('')
const picking = ref(false)
const side = ref('both')
const first = ref(today())
const last = ref('')
const note = ref('')
const choices = computed(() => [
  ...tables.value.joints.map((one) => ({ value: one.key, label: one.label })),
  { value: MOVEMENT, label: movement.value ? nameOf(movement.value) : say.aMovement },
])
function choose(to: string | null | undefined): void {
  what.value = to ?? ''
  picking.value = to === MOVEMENT
}
function pick(key: string): void {
  movement.value = key
  picking.value = false
}
const { trouble, attempt } = useAttempt()
async function add(): Promise<void> {
  const spared = what.value === MOVEMENT ? { movement: movement.value, joint: '' } : { joint: what.value, movement: '' }
  const done = await attempt(() =>
    api.addLimit(props.person.id, {
      ...spared,
      side: side.value,
      first: first.value,
      last: last.value || null,
      note: note.value,
    }),
  )
  if (!done) return
  what.value = movement.value = note.value = last.value = ''
  emit('changed')
}
const end = (id: number) =>
  attempt(async () => {
    await api.endLimit(id)
    emit('changed')
  })
const spared = (one: Limit): string =>
  [one.side === 'both' ? '' : labelOf('limit_sides', one.side), one.joint || nameOf(one.movement)]
    .filter(Boolean)
    .join(' ')
const state = (one: Limit): string => (one.holds ? '' : one.first > today() ? say.ahead : say.over)
const ready = computed(() => (what.value === MOVEMENT ? movement.value !== '' : what.value !== ''))
</script>

<template>
  <section :aria-label="say.limits">
    <h2>{{ say.limits }}</h2>
    <p class="said">{{ say.why }}</p>
    <p v-if="!person.limits.length" class="said">{{ say.none }}</p>
    <ul class="lines">
      <li v-for="one in person.limits" :key="one.id" :class="{ past: !one.holds }">
        <b>{{ spared(one) }}</b>
        <span class="said">{{ say.since(fullDate(one.first)) }}{{ one.last ? say.to(fullDate(one.last)) : '' }}</span>
        <span v-if="state(one)" class="code">{{ state(one) }}</span>
        <span v-if="one.note" class="note">{{ one.note }}</span>
        <span class="grow"></span>
        <button v-if="one.holds || one.first > today()" type="button" class="link" @click="end(one.id)">
          {{ say.end }}<span class="visually-hidden">: {{ spared(one) }}</span>
        </button>
      </li>
    </ul>
    <form class="line" @submit.prevent="add">
      <ChoiceField
        :model-value="what || null"
        :label="say.what"
        :said="say.spare"
        :options="choices"
        placeholder="…"
        @update:model-value="choose"
      />
      <ChoiceField v-model="side" :label="say.side" :options="choicesOf('limit_sides')" />
      <DayField v-model="first" :label="say.from" :said="say.from" />
      <DayField v-if="last" v-model="last" :label="say.until" :said="say.until" :from="first" />
      <button v-else type="button" class="link" @click="last = first">{{ say.openEnd }}</button>
      <ElInput
        v-if="person.manages || person.own"
        v-model="note"
        class="wide"
        size="small"
        :aria-label="say.note"
        :placeholder="say.note"
        maxlength="500"
      />
      <ElButton native-type="submit" size="small" :disabled="!ready">{{ say.add }}</ElButton>
    </form>
    <MovementPicker v-if="picking" :label="say.movement" @pick="pick" @close="choose('')" />
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.past b,
.past .said {
  color: var(--mute);
  font-weight: 400;
}
.note {
  flex-basis: 100%;
  font-style: italic;
}
.wide {
  flex: 1 1 220px;
}
li .said {
  margin: 0;
}
</style>
