<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { ElCheckbox, ElCheckboxGroup, ElRadio, ElRadioGroup, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { FloorPerson } from '@/api/types'
import { account } from '@/composables/useAccount'
import { beginRun } from '@/floor/begin'
import { runClock } from '@/floor/runClock'
import { useFloorSheet } from '@/floor/useFloorSheet'
import { keepShell } from '@/shell'
import { amount, whole } from '@/words/format'
import { paceText } from '@/words/paces'
import { refusalText } from '@/words/refusal'
import ForeseenList from '@/parts/ForeseenList.vue'
import HelpButton from '@/parts/HelpButton.vue'
import ChoiceField from '@/parts/ChoiceField.vue'
import { BEFORE as say } from '@/words/texts/floor'
import { SCORES as scores } from '@/words/texts/floor-panels'
import { REPORT_KINDS, REPORTS as reports } from '@/words/texts/reports'

import SoundCheck from './SoundCheck.vue'
import StationsChoice from './StationsChoice.vue'

// One page before the start: Start is always there, and nothing has to be answered.
const props = defineProps<{ entry: string }>()
const router = useRouter()
const { sheet, trouble, offline, read } = useFloorSheet(props.entry)
const here = ref<string[]>([])
/** From three people on; remembered by how the session is built. */
const shape = computed(() => (sheet.value?.sheet.blocks ?? []).map((one) => one.title).join('/'))
const paces = useLocalStorage<Record<string, boolean>>('floor-paces', {})
const apart = ref(false)
const safe = window.isSecureContext
const ASKED_TIMES = 4
const who = account.value?.name ?? ''

void read.then(() => {
  here.value = expected.value
  apart.value = paces.value[shape.value] ?? false
  if (!offline.value) void askTheTime()
})
const expected = computed(() => (sheet.value?.people ?? []).filter((one) => !one.away).map((one) => one.person))

/** What somebody said by their own link, of coming and of how fresh they are. */
const saidOf = (one: FloorPerson): string =>
  [one.said === 'here' ? say.saidHere : one.said === 'away' ? say.saidAway : '', one.fresh ? say.fresh(one.fresh) : '']
    .filter(Boolean)
    .join(', ')

/** What somebody reported that a coach must see first: pain, dizziness, a hurt of the last session. */
const reportedBy = (one: FloorPerson): string => one.reports.map((kind) => REPORT_KINDS[kind]).join(', ')
const reported = computed(() => (sheet.value?.people ?? []).filter((one) => one.reports.length))

/** The run counts by the server's clock, and begins here: the quickest of a few small answers says it best. */
async function askTheTime(): Promise<void> {
  for (let turn = 0; turn < ASKED_TIMES; turn++) {
    const asked = Date.now()
    const told = await api.floorClock().catch(() => null)
    if (!told) return
    runClock.measure(told.now, asked)
  }
}

/** Whose run it is, where groups run apart: only they are here then. */
const whose = ref('')
const groups = computed(() => [...new Set((sheet.value?.people ?? []).map((one) => one.group).filter(Boolean))])
const whoseChoices = computed(() => [
  { value: '', label: say.everybody },
  ...groups.value.map((group) => ({ value: group, label: group })),
])
function choose(group: string): void {
  whose.value = group
  const among = new Set(
    (sheet.value?.people ?? []).filter((one) => !group || one.group === group).map((one) => one.person),
  )
  here.value = expected.value.filter((one) => among.has(one))
}
void keepShell()

const edits = ref<readonly unknown[]>([])
const hasStations = computed(() => sheet.value?.sheet.beats.some((beat) => beat.lines.some((line) => line.station)))
const choosesPace = computed(() => sheet.value?.apart != null && here.value.length >= 3)
async function start(): Promise<void> {
  if (!sheet.value) return
  if (choosesPace.value) paces.value = { ...paces.value, [shape.value]: apart.value }
  const absent = sheet.value.people.filter((one) => !here.value.includes(one.person)).map((one) => one.person)
  const id = await beginRun(sheet.value, {
    account: who,
    apart: choosesPace.value && apart.value,
    absent,
    edits: edits.value,
    name: whose.value || sheet.value.group,
    starts: true,
  })
  await router.replace({ name: 'floor', params: { id } })
}
</script>

<template>
  <main id="main" class="before">
    <p v-if="trouble" class="note-bar" role="alert">{{ refusalText(trouble) }}</p>
    <div v-else-if="!sheet" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="6" animated :throttle="200" />
    </div>
    <template v-else>
      <header>
        <h1>{{ sheet.title }}</h1>
        <p>{{ say.minutes(whole(sheet.minutes)) }}</p>
        <HelpButton />
      </header>

      <button type="button" class="floor-key start" @click="start">{{ say.start }}</button>
      <p v-if="offline" class="note-bar" role="status">{{ say.offline }}</p>
      <p v-if="!safe" class="note-bar">{{ say.notSafe }}</p>
      <section v-if="reported.length" class="note-bar" role="status">
        <p v-for="one in reported" :key="one.person">{{ reports.line(one.name, reportedBy(one)) }}</p>
      </section>
      <section>
        <h2>{{ say.cautions }}</h2>
        <p v-for="line in [...sheet.own_cautions, ...sheet.cautions]" :key="line">{{ line }}</p>
      </section>
      <section v-if="sheet.foreseen.scores.length">
        <h2>{{ say.foreseen }}</h2>
        <p class="quiet">{{ paceText(sheet.pace, false) }}</p>
        <ForeseenList :foreseen="sheet.foreseen" />
      </section>
      <section v-if="choosesPace">
        <h2>{{ say.pace }}</h2>
        <ElRadioGroup v-model="apart" :aria-label="say.pace">
          <ElRadio :value="false" size="large">{{ say.together }}</ElRadio>
          <ElRadio :value="true" size="large">{{ say.apart }}</ElRadio>
        </ElRadioGroup>
      </section>
      <StationsChoice v-if="hasStations" v-model="edits" :entry="entry" :people="here.length" />
      <section v-if="sheet.others.length">
        <h2>{{ say.otherwise }}</h2>
        <p v-for="one in sheet.others" :key="one.movement + one.option">
          {{ say.takes(one.names.join(', '), one.option, one.movement) }}
        </p>
      </section>
      <section v-if="sheet.kit.length">
        <h2>{{ say.kit }}</h2>
        <p>
          <template v-for="(one, index) in sheet.kit" :key="index"
            ><template v-if="index"> · </template>{{ say.kitLine(one.count, one.kit)
            }}<template v-if="one.kg !== null">{{ say.weighing(amount(one.kg, 'kg')) }}</template></template
          >
        </p>
      </section>
      <section v-if="sheet.people.length">
        <h2>
          {{ say.who }} <small>{{ say.here(here.length, sheet.people.length) }}</small>
        </h2>
        <ChoiceField
          v-if="groups.length > 1"
          :model-value="whose"
          :label="say.whose"
          :said="say.whose"
          :options="whoseChoices"
          boxed
          @update:model-value="choose($event ?? '')"
        />
        <p class="quiet">{{ say.tickOut }}</p>
        <ElCheckboxGroup v-model="here" :aria-label="say.who" class="people">
          <ElCheckbox v-for="one in sheet.people" :key="one.person" :value="one.person" size="large"
            >{{ one.name }} <small v-if="saidOf(one)">{{ saidOf(one) }}</small>
            <small v-if="one.reports.length" class="reported">{{ reportedBy(one) }}</small></ElCheckbox
          >
        </ElCheckboxGroup>
      </section>
      <SoundCheck />
      <section>
        <h2>{{ say.ifHurt }}</h2>
        <p class="words">{{ sheet.emergency || say.noWords }}</p>
      </section>
      <RouterLink :to="{ name: 'scores', params: { entry } }">{{ scores.sheet }}</RouterLink>
    </template>
  </main>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.before {
  height: 100dvh;
  overflow: auto;
  padding: 14px 16px 40px;
  max-width: 760px;
  margin: 0 auto;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
}
h1 {
  font-size: 27px;
  overflow-wrap: anywhere;
}
h2 {
  font-size: 18px;
  border-bottom: 1px solid var(--rule);
}
small {
  font: 14px var(--text);
  color: var(--mute);
}
section {
  margin-top: 14px;
}
p {
  margin: 4px 0;
}
.start {
  position: sticky;
  top: 0;
  z-index: 2;
  width: 100%;
  min-height: 84px;
  background: var(--act);
  border-color: var(--act);
  color: var(--sheet);
  font-size: 34px;
}
.people {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
}
.people small {
  display: block;
}
/* A line may say more than a name. */
.people :deep(.el-checkbox) {
  height: auto;
  min-height: 40px;
  padding: 3px 0;
}
.words {
  white-space: pre-line;
}
.quiet {
  color: var(--mute);
}
</style>
