<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { LoggedPerson, LogNote } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { longDay } from '@/words/dates'
import { LOG_NOTES as say } from '@/words/texts/log'
import { NOTE_KINDS, SIDES } from '@/words/texts/notes'

// Notes of an entry, or of a person. What is about health is folded behind one mark: the page may be shown round.
const props = defineProps<{
  notes: readonly LogNote[]
  people?: readonly LoggedPerson[]
  entry?: string
  health?: boolean
  why?: string
  own?: string | null
  plans?: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const shown = ref(false)
const plain = computed(() => props.notes.filter((one) => !one.health))
const folded = computed(() => props.notes.filter((one) => one.health))
function said(one: LogNote): string {
  const parts = [one.name, NOTE_KINDS[one.kind], one.side && one.place ? `${SIDES[one.side]} ${one.place}` : one.place]
  if (one.level !== null) parts.push(say.outOfTen(one.level))
  return [...parts.filter(Boolean), one.emptied ? say.forgotten : one.text].join(' · ')
}
const writing = ref(false)
const kind = ref<'free' | 'form' | 'kit' | 'pain' | 'dizziness' | 'hurt'>('free')
const person = ref(props.plans ? '' : (props.own ?? ''))
const text = ref('')
const place = ref('')
const side = ref<'' | 'left' | 'right' | 'both'>('')
const level = ref<number | null>(null)
const ofHealth = computed(() => ['pain', 'dizziness', 'hurt'].includes(kind.value))
const kinds = computed(() =>
  Object.entries(NOTE_KINDS)
    .filter(([key]) => props.health || !['pain', 'dizziness', 'hurt'].includes(key))
    .map(([value, label]) => ({ value: value as typeof kind.value, label })),
)
const sides = Object.entries(SIDES).map(([value, label]) => ({ value: value as typeof side.value, label }))
const people = computed(() => [
  ...(props.plans ? [{ value: '', label: say.session }] : []),
  ...(props.people ?? []).map((one) => ({ value: one.person, label: one.name })),
])
const caution = ref('')
const { trouble, attempt } = useAttempt()
async function keep(): Promise<void> {
  const body = ofHealth.value
    ? { kind: kind.value, text: text.value, place: place.value, side: side.value, level: level.value }
    : { kind: kind.value, text: text.value, place: '', side: '' as const, level: null }
  const kept = await attempt(async () => {
    const made = await api.writeNote(props.entry ?? '', { ...body, person: person.value || null })
    caution.value = made.caution ?? ''
  })
  if (!kept) return
  text.value = place.value = ''
  level.value = null
  writing.value = false
  emit('changed')
}
const lift = (id: number) =>
  attempt(async () => {
    await api.liftNote(id)
    emit('changed')
  })
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="notes.length === 0" class="said">{{ say.none }}</p>
    <ul v-if="plain.length" class="lines">
      <li v-for="one in plain" :key="one.id">
        {{ said(one) }} <span v-if="one.by" class="said">{{ say.by(one.by) }}</span>
      </li>
    </ul>
    <p v-if="folded.length">
      {{ folded.length > 1 ? say.some(folded.length) : say.oneOf }}
      <button type="button" class="link" :aria-expanded="shown" @click="shown = !shown">
        {{ shown ? say.hide : say.show }}
      </button>
    </p>
    <ul v-if="shown" class="lines">
      <li v-for="one in folded" :key="one.id">
        {{ said(one) }}
        <span v-if="one.lifted" class="said">{{ say.lifted(longDay(one.lifted)) }}</span>
        <button v-else type="button" class="link" @click="lift(one.id)">{{ say.lift }}</button>
      </li>
    </ul>
    <p v-if="caution" class="note-bar" role="alert">{{ caution }}</p>
    <template v-if="entry">
      <button v-if="!writing" type="button" class="link" @click="writing = true">{{ say.add }}</button>
      <form v-else @submit.prevent="keep">
        <p class="line">
          <ChoiceField v-model="kind" :label="say.kind" :options="kinds" />
          <ChoiceField v-if="people.length > 1" v-model="person" :label="say.of" :said="say.of" :options="people" />
        </p>
        <p v-if="ofHealth && why" class="said">{{ why }}</p>
        <p v-if="ofHealth" class="line">
          <ElInput
            v-model="place"
            class="place"
            size="small"
            maxlength="40"
            :aria-label="say.place"
            :placeholder="say.place"
          />
          <ChoiceField v-model="side" :label="say.side" :options="sides" />
          <NumberField v-model="level" :label="say.level" :said="say.level" :max="10" />
        </p>
        <ElInput v-model="text" type="textarea" :rows="2" maxlength="2000" :aria-label="say.text" />
        <p v-if="!health" class="said">{{ say.healthOff }}</p>
        <p class="line">
          <ElButton native-type="submit" type="primary" size="small" :disabled="!text.trim() && !place.trim()">{{
            say.keep
          }}</ElButton>
          <button type="button" class="link" @click="writing = false">{{ say.close }}</button>
        </p>
      </form>
    </template>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
h2 {
  border: 0;
  margin: 0;
}
.place {
  width: 12em;
}
</style>
