<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import type { PlanEntry } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useFirstPath } from '@/composables/useFirstPath'
import { useGroups } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import DayField from '@/parts/DayField.vue'
import TimeField from '@/parts/TimeField.vue'
import { longDay, today } from '@/words/dates'
import { PLAN_PANEL as say } from '@/words/texts/bench'

import { useBench } from './bench'

const props = defineProps<{ session: string; save: () => Promise<boolean> }>()
const emit = defineEmits<{ close: [] }>()
const { squad } = useBench()
const { did } = useFirstPath()

const router = useRouter()
const day = ref(today())
const time = ref('')
const group = ref(0)
const { groups } = useGroups(squad)
const groupChoices = computed(() => [
  { value: 0, label: say.everyone },
  ...groups.value.map((one) => ({ value: one.id, label: one.name })),
])
const put = ref('')
const unsaved = ref('')
const { trouble: refused, attempt } = useAttempt()
const trouble = computed(() => refused.value || unsaved.value)
const busy = ref(false)
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())

/** Put it on the plan as it is now; the entry, or nothing where something stood in the way. */
async function planned(wanted: { day: string; time?: string; group?: number }): Promise<PlanEntry | null> {
  let made: PlanEntry | null = null
  busy.value = true
  put.value = unsaved.value = ''
  await attempt(async () => {
    // The plan pins the version that is saved, so what is on the Bench is saved first.
    if (!(await props.save())) {
      unsaved.value = say.itIsNotSavedAs
      return
    }
    made = await api.planEntry({ ...wanted, session: props.session, squad: squad.value })
    void askAgain(KEYS.week())
    did({ what: 'plan', entry: made.id, version: made.version })
  })
  busy.value = false
  return made
}
const ofGroup = (): { group?: number } => (group.value ? { group: group.value } : {})
async function add(): Promise<void> {
  const entry = await planned({ day: day.value, ...(time.value ? { time: time.value } : {}), ...ofGroup() })
  put.value = entry?.day ?? ''
}
/** Run it now, for the chosen group: it is on today's plan from then on. */
async function run(): Promise<void> {
  const entry = await planned({ day: today(), ...ofGroup() })
  if (entry) await router.push({ name: 'before', params: { entry: entry.id } })
}
</script>

<template>
  <form ref="form" class="strip" :aria-label="say.putOnADay" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <DayField v-model="day" :label="say.day" :said="say.day" />
    <TimeField v-model="time" :label="say.at" :said="say.at" />
    <ChoiceField v-model="group" :label="say.group" :said="say.group" :options="groupChoices" />
    <ElButton type="primary" size="small" native-type="submit" :disabled="busy || day === ''">{{
      say.putItThere
    }}</ElButton>
    <ElButton size="small" :disabled="busy" @click="run">{{ say.runItNow }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-else-if="put" role="status">
      {{ say.itStandsOnAsIt(longDay(put)) }}
      <RouterLink :to="{ name: 'week', query: { day: put } }">{{ say.toThatWeek }}</RouterLink>
    </p>
  </form>
</template>

<style scoped src="@/styles/strip.css"></style>
