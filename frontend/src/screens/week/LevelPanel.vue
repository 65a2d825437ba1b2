<script setup lang="ts">
import { ElButton, ElCheckbox, ElCollapse, ElCollapseItem, ElProgress } from 'element-plus'
import { computed } from 'vue'

import type { Job, LevelBreak, LevelEdit, Outcome, PlanChange, Proposal } from '@/api/types'
import NumberField from '@/parts/NumberField.vue'
import { shortDay } from '@/words/dates'
import { whole } from '@/words/format'
import { figureText } from '@/words/week'
import { LEVEL_PANEL as say } from '@/words/texts/week'

import type { LevelRules } from './useLevelling'

const props = defineProps<{
  proposal: Proposal | null
  picked: readonly number[]
  /** What each edit would do by itself. */
  own: readonly (Outcome | null)[]
  outcome: Outcome | null
  busy: boolean
  progress: Job | null
  trouble: string
  changes: readonly PlanChange[]
  days: readonly string[]
  editable: boolean
}>()
const rules = defineModel<LevelRules>('rules', { required: true })
defineEmits<{ pick: [index: number]; take: []; cancel: []; close: []; undo: [change: number, item: number] }>()

const editText = (edit: LevelEdit): string => {
  const title = props.proposal?.titles[edit.slot] ?? ''
  if (edit.day === null || edit.day === undefined) return `${title}: ${edit.what}`
  return say.move(title, shortDay(props.days[edit.day] ?? ''))
}
const weightsText = computed(() =>
  Object.entries(props.proposal?.weights ?? {})
    .map(([kind, weight]) => `${kind} ${weight}`)
    .join(', '),
)
const titlesOf = (slots: readonly string[]): string =>
  [...new Set(slots.flatMap((slot) => props.proposal?.titles[slot] ?? []))].join(', ')
function breakText(one: LevelBreak): string {
  const days = [...new Set(one.days)].map((day) => {
    if (day < 0) return say.theDayBefore
    return day > 6 ? say.theDayAfter : shortDay(props.days[day] ?? '')
  })
  const where = days.length ? ` (${days.join(say.and)}${one.names.length ? `; ${one.names.join(', ')}` : ''})` : ''
  return `${one.rule}: ${titlesOf(one.slots)}${where}`
}
/** Rules that the ticked edits leave broken; those that only what is locked or gone breaks stand apart. */
const broken = computed(() => (props.outcome?.breaks ?? []).filter((one) => !one.given).map(breakText))
const given = computed(() => (props.proposal?.before.breaks ?? []).filter((one) => one.given).map(breakText))
const reached = computed(() => {
  const made = props.proposal
  if (!made) return ''
  const all = made.met.length + made.unmet.length
  const aims = all === 0 ? say.noAim : say.aimsMet(made.met.length, all)
  return `${aims}${made.unmet.length ? say.notMet(made.unmet.join(', ')) : ''}.`
})
const ENDS: Record<Proposal['end'], string> = {
  proven: say.nothingBetterIsPossibleUnder,
  time: say.theBestFoundInThe,
  stopped: say.theBestFoundUntilIt,
}
/** The figures that a proposal is about: name, as it is, as it would be. */
function figuresOf(before: Outcome, after: Outcome): [string, string, string][] {
  return [
    ['load', whole(before.load.totals['load'] ?? 0), whole(after.load.totals['load'] ?? 0)],
    ['monotony', figureText(before.load.monotony, 'ratio'), figureText(after.load.monotony, 'ratio')],
    ['clashes', String(before.clashes.length), String(after.clashes.length)],
    ...['medium', 'high'].map((grade): [string, string, string] => {
      const key = `landings-${grade}`
      return [`${grade} landings`, whole(before.load.totals[key] ?? 0), whole(after.load.totals[key] ?? 0)]
    }),
  ]
}
const beside = computed(() => {
  const before = props.proposal?.before
  return before && props.outcome ? figuresOf(before, props.outcome) : []
})
/** What one edit changes by itself. */
function ownText(index: number): string {
  const before = props.proposal?.before
  const after = props.own[index]
  if (!before || !after) return ''
  const changed = figuresOf(before, after).filter(([, was, is]) => was !== is)
  return changed.length ? changed.map(([name, was, is]) => `${name} ${was} → ${is}`).join(' · ') : say.noFigureChanges
}
</script>

<template>
  <section class="level" :aria-label="say.waysToLevelIt">
    <ElCollapse v-if="editable" class="rules">
      <ElCollapseItem :title="say.rulesForLevelling" name="rules">
        <NumberField
          v-model="rules.most_a_day"
          :label="say.atMostADay"
          :said="say.atMost"
          :unit="say.aDay"
          :min="1"
          :max="10"
        />
        <ElCheckbox v-model="rules.no_two_hard">{{ say.noTwoHardDaysIn }}</ElCheckbox>
        <ElCheckbox v-model="rules.gone">{{ say.daysGoneByMayBe }}</ElCheckbox>
        <NumberField
          v-model="rules.landings_cap"
          :label="say.mediumAndHighLandingsAt"
          :said="say.mediumAndHighLandingsAt"
          :placeholder="say.any"
        />
        <span class="quiet">
          {{ say.lockedAndLoggedEntriesRest }}
        </span>
      </ElCollapseItem>
    </ElCollapse>
    <div v-if="busy" role="status">
      {{ say.lookingForWaysToLevel }}
      <template v-if="progress?.before">{{ say.beforeItInTheQueue(progress.before) }}</template>
      <template v-else-if="progress?.progress.found">
        {{ say.theBestSoFarEdits(progress.progress.edits, progress.progress.unmet) }}
      </template>
      <ElProgress :percentage="100" indeterminate :duration="4" :show-text="false" :aria-label="say.levelling" />
      <button type="button" class="link" @click="$emit('cancel')">{{ say.stopTakeTheBestSo }}</button>
    </div>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <template v-if="proposal">
      <h3>{{ say.waysToLevelIt }}</h3>
      <p v-if="proposal.clashing_rules.length" class="note-bar">
        {{ say.theseRulesCannotAllHold(proposal.clashing_rules.join('; ')) }}
      </p>
      <p v-else-if="!proposal.found" class="note-bar">
        {{ say.noWeekThatKeepsThe }}
      </p>
      <p v-else-if="!proposal.edits.length">
        {{ proposal.end === 'proven' ? say.nothingToChangeTheWeek : say.nothingBetterThanThePlan }}
      </p>
      <ul v-else>
        <li v-for="(edit, index) in proposal.edits" :key="index">
          <ElCheckbox :model-value="picked.includes(index)" @change="$emit('pick', index)">{{
            editText(edit)
          }}</ElCheckbox>
          <span class="own">{{ ownText(index) }}</span>
        </li>
      </ul>
      <table v-if="beside.length && proposal.edits.length">
        <caption class="visually-hidden">
          {{
            say.beforeAndAfterWithWhat
          }}
        </caption>
        <thead>
          <tr>
            <td></td>
            <th scope="col">{{ say.now }}</th>
            <th scope="col">{{ say.withThese }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[name, before, after] in beside" :key="name">
            <th scope="row">{{ name }}</th>
            <td>{{ before }}</td>
            <td>{{ after }}</td>
          </tr>
        </tbody>
      </table>
      <p class="acts">
        <ElButton v-if="proposal.edits.length" type="primary" :disabled="!picked.length" @click="$emit('take')">
          {{
            say.take(picked.length === proposal.edits.length ? (picked.length > 1 ? say.all : say.it) : picked.length)
          }}
        </ElButton>
        <button type="button" class="link" @click="$emit('close')">{{ say.leaveIt }}</button>
      </p>
      <template v-if="proposal.edits.length">
        <p v-for="line in broken" :key="line" class="note-bar">{{ say.withWhatIsTickedThis(line) }}</p>
      </template>
      <p v-for="line in given" :key="line" class="quiet">{{ say.brokenByWhatStaysAs(line) }}</p>
      <p v-if="proposal.found" class="quiet">{{ reached }} {{ ENDS[proposal.end] }}</p>
      <p v-if="proposal.edits.length" class="quiet">
        {{ say.firstTheRulesThenThe(weightsText) }}
      </p>
    </template>
    <template v-if="changes.length">
      <h3>{{ say.taken }}</h3>
      <ul>
        <template v-for="change in changes" :key="change.id">
          <li v-for="(item, index) in change.items" :key="`${change.id}-${index}`" :class="{ undone: item.undone }">
            {{ item.day ? say.moved(item.title, shortDay(item.day)) : `${item.title}: ${item.what}` }}
            <button v-if="!item.undone" type="button" class="link" @click="$emit('undo', change.id, index)">
              {{ say.undo }}<span class="visually-hidden">: {{ item.title }}, {{ item.what }}</span>
            </button>
            <span v-else>{{ say.undone }}</span>
          </li>
        </template>
      </ul>
    </template>
  </section>
</template>

<style scoped>
h3 {
  font-size: 17px;
  margin: 14px 0 4px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-top: 1px solid var(--rule);
  padding: 5px 0;
}
.own {
  display: block;
  padding-left: 22px;
  color: var(--mute);
  font-size: 13px;
}
.rules {
  margin-top: 12px;
}
.rules :deep(.el-collapse-item__content) {
  display: grid;
  gap: 2px;
  justify-items: start;
}
.undone {
  color: var(--mute);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: right;
  padding: 2px 0;
  font-weight: 400;
}
th:first-child {
  text-align: left;
  color: var(--mute);
}
td:last-child {
  font-weight: 600;
}
.quiet {
  color: var(--mute);
  font-size: 12.5px;
  margin: 4px 0;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
}
@media print {
  .rules {
    display: none;
  }
}
</style>
