<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useMediaQuery } from '@vueuse/core'
import { ElButton, ElDrawer, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import type { Again, Group, PersonOut, PlanDetails, PlanEntry } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import SureButton from '@/parts/SureButton.vue'
import TimeField from '@/parts/TimeField.vue'
import { logChanged, withRunsSent } from '@/screens/log/logApi'
import { longDay, today } from '@/words/dates'
import { tenth, whole } from '@/words/format'
import { ENTRY_DRAWER as say } from '@/words/texts/week'

import WhoCame from './WhoCame.vue'

// An entry of the week, with room for all that can be set of it. What is set is kept at once.
const props = defineProps<{
  entry: PlanEntry
  days: readonly string[]
  people: readonly PersonOut[]
  groups: readonly Group[]
}>()
const emit = defineEmits<{
  change: [details: PlanDetails]
  again: [how: Again]
  drop: []
  close: []
  attended: []
}>()
const phone = useMediaQuery('(max-width: 700px)')
const dayChoices = computed(() => props.days.map((day) => ({ value: day, label: longDay(day) })))
const peopleChoices = computed(() => [
  { value: '', label: say.all },
  ...props.people.map((one) => ({ value: one.id, label: one.name })),
])
const groupChoices = computed(() => [
  { value: 0, label: say.everyone },
  ...props.groups.map((one) => ({ value: one.id, label: one.name })),
])
const WEEKS = [1, 2, 3, 4, 6, 8].map((weeks) => ({
  value: weeks,
  label: weeks > 1 ? say.forWeeks(weeks) : say.oneWeek,
}))
const notes = ref('')
const loggedMinutes = ref<number | null>(null)
const loggedEffort = ref<number | null>(null)
watch(
  () => [props.entry.id, props.entry.notes],
  ([id], before) => {
    notes.value = props.entry.notes
    if (id !== before?.[0]) loggedMinutes.value = loggedEffort.value = null
  },
  { immediate: true },
)
const router = useRouter()
const { trouble, attempt } = useAttempt()
const keep = () =>
  attempt(async () => {
    const made = await api.keepEntry(props.entry.id)
    await router.push({ name: 'bench', params: { id: made.id } })
  })
const log = () =>
  attempt(async () => {
    await withRunsSent([props.entry.id])
    await api.writeLog(props.entry.id, { minutes: loggedMinutes.value, effort: loggedEffort.value })
    await logChanged(props.entry.id)
  })
/** What was noted of the entry, and goes with it when it is taken off. */
const noted = useQuery(
  { queryKey: computed(() => KEYS.noted(props.entry.id)), queryFn: () => api.notedOfEntry(props.entry.id) },
  queryClient,
)
const goes = computed(() => {
  const found = Object.entries(noted.data.value ?? {}).filter(([, count]) => count > 0)
  return found.map(([kind, count]) => say.noted(kind, count)).join(', ')
})
/** What is to come has not been done. */
const over = computed(() => props.entry.day <= today())
</script>

<template>
  <ElDrawer
    :model-value="true"
    :title="entry.title"
    :direction="phone ? 'btt' : 'rtl'"
    :size="phone ? '86%' : '420px'"
    :aria-label="say.change(entry.title)"
    :modal="false"
    modal-penetrable
    append-to-body
    @close="emit('close')"
  >
    <section class="entry" :aria-label="say.change(entry.title)">
      <p class="said">{{ say.comesTo(whole(entry.minutes), tenth(entry.effort), whole(entry.load)) }}</p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <h3>{{ say.when }}</h3>
      <p class="line">
        <ChoiceField
          :model-value="entry.day"
          :label="say.on"
          :said="say.on"
          :options="dayChoices"
          @update:model-value="emit('change', { day: $event })"
        />
        <TimeField
          :model-value="entry.time?.slice(0, 5) ?? ''"
          :label="say.at"
          :said="say.at"
          @update:model-value="emit('change', { time: $event || null })"
        />
      </p>
      <h3>{{ say.forWhom }}</h3>
      <p class="line">
        <ChoiceField
          :model-value="entry.group?.id ?? 0"
          :label="say.group"
          :said="say.group"
          :options="groupChoices"
          @update:model-value="emit('change', { group: $event || null })"
        />
        <ChoiceField
          :model-value="entry.person ?? ''"
          :label="say.person"
          :said="say.person"
          :options="peopleChoices"
          @update:model-value="emit('change', { person: $event || null })"
        />
      </p>
      <template v-if="entry.session">
        <h3>{{ say.session }}</h3>
        <p class="said">
          {{ entry.newer ? say.newerVersion : entry.changed ? say.changedForThisDay : say.newestVersion }}
        </p>
        <p class="line">
          <RouterLink :to="{ name: 'before', params: { entry: entry.id } }">{{ say.runIt }}</RouterLink>
          <RouterLink :to="{ name: 'bench', params: { id: entry.session } }">{{ say.bench }}</RouterLink>
          <button v-if="entry.newer" type="button" class="link" @click="emit('change', { newest: true })">
            {{ say.takeTheNewer }}
          </button>
          <button type="button" class="link" :title="say.whatStandsOnThisDay" @click="keep">
            {{ say.asANewSession }}
          </button>
        </p>
      </template>
      <h3>{{ say.done }}</h3>
      <form v-if="over" class="line" @submit.prevent="log">
        <NumberField
          v-model="loggedMinutes"
          :label="say.doneMin"
          :said="say.doneMin"
          :max="1440"
          :placeholder="whole(entry.minutes)"
        />
        <NumberField
          v-model="loggedEffort"
          :label="say.effort"
          :said="say.effort"
          :max="10"
          :step="0.5"
          :placeholder="tenth(entry.effort)"
        />
        <ElButton native-type="submit" size="small">{{ say.log }}</ElButton>
        <RouterLink :to="{ name: 'logged', params: { id: entry.id } }">{{
          entry.logged ? say.isLogged : say.inTheLog
        }}</RouterLink>
      </form>
      <WhoCame :entry="entry.id" @changed="emit('attended')" />
      <h3>{{ say.notes }}</h3>
      <ElInput
        v-model="notes"
        type="textarea"
        :rows="3"
        maxlength="2000"
        :aria-label="say.notes"
        :placeholder="say.forThoseWhoPlan"
        @change="emit('change', { notes })"
      />
      <h3>{{ say.onceMore }}</h3>
      <p class="line">
        <ChoiceField
          :model-value="null"
          :label="say.copyTo"
          :said="say.copyTo"
          :placeholder="say.day"
          :options="dayChoices"
          @update:model-value="$event && emit('again', { day: $event })"
        />
        <ChoiceField
          :model-value="null"
          :label="say.repeatFor"
          :said="say.repeatFor"
          :placeholder="say.weeks"
          :options="WEEKS"
          @update:model-value="$event && emit('again', { weeks: $event })"
        />
      </p>
    </section>
    <template #footer>
      <p class="acts">
        <ElButton :aria-pressed="entry.locked" @click="emit('change', { locked: !entry.locked })">
          {{ entry.locked ? say.unlock : say.lock }}
        </ElButton>
        <ElButton :aria-pressed="entry.skipped" @click="emit('change', { skipped: !entry.skipped })">
          {{ entry.skipped ? say.doItAfterAll : say.skip }}
        </ElButton>
        <SureButton
          v-if="goes"
          :label="say.takeOff"
          :about="entry.title"
          :warning="say.goesWithIt(goes)"
          @sure="emit('drop')"
        />
        <ElButton v-else :disabled="noted.isPending.value" @click="emit('drop')">
          {{ say.takeOff }}<span class="visually-hidden"> {{ entry.title }}</span>
        </ElButton>
      </p>
    </template>
  </ElDrawer>
</template>

<style scoped>
.entry {
  font-size: 14px;
}
h3 {
  font-size: 15px;
  margin: 14px 0 2px;
  border-bottom: 1px solid var(--rule);
}
.line,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  margin: 4px 0;
}
.said {
  margin: 2px 0;
  color: var(--mute);
}
</style>
