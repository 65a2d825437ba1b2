<script setup lang="ts">
import { computed, ref } from 'vue'

import type { ExpectedScore, LogEntry, LoggedPerson, LogResult, LogWindow, ResultIn } from '@/api/types'
import { scoreText } from '@/words/scores'
import ScoreField from '@/parts/ScoreField.vue'
import { SCORE_TABLE as say } from '@/words/texts/log'

import ForeseenBar from './ForeseenBar.vue'
import { resultWith } from './logApi'
import RowMore from './RowMore.vue'

// One window: who made what, beside last time and what was foreseen. Scores are typed in here, Enter goes on down.
const props = defineProps<{
  page: LogEntry
  window: LogWindow
  title: string
  expected: readonly ExpectedScore[]
  writes: boolean
}>()
const emit = defineEmits<{ write: [result: ResultIn]; choose: [result: number] }>()

const here = (one: LogResult | ExpectedScore): boolean =>
  one.block === props.window.block && one.section_pass === props.window.section_pass && one.index === props.window.index
interface Row {
  key: string
  name: string
  person: LoggedPerson | null
  told: LogResult[]
  used: LogResult | undefined
}
const rows = computed<Row[]>(() => {
  const results = props.page.results.filter(here)
  const row = (key: string, name: string, person: LoggedPerson | null, told: LogResult[]): Row => ({
    key,
    name,
    person,
    told,
    used: told.find((one) => one.used),
  })
  const people = props.page.people.filter((one) => one.came || results.some((each) => each.person === one.person))
  const others = [...new Set(results.filter((one) => one.person === null).map((one) => one.whose))]
  const all = others.includes('session') || !props.page.plans ? others : ['session', ...others]
  return [
    ...people.map((one) =>
      row(
        one.person,
        one.name,
        one,
        results.filter((each) => each.person === one.person),
      ),
    ),
    ...all.map((whose) =>
      row(
        whose,
        whose === 'session' ? say.all : whose,
        null,
        results.filter((each) => each.person === null && each.whose === whose),
      ),
    ),
  ]
})
/** What was foreseen: as it was kept with the score, else as it is now. */
function foreseen(row: Row): ExpectedScore | LogResult | undefined {
  if (row.used?.beside && row.used.expected) return row.used
  return props.expected.find((one) => here(one) && one.person === row.person?.person)
}
function between(one: ExpectedScore | LogResult): string {
  const made = 'score' in one && 'pace' in one ? one.score : (one as LogResult).expected
  return made ? say.between(scoreText(made.least), scoreText(made.most)) : ''
}
const last = (row: Row) =>
  props.page.earlier.find((one) => one.person === row.person?.person && one.shape === props.window.shape)
const text = (one: LogResult | undefined): string => (one ? one.unfinished || scoreText(one.score) : '')
const why = (one: LogResult): string =>
  one.chosen ? say.chosenByCoach : one.way === 'own' ? say.ownCount : say.latestOfCoach
const COLUMNS = 6
const open = (row: Row): boolean => row.told.some((one) => one.disputed)
const options = (row: Row): string => Object.values(row.used?.options ?? {}).join(', ')
const write = (row: Row, changed: Partial<ResultIn>): void =>
  emit('write', resultWith(props.window, row.person?.person ?? null, row.used, changed))
/** Whose row is open for what they did otherwise. */
const opened = ref('')
const steps = computed(() => props.page.options.filter((one) => one.block === props.window.block))
function keep(row: Row, options: Record<string, string>, unfinished: string): void {
  write(row, { options, unfinished, ...(unfinished ? { score: null } : {}) })
  opened.value = ''
}
/** Enter goes on to the next field of the same window. */
function goOn(event: KeyboardEvent): void {
  const table = (event.currentTarget as HTMLElement).closest('table')
  const fields = [...(table?.querySelectorAll<HTMLInputElement>('.score input') ?? [])]
  const next = fields[fields.indexOf(event.target as HTMLInputElement) + 1]
  if (next) next.focus()
  else (event.target as HTMLInputElement).blur()
}
</script>

<template>
  <section :aria-label="title">
    <h2>{{ title }}</h2>
    <p v-if="rows.length === 0" class="said">{{ say.nobody }}</p>
    <div v-else class="wide" tabindex="0">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ say.who }}</th>
            <th scope="col" class="number desk">{{ say.lastTime }}</th>
            <th scope="col">{{ say.foreseen }}</th>
            <th scope="col" class="number">{{ say.made }}</th>
            <th scope="col" class="desk">{{ say.otherwise }}</th>
            <th scope="col" class="number">{{ say.rated }}</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="row in rows" :key="row.key">
            <tr>
              <th scope="row">
                <RouterLink v-if="row.person" :to="{ name: 'person-log', params: { id: row.person.person } }">{{
                  row.name
                }}</RouterLink>
                <template v-else>{{ row.name }}</template>
                <button
                  v-if="writes"
                  type="button"
                  class="link"
                  :aria-expanded="opened === row.key"
                  @click="opened = opened === row.key ? '' : row.key"
                >
                  {{ say.more }}<span class="visually-hidden">{{ say.moreOf(row.name) }}</span>
                </button>
                <small v-if="row.person?.limits.length" class="look">{{
                  say.limited(row.person.limits.join(', '))
                }}</small>
                <small v-if="row.person?.standing" class="look">{{ say.standing(row.person.standing) }}</small>
                <small v-if="row.person?.fresh">{{ say.fresh(row.person.fresh) }}</small>
                <small v-if="open(row)" class="look">
                  {{ say.twoCounts(row.told.map(text).join(', ')) }}
                  {{ row.used ? say.inUse(text(row.used), why(row.used)) : '' }}
                  <template v-if="page.plans">
                    <button
                      v-for="one in row.told"
                      :key="one.id"
                      type="button"
                      class="link"
                      @click="emit('choose', one.id)"
                    >
                      {{ say.use(text(one), one.way === 'own' ? say.own : (one.by ?? '')) }}
                    </button>
                  </template>
                </small>
                <small v-else-if="row.told.some((one) => one.chosen)">{{ say.settled }}</small>
                <small v-if="row.used?.to_check" class="look">{{ say.toCheck }}</small>
              </th>
              <td class="number desk">
                <template v-if="last(row)">
                  {{ scoreText(last(row)?.last) }}
                  <small>{{ say.best(scoreText(last(row)?.best)) }}</small>
                </template>
                <template v-else>–</template>
              </td>
              <td>
                <template v-for="one in [foreseen(row)]" :key="one ? 1 : 0">
                  <template v-if="one?.beside">
                    <ForeseenBar :beside="one.beside" :text="between(one)" />
                    <small>{{ between(one) }}</small>
                  </template>
                </template>
              </td>
              <td class="number made">
                <ScoreField
                  v-if="writes"
                  :label="say.cell(row.name, title)"
                  :made="text(row.used)"
                  :disabled="false"
                  @typed="write(row, { score: $event, unfinished: '' })"
                  @keydown.enter="goOn"
                />
                <b v-else>{{ text(row.used) || '–' }}</b>
              </td>
              <td class="desk">
                {{ options(row) }}
              </td>
              <td class="number">
                <b>{{ row.person?.rated ?? '' }}</b>
              </td>
            </tr>
            <tr v-if="opened === row.key">
              <td :colspan="COLUMNS">
                <RowMore
                  :name="row.name"
                  :steps="steps"
                  :used="row.used"
                  @keep="(options, unfinished) => keep(row, options, unfinished)"
                  @close="opened = ''"
                />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.wide {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
thead th {
  font: 500 13px var(--head);
  text-align: left;
  border-bottom: 2px solid var(--ink);
}
thead .number,
.number {
  text-align: right;
}
h2 {
  border: 0;
  margin-bottom: 2px;
}
tbody th {
  font-weight: 400;
  text-align: left;
  max-width: 200px;
}
thead th {
  padding-right: 14px;
}
.made :deep(.score) {
  width: 84px;
}
.made :deep(input) {
  text-align: right;
}
td,
tbody th {
  border-bottom: 1px dotted var(--rule);
  padding: 5px 14px 5px 0;
}
small {
  display: block;
  color: var(--mute);
  font-size: 12.5px;
}
.look {
  color: var(--warn);
}
b {
  font: 600 19px/1.2 var(--head);
}
.link {
  margin-left: 8px;
}
@media (max-width: 700px) {
  .desk {
    display: none;
  }
  td,
  tbody th {
    padding-right: 8px;
  }
  .made :deep(.score) {
    width: 62px;
  }
  .link {
    display: block;
    margin-left: 0;
  }
}
</style>
