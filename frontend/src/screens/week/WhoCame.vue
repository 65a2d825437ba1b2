<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElCheckbox, ElCollapse, ElCollapseItem, ElSkeleton } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { Attending } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import NumberField from '@/parts/NumberField.vue'
import { WHO_CAME as say } from '@/words/texts/week'

import TeamSplit from './TeamSplit.vue'

// Who came, and what they did otherwise than all: a person's own week goes by it.
const props = defineProps<{ entry: string }>()
const emit = defineEmits<{ changed: [] }>()
const open = ref<string[]>([])
const { trouble: refused, stale, attempt } = useAttempt()
const { data, error, isPending } = useQuery(
  {
    queryKey: computed(() => KEYS.attendance(props.entry)),
    queryFn: ({ queryKey }) => api.attendance(String(queryKey[1])),
    enabled: computed(() => open.value.length > 0),
  },
  queryClient,
)
const notRead = troubleOf(error)
/** Minutes and effort go together: half of them is kept here until the other is typed. */
const halves = shallowRef(new Map<string, Attending>())
watch(
  () => props.entry,
  () => (halves.value = new Map()),
)
const people = computed(() => (data.value ?? []).map((one) => halves.value.get(one.person) ?? one))

async function note(one: Attending, part: Partial<Attending>): Promise<void> {
  const made = { ...one, ...part }
  halves.value = new Map(halves.value).set(one.person, made)
  if ((made.minutes === null) !== (made.effort === null)) return
  const { entry } = props
  const { person, version, came, minutes, effort } = made
  const done = await attempt(() => api.attend(entry, { person, version, came, minutes, effort }))
  // Somebody else noted otherwise: what stands is shown.
  if (entry === props.entry && (done || stale.value)) {
    await askAgain(KEYS.attendance(props.entry))
    const left = new Map(halves.value)
    left.delete(person)
    halves.value = left
  }
  emit('changed')
}
</script>

<template>
  <ElCollapse v-model="open" class="who">
    <ElCollapseItem name="who" :title="say.whoCame">
      <p v-if="refused || notRead" class="note-bar" role="alert">{{ refused || notRead }}</p>
      <ElSkeleton v-else-if="isPending" :rows="3" animated :throttle="200" />
      <TeamSplit
        v-if="people.length > 1"
        :entry="entry"
        :split="people.some((one) => one.team)"
        @changed="askAgain(KEYS.attendance(props.entry))"
      />
      <ul>
        <li v-for="one in people" :key="one.person">
          <ElCheckbox class="name" :model-value="one.came" @change="note(one, { came: Boolean($event) })">
            {{ one.name
            }}<span v-if="one.away || one.team" class="said">{{
              [one.away ? say.isAway : '', one.team ? say.team(one.team) : ''].filter(Boolean).join(' · ')
            }}</span>
          </ElCheckbox>
          <template v-if="one.came">
            <NumberField
              :model-value="one.minutes"
              :label="say.minutesOf(one.name)"
              :max="1440"
              :placeholder="say.min"
              @change="note(one, { minutes: $event })"
            />
            <NumberField
              :model-value="one.effort"
              :label="say.effortOf(one.name)"
              :max="10"
              :step="0.5"
              :placeholder="say.effort"
              @change="note(one, { effort: $event })"
            />
          </template>
        </li>
      </ul>
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
.who {
  flex-basis: 100%;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  columns: 2 320px;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  break-inside: avoid;
}
.name {
  flex: 1;
}
.said {
  margin-left: 8px;
  color: var(--mute);
}
</style>
