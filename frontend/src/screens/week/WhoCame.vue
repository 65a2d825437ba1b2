<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import type { Attending } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'

// Who came, and what they did otherwise than all: a person's own week goes by it.
const props = defineProps<{ entry: string }>()
const emit = defineEmits<{ changed: [] }>()
const people = shallowRef<readonly Attending[]>([])
const open = ref(false)
const { trouble, stale, attempt } = useAttempt()

const { ask } = useLatest()
const read = (entry: string): Promise<void> =>
  ask(
    () => api.attendance(entry),
    (answer) => (people.value = answer),
  )
watch([open, () => props.entry], ([shown, entry], [, before]) => {
  // Those who came to another training are not those who came to this one.
  if (entry !== before) people.value = []
  if (shown) void attempt(() => read(entry))
})
async function note(one: Attending, part: Partial<Attending>): Promise<void> {
  const made = { ...one, ...part }
  // Minutes and effort go together: half of them is kept here until the other is typed.
  people.value = people.value.map((each) => (each.person === one.person ? made : each))
  if ((made.minutes === null) !== (made.effort === null)) return
  const { entry } = props
  await attempt(async () => {
    const { person, version, came, minutes, effort } = made
    await api.attend(entry, { person, version, came, minutes, effort })
    if (entry === props.entry) await read(entry)
  })
  // Somebody else noted otherwise: what stands is shown.
  if (stale.value && entry === props.entry) await read(entry).catch(() => undefined)
  emit('changed')
}
const number = (event: Event): number | null => {
  const text = (event.target as HTMLInputElement).value
  return text === '' ? null : Number(text)
}
</script>

<template>
  <details class="who" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>Who came</summary>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <ul>
      <li v-for="one in people" :key="one.person">
        <label class="name"
          ><input type="checkbox" :checked="one.came" @change="note(one, { came: !one.came })" /> {{ one.name }}</label
        >
        <template v-if="one.came">
          <label
            ><span class="visually-hidden">Minutes of {{ one.name }}</span
            ><input
              type="number"
              min="0"
              max="1440"
              placeholder="min"
              :value="one.minutes ?? ''"
              @change="note(one, { minutes: number($event) })"
          /></label>
          <label
            ><span class="visually-hidden">Effort of {{ one.name }}</span
            ><input
              type="number"
              min="0"
              max="10"
              step="0.5"
              placeholder="effort"
              :value="one.effort ?? ''"
              @change="note(one, { effort: number($event) })"
          /></label>
        </template>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.who {
  flex-basis: 100%;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  columns: 3 230px;
}
li {
  display: flex;
  gap: 8px;
  break-inside: avoid;
}
.name {
  flex: 1;
}
input[type='number'] {
  width: 50px;
}
</style>
