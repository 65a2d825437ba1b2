<script setup lang="ts">
import { ElSkeleton } from 'element-plus'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { Body, NewEntry } from '@/api/types'
import { account } from '@/composables/useAccount'
import { useGroups, usePeople } from '@/composables/useTables'
import type { Undoable } from '@/composables/undoable'
import { tellDone } from '@/parts/notices'
import UndoBar from '@/parts/UndoBar.vue'
import { clockTime, today } from '@/words/dates'
import { WEEK_SCREEN as say } from '@/words/texts/week'

import BesidePanel from './BesidePanel.vue'
import DayColumn from './DayColumn.vue'
import LevelPanel from './LevelPanel.vue'
import { useLevelling } from './useLevelling'
import { useOwnEffects } from './useOwnEffects'
import { useWeek, type WeekTargets } from './useWeek'
import WeekHeader from './WeekHeader.vue'
import WeekPanel from './WeekPanel.vue'
import WeekStave from './WeekStave.vue'

// Forms are fetched when one is first opened: the week itself waits for none of them.
const AwayForm = defineAsyncComponent(() => import('./AwayForm.vue'))
const EntryDrawer = defineAsyncComponent(() => import('./EntryDrawer.vue'))
const PhaseForm = defineAsyncComponent(() => import('./PhaseForm.vue'))
const SharePanel = defineAsyncComponent(() => import('./SharePanel.vue'))
const TargetForm = defineAsyncComponent(() => import('./TargetForm.vue'))

type Panel = 'share' | 'phase' | 'targets'

const route = useRoute()
const router = useRouter()
const day = computed(() =>
  /^\d{4}-\d\d-\d\d$/.test(String(route.query.day ?? '')) ? String(route.query.day) : today(),
)
const whose = ref(String(route.query.whose ?? ''))
const planning = useWeek(day, whose)
const { week, turning, trouble, squad, read, act, add, change, again, drop, setDay, undoable, undone } = planning
const levelling = useLevelling(day, squad, read)
const { proposal, picked, outcome, rules, busy, progress, trouble: levelTrouble } = levelling

const ownEffects = useOwnEffects(levelling.job, proposal)

const own = computed(() => account.value?.squads.find((one) => one.id === week.value?.squad))
const editable = computed(() => own.value !== undefined && own.value.role !== 'athlete')
const planned = computed(() => (editable.value ? (week.value?.squad ?? 0) : 0))
const { people } = usePeople(planned)
const { groups } = useGroups(planned)
const panel = ref<Panel | null>(null)
const toggle = (which: Panel): void => {
  panel.value = panel.value === which ? null : which
}
const opened = ref(String(route.query.entry ?? ''))
const edited = computed(() => week.value?.entries.find((one) => one.id === opened.value))
const adding = ref('')
const days = computed(() => (week.value?.days ?? []).map((one) => one.day))
const proposed = computed(() => new Set((proposal.value?.edits ?? []).map((one) => one.slot)))
const go = (to: string) => router.push({ name: 'week', query: { day: to } })

async function put(body: NewEntry): Promise<void> {
  if (await add(body)) adding.value = ''
}
/** Do something from a panel, which has done its work then. */
async function andClose(work: Promise<boolean>): Promise<void> {
  if (await work) panel.value = null
}
const setTargets = (targets: WeekTargets) => andClose(planning.setTargets(targets))
const addPhase = (body: Omit<Body<'PhaseIn'>, 'squad'>) => andClose(planning.addPhase(body))
const dropPhase = (id: number) => andClose(planning.dropPhase(id))
async function awayChanged(change: Undoable): Promise<void> {
  await read()
  undoable.value = change
}
async function undo(id: number, item: number): Promise<void> {
  if (await act(() => api.undoChange(id, item))) tellDone(say.undone)
}

const ahead = computed(() => proposal.value !== null || busy.value)
const levelPanel = computed(() => ({
  proposal: proposal.value,
  picked: picked.value,
  outcome: outcome.value,
  own: ownEffects.value,
  busy: busy.value,
  progress: progress.value,
  editable: editable.value,
  trouble: levelTrouble.value,
  changes: week.value?.changes ?? [],
  days: days.value,
}))
const levelActs = {
  pick: levelling.pick,
  take: levelling.take,
  cancel: levelling.cancel,
  close: levelling.close,
  undo,
}
</script>

<template>
  <main id="main" class="week">
    <WeekHeader
      v-model:whose="whose"
      :day="day"
      :week="week"
      :own="own"
      :people="people"
      :groups="groups"
      :editable="editable"
      :levellable="!busy && !turning && (week?.entries.length ?? 0) > 0"
      @go="go"
      @panel="toggle"
      @level="levelling.propose"
    />
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <UndoBar v-if="undoable" :change="undoable" @undone="undone" @dismiss="undoable = null" />
    <div v-if="!week && !trouble" class="waiting" role="status">
      <span class="visually-hidden">{{ say.readingTheWeek }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-if="week" class="cols" :inert="turning" :aria-busy="turning">
      <div class="left">
        <SharePanel
          v-if="panel === 'share'"
          :begins="week.begins"
          :squad="week.squad"
          :editable="editable"
          @close="panel = null"
        />
        <template v-if="panel === 'phase'">
          <PhaseForm
            :begins="week.begins"
            :phase="week.phase ?? null"
            @close="panel = null"
            @add="addPhase"
            @drop="dropPhase"
          />
          <AwayForm :begins="week.begins" :squad="week.squad" @changed="awayChanged" />
        </template>
        <p v-if="week.aged" class="said" role="status">{{ say.ofTheseEntriesAreBeing(week.aged) }}</p>
        <p v-else-if="week.refigured" class="said">
          {{ say.plannedEntriesWereFiguredAnew(week.refigured.count, clockTime(week.refigured.at)) }}
        </p>
        <div class="days">
          <DayColumn
            v-for="(one, number) in week.days"
            :key="one.day"
            :week="week"
            :number="number"
            :editable="editable"
            :proposed="proposed"
            :people="people"
            :opened="opened"
            :adding="adding === one.day"
            @open="opened = opened === $event ? '' : $event"
            @set="setDay(one.day, $event)"
            @move="(id, to) => change(id, { day: to })"
            @adding="adding = $event ? one.day : ''"
            @put="put"
          />
        </div>
        <EntryDrawer
          v-if="edited"
          :entry="edited"
          :days="days"
          :people="people"
          :groups="groups"
          @change="change(edited.id, $event)"
          @again="again(edited.id, $event)"
          @drop="drop(edited.id)"
          @close="opened = ''"
          @attended="read"
        />
        <TargetForm v-if="panel === 'targets'" :rows="week.rows" @save="setTargets" @close="panel = null" />
        <div class="stave" tabindex="0" role="group" :aria-label="say.staveOfTheWeek">
          <WeekStave :week="week" :outcome="outcome" />
        </div>
      </div>
      <div class="right">
        <!-- What is proposed comes first, while it is. -->
        <LevelPanel v-if="ahead" v-model:rules="rules" v-bind="levelPanel" v-on="levelActs" />
        <WeekPanel :week="week" />
        <BesidePanel :week="week" />
        <LevelPanel v-if="!ahead" v-model:rules="rules" v-bind="levelPanel" v-on="levelActs" />
      </div>
    </div>
  </main>
</template>

<style scoped src="./week.css"></style>
