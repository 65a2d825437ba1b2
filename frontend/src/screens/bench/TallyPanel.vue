<script setup lang="ts">
import { computed } from 'vue'

import { clock, percent, ratio, tenth, whole } from '@/words/format'

import BalanceBeam from './BalanceBeam.vue'
import CheckList from './CheckList.vue'
import { useBench } from './bench'
import FigureRow from './FigureRow.vue'

defineProps<{ trouble: string }>()
const { figures, wrong } = useBench()

const BEAMS = ['push-pull', 'knee-hip', 'left-right'] as const
const rows = computed(() => {
  const f = figures.value
  if (!f) return []
  return [
    { figure: 'headline.density', label: 'Density, main and finisher', value: percent(f.headline.density) },
    { figure: 'headline.work_s', label: 'Work, main and finisher', value: clock(f.headline.work_s) },
    { figure: 'headline.total_s', label: 'Length, main and finisher', value: clock(f.headline.total_s) },
    { figure: 'total_s', label: 'Length, whole session', value: clock(f.total_s) },
    { figure: 'density', label: 'Density, whole session', value: percent(f.density) },
    { figure: 'reps.called', label: 'Reps called', value: whole(f.reps.called) },
    { figure: 'reps.paced', label: 'Reps paced', value: whole(f.reps.paced) },
    { figure: 'reps.estimated', label: 'Reps guessed', value: whole(f.reps.estimated) },
    { figure: 'volume_kg', label: 'Volume load', value: `${whole(f.volume_kg)} kg` },
    { figure: 'landings.medium', label: 'Landings, medium', value: whole(f.landings.medium) },
    { figure: 'landings.high', label: 'Landings, high', value: whole(f.landings.high) },
    { figure: 'effort.mean_uptake', label: 'Mean uptake', value: percent(f.effort.mean_uptake) },
    { figure: 'effort.load', label: 'Session load, effort × minutes', value: whole(f.effort.load) },
  ]
})
const beams = computed(() => BEAMS.map((name) => ({ name, beam: figures.value?.balance.beams[name] })))
</script>

<template>
  <section class="tally" aria-label="Tally" :class="{ stale: wrong.size > 0 }">
    <h2 class="visually-hidden">Tally</h2>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="wrong.size > 0" class="note-bar" role="status">
      {{ wrong.size === 1 ? 'One place' : `${wrong.size} places` }} cannot be figured; the figures below are from before.
    </p>
    <template v-if="figures">
      <dl class="big">
        <div><dt>Work time</dt><dd>{{ clock(figures.headline.work_s) }}</dd></div>
        <div><dt>Work : rest</dt><dd>{{ ratio(figures.headline.work_to_rest) }}</dd></div>
        <div>
          <dt>Reps · guessed</dt>
          <dd>{{ whole(figures.reps.called + figures.reps.paced) }} · {{ whole(figures.reps.estimated) }}</dd>
        </div>
        <div><dt>Effort</dt><dd>{{ tenth(figures.effort.rpe) }}</dd></div>
      </dl>
      <FigureRow v-for="row in rows" :key="row.figure" v-bind="row" />
      <div class="beams">
        <BalanceBeam v-for="one in beams" :key="one.name" :beam="one.beam" />
      </div>
      <CheckList />
    </template>
  </section>
</template>

<style scoped>
.tally {
  padding: 12px 18px 30px;
  background: var(--sheet);
  overflow: auto;
}
.stale dl,
.stale .row {
  filter: grayscale(1);
}
.big {
  display: grid;
  grid-template-columns: 1fr 1fr 1.3fr 0.7fr;
  gap: 6px;
  margin: 0;
  padding-bottom: 8px;
  border-bottom: 2px solid var(--ink);
}
dt {
  font-size: 12px;
  color: var(--mute);
}
dd {
  margin: 0;
  font: 600 28px/1.15 var(--head);
}
.beams {
  border-top: 2px solid var(--ink);
  padding-top: 8px;
  margin-top: -1px;
}
</style>
