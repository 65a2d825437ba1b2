<script setup lang="ts">
import { computed } from 'vue'

import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { TALLY_PANEL as say } from '@/words/texts/bench'

import BalanceBeam from './BalanceBeam.vue'
import { useBench } from './bench'
import BigFigures from './BigFigures.vue'
import CheckList from './CheckList.vue'
import FileWarnings from './FileWarnings.vue'
import FigureRow from './FigureRow.vue'
import { useBigFigures, useFamilies } from './useTally'

defineProps<{ trouble: string }>()
const { figures, wrong, methods, trying } = useBench()

const big = useBigFigures(figures)
const beams = computed(() => Object.entries(figures.value?.balance.beams ?? {}))
const { tables } = useTables()
const families = useFamilies(
  figures,
  computed(() => tables.value.figures),
)
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
      <BigFigures :big="big" />
      <p v-if="figures.effort.provisional.length" class="note-bar" role="status">
        <b>{{ figures.effort.provisional.join(', ') }}</b>
        {{ say.newSARepEffort(figures.effort.provisional.length > 1 ? say.are : say.is) }}
      </p>
      <CheckList />
      <FileWarnings />
      <slot />
      <template v-for="family in families" :key="family.name">
        <h3>{{ family.label }}</h3>
        <FigureRow v-for="row in family.rows" :key="row.figure" v-bind="row" />
        <div v-if="family.name === 'balance'" class="beams">
          <BalanceBeam v-for="[name, beam] in beams" :key="name" :beam="beam" />
        </div>
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

<style scoped>
.tally {
  padding: 12px 18px 30px;
  background: var(--sheet);
  position: relative;
  overflow: auto;
}
.stale :deep(dl),
.stale :deep(.el-collapse) {
  filter: grayscale(1);
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
