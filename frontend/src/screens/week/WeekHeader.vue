<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Group, Me, PersonOut, Week } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import MoreMenu from '@/parts/MoreMenu.vue'
import { daysOn, fullDate, today } from '@/words/dates'
import { WEEK_HEADER as say } from '@/words/texts/week'

import { whoseChoices } from './whose'

const props = defineProps<{
  day: string
  week: Week | null
  own: Me['squads'][number] | undefined
  people: readonly PersonOut[]
  groups: readonly Group[]
  editable: boolean
  levellable: boolean
}>()
/** Whose week: '' the squad's, else `group:3` or `person:…` (see useWeek). */
const whose = defineModel<string>('whose', { required: true })
const emit = defineEmits<{ go: [day: string]; panel: [which: 'share' | 'phase' | 'targets']; level: [] }>()
const router = useRouter()

const choices = computed(() => whoseChoices(props.own?.name ?? '', props.groups, props.people))
const deeds = computed(() => [
  { name: 'share', does: say.export },
  { name: 'print', does: say.print },
  ...(props.editable ? [{ name: 'phase', does: say.phaseAndTimesAway }] : []),
  ...(props.own?.role === 'head-coach' ? [{ name: 'targets', does: say.targets }] : []),
  { name: 'season', does: say.season },
])
function choose(name: string): void {
  if (name === 'print') window.print()
  else if (name === 'season') void router.push({ name: 'season', query: whose.value ? { whose: whose.value } : {} })
  else emit('panel', name as 'share' | 'phase' | 'targets')
}
</script>

<template>
  <header>
    <h1>{{ say.weekOf(week ? fullDate(week.begins) : '…') }}</h1>
    <ChoiceField v-if="editable" v-model="whose" :label="say.whoseWeek" :options="choices" />
    <span class="said">
      <template v-if="!editable">{{ own?.name }}</template>
      <template v-if="week?.phase">{{ say.weekOfPhase(week.phase.kind, week.phase.week, week.phase.weeks) }}</template>
    </span>
    <span class="grow"></span>
    <ElButton :aria-label="say.theWeekBefore" @click="emit('go', daysOn(day, -7))">◂</ElButton>
    <ElButton @click="emit('go', today())">{{ say.thisWeek }}</ElButton>
    <ElButton :aria-label="say.theWeekAfter" @click="emit('go', daysOn(day, 7))">▸</ElButton>
    <ElButton v-if="editable" type="primary" :disabled="!levellable" @click="emit('level')">{{
      say.levelTheWeek
    }}</ElButton>
    <MoreMenu :label="say.moreForThisWeek" :deeds="deeds" @choose="choose" />
  </header>
</template>

<style scoped src="@/styles/bar.css"></style>
