<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { PlanDay, PlanDetails } from '@/api/types'
import { account } from '@/composables/useAccount'
import { usePeople } from '@/composables/useTables'
import { daysOn, fullDate, longDay, shortDay, today } from '@/words/dates'
import { whole } from '@/words/format'

import AddEntry from './AddEntry.vue'
import AwayForm from './AwayForm.vue'
import EntryCard from './EntryCard.vue'
import LevelPanel from './LevelPanel.vue'
import BesidePanel from './BesidePanel.vue'
import EntryEditor from './EntryEditor.vue'
import PhaseForm from './PhaseForm.vue'
import SharePanel from './SharePanel.vue'
import TargetForm from './TargetForm.vue'
import { useLevelling } from './useLevelling'
import { useWeek } from './useWeek'
import WeekPanel from './WeekPanel.vue'
import WeekStave from './WeekStave.vue'

const route = useRoute()
const router = useRouter()
const day = computed(() =>
  /^\d{4}-\d\d-\d\d$/.test(String(route.query.day ?? '')) ? String(route.query.day) : today(),
)
const person = ref(0)
const { week, turning, trouble, squad, read, act, add, change, again, drop, setDay } = useWeek(day, person)
const {
  proposal,
  picked,
  outcome,
  rules,
  busy,
  progress,
  trouble: levelTrouble,
  propose,
  pick,
  take,
  cancel,
  close,
} = useLevelling(day, squad, read)
const { people, fetchPeople } = usePeople()
const opened = ref('')
const edited = computed(() => week.value?.entries.find((one) => one.id === opened.value))
const nameOf = (id: number | null): string =>
  id === null ? '' : (people.value.find((one) => one.id === id)?.name ?? 'one person')
watch(week, (made) => {
  if (made && editable.value) void fetchPeople(made.squad)
})
const targeting = ref(false)
const setTargets = async (targets: object): Promise<void> => {
  if (await act(() => api.changeMethods(squad(), week.value?.methods_version ?? '', { week_targets: targets })))
    targeting.value = false
}

const AWAY = { rest: 'away, rest', unknown: 'away' } as const
function awayOn(number: number): string {
  const away = week.value?.load.days[number]?.away
  return away ? AWAY[away] : ''
}
const INTENTS = ['', 'hard', 'medium', 'easy', 'rest'] as const
const adding = ref('')
const phasing = ref(false)
const sharing = ref(false)
const own = computed(() => account.value?.squads.find((one) => one.id === week.value?.squad))
const editable = computed(() => own.value !== undefined && own.value.role !== 'athlete')
const days = computed(() => (week.value?.days ?? []).map((one) => one.day))
const of = (which: string) => (week.value?.entries ?? []).filter((one) => one.day === which)
const proposed = computed(() => new Set((proposal.value?.edits ?? []).map((one) => one.slot)))
const go = (to: string) => router.push({ name: 'week', query: { day: to } })
async function put(body: PlanDetails & { session?: string; title?: string }): Promise<void> {
  if (await add(body)) adding.value = ''
}
const intend = (one: PlanDay, event: Event) =>
  setDay(one.day, { intent: (event.target as HTMLSelectElement).value, share: one.share, hall: one.hall })
function share(one: PlanDay, event: Event): void {
  const text = (event.target as HTMLInputElement).value
  void setDay(one.day, { intent: one.intent, share: text === '' ? null : Number(text) / 100, hall: one.hall })
}
const hall = (one: PlanDay) => setDay(one.day, { intent: one.intent, share: one.share, hall: !one.hall })
function dropped(event: DragEvent, which: string): void {
  const id = event.dataTransfer?.getData('text/x-entry')
  if (id && editable.value) void change(id, { day: which })
}
const clockTime = (at: string): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
const undo = (id: number, item: number) => act(() => api.undoChange(id, item))
const print = (): void => window.print()
</script>

<template>
  <main id="main" class="week">
    <header>
      <h1>Week of {{ week ? fullDate(week.begins) : '…' }}</h1>
      <label v-if="editable && people.length" class="said">
        <span class="visually-hidden">Whose week</span>
        <select v-model.number="person">
          <option :value="0">{{ own?.name }}, as if all came</option>
          <option v-for="one in people" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <span class="said"
        ><template v-if="!editable">{{ own?.name }}</template
        ><template v-if="week?.phase">
          · {{ week.phase.kind }}, week {{ week.phase.week }} of {{ week.phase.weeks }}</template
        ></span
      >
      <span class="grow"></span>
      <ElButton aria-label="The week before" @click="go(daysOn(day, -7))">◂</ElButton>
      <ElButton @click="go(today())">This week</ElButton>
      <ElButton aria-label="The week after" @click="go(daysOn(day, 7))">▸</ElButton>
      <RouterLink :to="{ name: 'season' }">Season</RouterLink>
      <button type="button" class="link" @click="sharing = !sharing">Export</button>
      <button type="button" class="link" @click="print">Print</button>
      <button v-if="editable" type="button" class="link" @click="phasing = !phasing">Phase</button>
      <button v-if="own?.role === 'head-coach'" type="button" class="link" @click="targeting = !targeting">
        Targets
      </button>
      <ElButton v-if="editable" type="primary" :disabled="busy || turning || !week?.entries.length" @click="propose"
        >Level the week</ElButton
      >
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="!week && !trouble" class="waiting" role="status">Reading the week …</p>
    <div v-if="week" class="cols" :inert="turning" :aria-busy="turning">
      <div class="left">
        <SharePanel
          v-if="sharing"
          :begins="week.begins"
          :squad="week.squad"
          :editable="editable"
          @close="sharing = false"
        />
        <PhaseForm
          v-if="phasing"
          :begins="week.begins"
          :phase="week.phase ?? null"
          @close="phasing = false"
          @add="
            (body) => act(() => api.addPhase({ ...body, squad: squad() })).then((done) => done && (phasing = false))
          "
          @drop="(id) => act(() => api.dropPhase(id)).then((done) => done && (phasing = false))"
        />
        <AwayForm v-if="phasing" :begins="week.begins" :squad="week.squad" @changed="read" />
        <p v-if="week.aged" class="said" role="status">{{ week.aged }} of these entries are being figured anew.</p>
        <p v-else-if="week.refigured" class="said">
          {{ week.refigured.count }} planned entries were figured anew at {{ clockTime(week.refigured.at) }}: the
          methods or this program had changed. What is logged stayed.
        </p>
        <div class="days">
          <section
            v-for="(one, number) in week.days"
            :key="one.day"
            class="day"
            :class="{ today: one.day === today() }"
            :aria-label="longDay(one.day)"
            @dragover.prevent
            @drop="dropped($event, one.day)"
          >
            <h2>{{ shortDay(one.day) }}</h2>
            <p class="intent">
              <label v-if="editable">
                <span class="visually-hidden">Intent of {{ longDay(one.day) }}</span>
                <select :value="one.intent" @change="intend(one, $event)">
                  <option v-for="intent in INTENTS" :key="intent" :value="intent">{{ intent || 'no intent' }}</option>
                </select>
              </label>
              <span v-else>{{ one.intent }}</span>
              <label v-if="editable && one.intent">
                <span class="visually-hidden">Share of the week on {{ longDay(one.day) }}, per cent</span>
                <input
                  type="number"
                  min="0"
                  max="100"
                  class="day-share"
                  placeholder="%"
                  :value="one.share === null ? '' : Math.round(one.share * 100)"
                  @change="share(one, $event)"
                />
              </label>
              <small v-if="one.intended">{{ whole(one.intended) }}</small>
              <button v-if="editable" type="button" class="plain hall" :aria-pressed="!one.hall" @click="hall(one)">
                {{ one.hall ? 'hall' : 'no hall' }}
              </button>
            </p>
            <p v-if="awayOn(number)" class="said rest">
              {{ awayOn(number) }}{{ week.load.days[number]?.bouts ? ', yet this counts' : '' }}
            </p>
            <EntryCard
              v-for="entry in of(one.day)"
              :key="entry.id"
              :entry="entry"
              :hard="week.hard_effort"
              :proposed="proposed.has(entry.id)"
              :editable="editable"
              :open="opened === entry.id"
              :whose="nameOf(entry.person)"
              @toggle="opened = opened === entry.id ? '' : entry.id"
            />
            <p v-if="!of(one.day).length && !awayOn(number)" class="said rest">
              {{ one.intent === 'rest' ? 'rest' : 'nothing' }}
            </p>
            <AddEntry v-if="adding === one.day" :day="one.day" @add="put" @close="adding = ''" />
            <button v-else-if="editable" type="button" class="link put" @click="adding = one.day">
              add<span class="visually-hidden"> to {{ longDay(one.day) }}</span>
            </button>
          </section>
        </div>
        <EntryEditor
          v-if="edited"
          :entry="edited"
          :days="days"
          :people="people"
          @change="change(edited.id, $event)"
          @again="again(edited.id, $event)"
          @drop="drop(edited.id)"
          @close="opened = ''"
          @attended="read"
        />
        <TargetForm v-if="targeting" :rows="week.rows" @save="setTargets" @close="targeting = false" />
        <div class="stave"><WeekStave :week="week" /></div>
      </div>
      <div class="right">
        <WeekPanel :week="week" />
        <BesidePanel :week="week" />
        <LevelPanel
          v-model:rules="rules"
          :proposal="proposal"
          :picked="picked"
          :outcome="outcome"
          :busy="busy"
          :progress="progress"
          :editable="editable"
          :trouble="levelTrouble"
          :changes="week.changes"
          :days="days"
          @pick="pick"
          @take="take"
          @cancel="cancel"
          @close="close"
          @undo="undo"
        />
      </div>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="./week.css"></style>
