<script setup lang="ts">
import { computed } from 'vue'

import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { clock, percent, ratio, signed, tenth, whole } from '@/words/format'
import { TALLY_PANEL as say } from '@/words/texts/bench'

import BalanceBeam from './BalanceBeam.vue'
import CheckList from './CheckList.vue'
import { useBench } from './bench'
import FigureRow from './FigureRow.vue'

defineProps<{ trouble: string }>()
const { figures, wrong, methods, deltas, trying } = useBench()

const time = computed(() => {
  const f = figures.value
  if (!f) return []
  return [
    {
      figure: 'headline.density',
      label: say.densityMainAndFinisher,
      value: percent(f.headline.density),
      unit: 'share' as const,
    },
    {
      figure: 'headline.work_s',
      label: say.workMainAndFinisher,
      value: clock(f.headline.work_s),
      unit: 's' as const,
    },
    {
      figure: 'headline.total_s',
      label: say.lengthMainAndFinisher,
      value: clock(f.headline.total_s),
      unit: 's' as const,
    },
    { figure: 'total_s', label: say.lengthWholeSession, value: clock(f.total_s), unit: 's' as const },
    { figure: 'work_s', label: say.workWholeSession, value: clock(f.work_s), unit: 's' as const },
    { figure: 'density', label: say.densityWholeSession, value: percent(f.density), unit: 'share' as const },
    { figure: 'timetable_s', label: say.toBookTheHallFor, value: clock(f.timetable_s), unit: 's' as const },
  ]
})
const volume = computed(() => {
  const f = figures.value
  if (!f) return []
  return [
    { figure: 'reps.called', label: say.repsCalled, value: whole(f.reps.called), lights: { kind: 'called' } },
    { figure: 'reps.paced', label: say.repsPaced, value: whole(f.reps.paced), lights: { kind: 'paced' } },
    { figure: 'reps.estimated', label: say.repsGuessed, value: whole(f.reps.estimated), lights: { kind: 'estimated' } },
    { figure: 'volume_kg', label: say.volumeLoad, value: `${whole(f.volume_kg)} kg` },
    { figure: 'landings.low', label: say.landingsLow, value: whole(f.landings.low) },
    { figure: 'landings.medium', label: say.landingsMedium, value: whole(f.landings.medium) },
    { figure: 'landings.high', label: say.landingsHigh, value: whole(f.landings.high) },
  ].filter((row) => !row.label.endsWith(', low') || f.landings.low > 0)
})
const effort = computed(() => {
  const f = figures.value
  if (!f) return []
  return [
    { figure: 'effort.rpe', label: say.effortTo, value: tenth(f.effort.rpe), unit: 'effort' as const },
    {
      figure: 'effort.mean_uptake',
      label: say.meanUptake,
      value: percent(f.effort.mean_uptake),
      unit: 'share' as const,
    },
    {
      figure: 'effort.peak_uptake',
      label: say.peakUptake,
      value: percent(f.effort.peak_uptake),
      unit: 'share' as const,
    },
    { figure: 'effort.above_80_s', label: say.timeAbove, value: clock(f.effort.above_80_s), unit: 's' as const },
    {
      figure: 'effort.load',
      label: say.sessionLoadEffortMinutes,
      value: whole(f.effort.load),
      unit: 'load' as const,
    },
  ]
})
const rows = computed(() =>
  Object.entries(figures.value?.balance.rows ?? {})
    .filter(([, row]) => row.work_s > 0 || row.share > 0)
    .map(([name, row]) => ({
      figure: `balance.rows.${name}.share`,
      label: name,
      value: percent(row.share),
      unit: 'share' as const,
      lights: { row: name },
    })),
)
const beams = computed(() => Object.entries(figures.value?.balance.beams ?? {}))
const exits = computed(() =>
  (figures.value?.exits ?? []).map((exit, index) => {
    const block = figures.value?.blocks.find((one) => one.id === exit.before)
    return {
      figure: `exits.${index}.total_s`,
      label: say.endsBefore(block?.title ?? block?.part ?? exit.before),
      value: say.loadBy(clock(exit.total_s), whole(exit.load)),
      unit: 's' as const,
    }
  }),
)

const { tables } = useTables()
const choices = (school: (typeof tables.value.schools)[number]) => [
  { value: '', label: say.theSquads },
  ...school.choices.map((one) => ({ value: one.key, label: one.label })),
]
/** What the squad's own methods say is known from the answer itself; an empty choice leaves it to them. */
function choose(name: string, value: string): void {
  const rest = Object.fromEntries(Object.entries(methods.value).filter(([key]) => key !== name))
  methods.value = value === '' ? rest : { ...rest, [name]: value }
}
</script>

<template>
  <section class="tally" :aria-label="say.tally" :class="{ stale: wrong.size > 0 }">
    <h2 class="visually-hidden">{{ say.tally }}</h2>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="wrong.size > 0" class="note-bar" role="status">
      {{ say.cannotBeFiguredTheFigures(wrong.size === 1 ? say.onePlace : say.places(wrong.size)) }}
    </p>
    <p v-if="trying" class="note-bar" role="status">
      {{ say.whatIfDifferencesAreTo }}
    </p>
    <template v-if="figures">
      <dl class="big">
        <div>
          <dt>{{ say.workTime }}</dt>
          <dd>{{ clock(figures.headline.work_s) }}</dd>
          <dd v-if="deltas?.['headline.work_s']" class="delta">{{ signed(deltas['headline.work_s'], 's') }}</dd>
        </div>
        <div>
          <dt>{{ say.workRest }}</dt>
          <dd>{{ ratio(figures.headline.work_to_rest) }}</dd>
        </div>
        <div>
          <dt>{{ say.calledPacedGuessed }}</dt>
          <dd class="reps">
            {{ whole(figures.reps.called) }} · {{ whole(figures.reps.paced) }} · {{ whole(figures.reps.estimated) }}
          </dd>
        </div>
        <div>
          <dt>{{ say.effort }}</dt>
          <dd>{{ tenth(figures.effort.rpe) }}</dd>
          <dd v-if="deltas?.['effort.rpe']" class="delta">{{ signed(deltas['effort.rpe'], 'effort') }}</dd>
        </div>
      </dl>
      <p v-if="figures.effort.provisional.length" class="note-bar" role="status">
        <b>{{ figures.effort.provisional.join(', ') }}</b>
        {{ say.newSARepEffort(figures.effort.provisional.length > 1 ? say.are : say.is) }}
      </p>
      <CheckList />
      <h3>{{ say.time }}</h3>
      <FigureRow v-for="row in time" :key="row.figure" v-bind="row" />
      <h3>{{ say.volume }}</h3>
      <FigureRow v-for="row in volume" :key="row.figure" v-bind="row" />
      <FigureRow
        v-if="figures.rates.reps_per_min !== null"
        figure="rates.reps_per_min"
        :label="say.repsAMinute"
        :value="tenth(figures.rates.reps_per_min)"
      />
      <h3>{{ say.effort }}</h3>
      <FigureRow v-for="row in effort" :key="row.figure" v-bind="row" />
      <h3>{{ say.balance }}</h3>
      <FigureRow v-for="row in rows" :key="row.figure" v-bind="row" />
      <div class="beams">
        <BalanceBeam v-for="[name, beam] in beams" :key="name" :beam="beam" />
      </div>
      <template v-if="exits.length">
        <h3>{{ say.exits }}</h3>
        <FigureRow v-for="row in exits" :key="row.figure" v-bind="row" />
      </template>
      <h3>{{ say.schools }}</h3>
      <p class="schools">
        <ChoiceField
          v-for="school in tables.schools"
          :key="school.key"
          :model-value="String(methods[school.key] ?? '')"
          :label="school.label"
          :said="school.label"
          :options="choices(school)"
          @update:model-value="choose(school.key, $event ?? '')"
        />
      </p>
    </template>
    <p v-else class="quiet">{{ say.nothingToTallyYet }}</p>
  </section>
</template>

<style scoped src="@/styles/big.css"></style>
<style scoped>
.tally {
  padding: 12px 18px 30px;
  background: var(--sheet);
  position: relative;
  overflow: auto;
}
.stale dl,
.stale .row {
  filter: grayscale(1);
}
.big {
  grid-template-columns: 1fr 1fr 1.5fr 0.6fr;
}
dd.reps {
  font-size: 22px;
  line-height: 1.45;
}
dd.delta {
  font: 600 13px var(--text);
  color: var(--warn);
}
h3 {
  font-size: 15px;
  margin-top: 12px;
  border-bottom: 1px solid var(--ink);
}
.beams {
  padding-top: 8px;
}
.schools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin: 6px 0;
  font-size: 13px;
  color: var(--mute);
}
.quiet {
  color: var(--mute);
}
</style>
