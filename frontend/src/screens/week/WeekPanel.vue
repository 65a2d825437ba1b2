<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus'
import { computed, ref } from 'vue'

import type { Week } from '@/api/types'
import { useTables } from '@/composables/useTables'
import MethodsLink from '@/parts/MethodsLink.vue'
import { percent, whole } from '@/words/format'
import { valueText } from '@/words/rows'
import { clashText, figureText, termsText, type FigureKind } from '@/words/week'
import { WEEK_PANEL as say } from '@/words/texts/week'

const props = defineProps<{ week: Week }>()
const MOST = 5
const all = ref(false)
const FIGURES: { key: 'change' | 'acwr_coupled' | 'acwr_uncoupled' | 'acwr_ewma'; label: string; kind: FigureKind }[] =
  [
    { key: 'change', label: say.againstLastWeek, kind: 'change' },
    { key: 'acwr_coupled', label: say.daysRolling, kind: 'ratio' },
    { key: 'acwr_uncoupled', label: say.daysBefore, kind: 'ratio' },
    { key: 'acwr_ewma', label: say.daysWeighted, kind: 'ratio' },
  ]
/** Kinds that only older releases kept are shown where there are any. */
const { tables } = useTables()
const currencies = computed(() =>
  tables.value.currencies.filter(
    ({ key }) => key !== 'load' && (!key.endsWith('-mixed') || (props.week.load.totals[key] ?? 0) > 0),
  ),
)
const total = computed(() => props.week.load.totals['load'] ?? 0)
const band = computed(() => {
  const { phase } = props.week
  if (!phase) return null
  const state = phase.off < 0 ? say.underIt : phase.off > 0 ? say.overIt : say.withinIt
  return {
    text: `${whole(phase.load_low)} – ${whole(phase.load_high)}`,
    state,
    phase: say.weekOf(phase.kind, phase.week, phase.weeks),
  }
})
</script>

<template>
  <section class="panel" :aria-label="say.whatTheWeekComesTo">
    <h2 class="visually-hidden">{{ say.whatTheWeekComesTo }}</h2>
    <dl class="big">
      <div>
        <dt>{{ say.weekLoad }}</dt>
        <dd>{{ whole(total) }}</dd>
      </div>
      <div>
        <dt>{{ say.monotony }}</dt>
        <dd>{{ figureText(week.load.monotony, 'ratio') }}</dd>
      </div>
      <div>
        <dt>{{ say.strain }}</dt>
        <dd>{{ figureText(week.load.strain, 'load') }}</dd>
      </div>
    </dl>
    <p v-if="week.load.monotony.why" class="quiet">{{ say.noMonotony(week.load.monotony.why) }}</p>
    <p v-else class="quiet">{{ say.monotonyOf(termsText(week.load.monotony)) }}</p>
    <p v-if="week.load.entries" class="quiet">
      {{ say.ofLoggedTheRestAs(week.load.logged, week.load.entries) }}
    </p>
    <div v-if="band" class="row">
      <span
        >{{ say.targetBand }} <small>{{ band.phase }}</small></span
      ><b>{{ band.text }}</b
      ><i>{{ band.state }}</i>
    </div>
    <p v-if="week.load.acwr_coupled.value === null && week.load.usual.value !== null" class="quiet">
      {{
        say.againstTheLastMeanLeast(
          week.load.usual.terms['weeks'] === 1 ? say.loggedWeek : say.loggedWeeks(week.load.usual.terms['weeks']),
          whole(week.load.usual.terms['mean'] ?? 0),
          whole(week.load.usual.terms['least'] ?? 0),
          whole(week.load.usual.terms['most'] ?? 0),
        )
      }}
    </p>
    <ElCollapse class="figures">
      <ElCollapseItem v-for="one in FIGURES" :key="one.key" :name="one.key">
        <template #title>
          <span class="row"
            ><span>{{ one.label }}</span
            ><b>{{ figureText(week.load[one.key], one.kind) }}</b></span
          >
        </template>
        <p class="why">
          {{ termsText(week.load[one.key])
          }}<template v-if="one.key !== 'change'"><br />{{ week.load.caution }}</template
          ><br />
          <MethodsLink paragraph="load" />
        </p>
      </ElCollapseItem>
      <ElCollapseItem name="more" :title="say.inOtherCurrencies">
        <ul class="why">
          <li v-for="one in currencies" :key="one.key">
            {{ one.label }} {{ valueText(week.load.totals[one.key] ?? 0, one.unit ?? 'count') }}
          </li>
          <template v-for="beam in week.beams" :key="beam.name">
            <li v-if="beam.left_share !== null">
              {{ beam.left_name }} : {{ beam.right_name }} {{ percent(beam.left_share) }} :
              {{ percent(1 - (beam.left_share ?? 0)) }}
            </li>
          </template>
        </ul>
      </ElCollapseItem>
    </ElCollapse>
    <h3 v-if="week.clashes.length">{{ say.clashes }}</h3>
    <p
      v-for="clash in week.clashes.slice(0, all ? undefined : MOST)"
      :key="`${clash.first}-${clash.second}`"
      class="note-bar"
    >
      {{ clashText(clash) }}.
    </p>
    <button v-if="week.clashes.length > MOST && !all" type="button" class="link" @click="all = true">
      {{ say.more(week.clashes.length - MOST) }}
    </button>
    <p v-if="!week.clashes.length && week.entries.length > 1" class="quiet">
      {{ say.noClashesWhatIsWorked }}
    </p>
  </section>
</template>

<style scoped src="@/styles/big.css"></style>
<style scoped>
.big {
  grid-template-columns: repeat(3, 1fr);
}
.row {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  padding: 5px 0;
  width: 100%;
  text-align: left;
  border-bottom: 1px dotted var(--rule);
}
i {
  font-style: normal;
  color: var(--mute);
  min-width: 12px;
  text-align: right;
}
small {
  color: var(--mute);
}
.why {
  background: var(--paper-2);
  padding: 5px 8px;
  font-size: 12.5px;
  margin: 0 0 4px;
}
.quiet {
  color: var(--mute);
  font-size: 12.5px;
  margin: 4px 0;
}
h3 {
  font-size: 17px;
  margin: 14px 0 4px;
}
.note-bar {
  font-size: 13px;
  margin: 4px 0;
}
</style>
