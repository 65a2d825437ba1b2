<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'

import type { LevelEdit, LevelProgress, Outcome, PlanChange, Proposal } from '@/api/types'
import { shortDay } from '@/words/dates'
import { whole } from '@/words/format'
import { figureText } from '@/words/week'

import type { LevelRules } from './useLevelling'

const props = defineProps<{
  proposal: Proposal | null
  picked: readonly number[]
  outcome: Outcome | null
  busy: boolean
  progress: LevelProgress | null
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
  return `Move ${title} to ${shortDay(props.days[edit.day] ?? '')}`
}
const weightsText = computed(() =>
  Object.entries(props.proposal?.weights ?? {})
    .map(([kind, weight]) => `${kind} ${weight}`)
    .join(', '),
)
const beside = computed(() => {
  const before = props.proposal?.before
  const after = props.outcome
  if (!before || !after) return []
  return [
    ['load', whole(before.load.totals['load'] ?? 0), whole(after.load.totals['load'] ?? 0)],
    ['monotony', figureText(before.load.monotony, 'ratio'), figureText(after.load.monotony, 'ratio')],
    ['clashes', String(before.clashes.length), String(after.clashes.length)],
    ['landings', whole(before.load.totals['landings'] ?? 0), whole(after.load.totals['landings'] ?? 0)],
  ]
})
</script>

<template>
  <section class="level" aria-label="Ways to level it">
    <details v-if="editable" class="rules">
      <summary>Rules for levelling</summary>
      <label>at most <input v-model.number="rules.most_a_day" type="number" min="1" max="10" /> a day</label>
      <label><input v-model="rules.no_two_hard" type="checkbox" /> no two hard days in a row</label>
      <label><input v-model="rules.keep_gone" type="checkbox" /> days gone by stay as they are</label>
      <label>landings at most <input v-model.number="rules.landings_cap" type="number" min="0" placeholder="any" /></label>
      <span class="quiet">Locked and logged entries, rest days, days without the hall and the hours between clashes always hold.</span>
    </details>
    <p v-if="busy" role="status">
      Looking for ways to level the week …
      <template v-if="progress?.found">the best of {{ progress.found }} so far: {{ progress.edits }} edits, {{ progress.unmet }} aims unmet</template>
      <button type="button" class="link" @click="$emit('cancel')">stop, take the best so far</button>
    </p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <template v-if="proposal">
      <h3>Ways to level it</h3>
      <p v-if="proposal.clashing_rules.length" class="note-bar">
        These rules cannot all hold this week: {{ proposal.clashing_rules.join('; ') }}. Give one up, or unlock something.
      </p>
      <p v-else-if="!proposal.edits.length">Nothing to change: the week is as it should be, as far as it can.</p>
      <ul v-else>
        <li v-for="(edit, index) in proposal.edits" :key="index">
          <label><input type="checkbox" :checked="picked.includes(index)" @change="$emit('pick', index)" /> {{ editText(edit) }}</label>
        </li>
      </ul>
      <table v-if="beside.length && proposal.edits.length">
        <caption class="visually-hidden">Before and after, with what is ticked</caption>
        <thead><tr><td></td><th scope="col">now</th><th scope="col">with these</th></tr></thead>
        <tbody>
          <tr v-for="[name, before, after] in beside" :key="name"><th scope="row">{{ name }}</th><td>{{ before }}</td><td>{{ after }}</td></tr>
        </tbody>
      </table>
      <p v-if="proposal.unmet.length" class="quiet">Not met with all of them: {{ proposal.unmet.join(', ') }}.</p>
      <p v-if="proposal.edits.length" class="quiet">
        First the rules, then the aims, then the fewest edits; of equals the lightest: {{ weightsText }}.
      </p>
      <p v-if="!proposal.proven" class="quiet">The best found in the time there was.</p>
      <p class="acts">
        <ElButton v-if="proposal.edits.length" type="primary" :disabled="!picked.length" @click="$emit('take')">
          Take {{ picked.length === proposal.edits.length ? (picked.length > 1 ? 'all' : 'it') : picked.length }}
        </ElButton>
        <button type="button" class="link" @click="$emit('close')">leave it</button>
      </p>
    </template>
    <template v-if="changes.length">
      <h3>Taken</h3>
      <ul>
        <template v-for="change in changes" :key="change.id">
          <li v-for="(item, index) in change.items" :key="`${change.id}-${index}`" :class="{ undone: item.undone }">
            {{ item.day ? `${item.title} moved to ${shortDay(item.day)}` : `${item.title}: ${item.what}` }}
            <button v-if="!item.undone" type="button" class="link" @click="$emit('undo', change.id, index)">
              undo<span class="visually-hidden">: {{ item.title }}, {{ item.what }}</span>
            </button>
            <span v-else> (undone)</span>
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
.rules {
  margin-top: 12px;
}
.rules label {
  display: block;
}
.rules input[type='number'] {
  width: 60px;
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
</style>
