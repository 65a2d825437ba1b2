<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { Again, PersonOut, PlanDetails, PlanEntry } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import TimeField from '@/parts/TimeField.vue'
import { longDay } from '@/words/dates'
import { tenth, whole } from '@/words/format'
import { ENTRY_EDITOR as say } from '@/words/texts/week'

import WhoCame from './WhoCame.vue'

const props = defineProps<{ entry: PlanEntry; days: readonly string[]; people: readonly PersonOut[] }>()
const emit = defineEmits<{
  change: [details: PlanDetails]
  again: [how: Again]
  drop: []
  close: []
  attended: []
}>()
const ALL = 0
const dayChoices = computed(() => props.days.map((day) => ({ value: day, label: longDay(day) })))
const peopleChoices = computed(() => [
  { value: ALL, label: say.all },
  ...props.people.map((one) => ({ value: one.id, label: one.name })),
])
const WEEKS = [1, 2, 3, 4, 6, 8].map((weeks) => ({
  value: weeks,
  label: weeks > 1 ? say.forWeeks(weeks) : say.oneWeek,
}))
const group = ref('')
const loggedMinutes = ref<number | null>(null)
const loggedEffort = ref<number | null>(null)
watch(
  () => [props.entry.id, props.entry.group],
  ([id], before) => {
    group.value = props.entry.group
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
function log(): void {
  if (loggedMinutes.value === null || loggedEffort.value === null) return
  emit('change', { logged_minutes: loggedMinutes.value, logged_effort: loggedEffort.value })
}
</script>

<template>
  <section class="slip editor" :aria-label="say.change(entry.title)" @keydown.esc.stop="emit('close')">
    <b>{{ entry.title }}</b>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
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
    <span class="group">
      <span aria-hidden="true">{{ say.group }}</span>
      <ElInput
        v-model="group"
        :aria-label="say.group"
        :placeholder="say.all"
        maxlength="80"
        size="small"
        @change="emit('change', { group })"
      />
    </span>
    <ChoiceField
      :model-value="entry.person ?? ALL"
      :label="say.person"
      :said="say.person"
      :options="peopleChoices"
      @update:model-value="emit('change', { person: $event || null })"
    />
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
    <form @submit.prevent="log">
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
    </form>
    <RouterLink v-if="entry.session" :to="{ name: 'bench', params: { id: entry.session } }">{{ say.bench }}</RouterLink>
    <button v-if="entry.session" type="button" class="link" :title="say.whatStandsOnThisDay" @click="keep">
      {{ say.asANewSession }}
    </button>
    <button v-if="entry.newer" type="button" class="link" @click="emit('change', { newest: true })">
      {{ say.takeTheNewer }}
    </button>
    <button type="button" class="link" @click="emit('change', { locked: !entry.locked })">
      {{ entry.locked ? say.unlock : say.lock }}
    </button>
    <button type="button" class="link" @click="emit('change', { skipped: !entry.skipped })">
      {{ entry.skipped ? say.doItAfterAll : say.skip }}
    </button>
    <button type="button" class="link" @click="emit('drop')">
      {{ say.takeOff }}<span class="visually-hidden"> {{ entry.title }}</span>
    </button>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    <WhoCame :entry="entry.id" @changed="emit('attended')" />
  </section>
</template>

<style scoped src="@/styles/slip.css"></style>
<style scoped>
.editor {
  font-size: 13px;
}
b {
  font: 600 16px var(--head);
}
.group {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.group .el-input {
  width: 9em;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
