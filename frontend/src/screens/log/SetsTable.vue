<script setup lang="ts">
import { computed, ref } from 'vue'

import type { LogEntry, LogResult, ResultIn } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import { valueText } from '@/words/rows'
import { setsText, type LoggedSet } from '@/words/scores'
import { SETS_TABLE as say } from '@/words/texts/log'
import { signOf } from '@/words/units'

import { resultWith } from './logApi'
import SetsField from './SetsField.vue'

// Kilograms and repetitions set by set, of any block: who did what, typed in one field a person.
const props = defineProps<{ page: LogEntry; writes: boolean }>()
const emit = defineEmits<{ write: [result: ResultIn] }>()

const ofBlock = (block: number): LogResult[] =>
  props.page.results.filter((one) => one.block === block && one.section_pass === 0 && one.index === 0)
const noted = computed(() =>
  props.page.blocks.flatMap((_, block) => (ofBlock(block).some((one) => one.sets.length) ? [block] : [])),
)
const asked = ref<number | null>(null)
const shown = computed(() => [...new Set([...noted.value, ...(asked.value === null ? [] : [asked.value])])])
const choices = computed(() =>
  props.page.blocks.map((title, block) => ({ value: block, label: say.block(block + 1, title) })),
)
const people = computed(() =>
  props.page.people.filter((one) => one.came && (props.page.plans || one.person === props.page.own)),
)
/** What is known of somebody in a block: their sets stand with a count that is not the one in use, too. */
function knownOf(block: number, person: string): LogResult | undefined {
  const theirs = ofBlock(block).filter((one) => one.person === person)
  return theirs.find((one) => one.sets.length) ?? theirs.find((one) => one.used)
}
const take = (block: number, person: string, sets: LoggedSet[]): void =>
  emit('write', resultWith({ block, section_pass: 0, index: 0 }, person, knownOf(block, person), { sets }))
const movedText = (one: LogResult | undefined): string =>
  one?.moved_kg ? say.moved(valueText(one.moved_kg, 'kg')) : ''
/** Enter goes on to the next person. */
function goOn(event: Event): void {
  const table = (event.currentTarget as HTMLElement).closest('table')
  const fields = [...(table?.querySelectorAll('input') ?? [])]
  fields[fields.indexOf(event.target as HTMLInputElement) + 1]?.focus()
}
</script>

<template>
  <section v-if="page.blocks.length && (shown.length || writes)" :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="writes" class="line">
      <ChoiceField v-model="asked" :label="say.of" :said="say.of" :placeholder="say.choose" :options="choices" />
    </p>
    <template v-for="block in shown" :key="block">
      <h3>{{ say.block(block + 1, page.blocks[block] ?? '') }}</h3>
      <table>
        <tbody>
          <tr v-for="one in people" :key="one.person">
            <th scope="row">{{ one.name }}</th>
            <td>
              <SetsField
                v-if="writes"
                :label="say.cell(one.name, page.blocks[block] ?? '')"
                :made="setsText(knownOf(block, one.person)?.sets ?? [])"
                @typed="take(block, one.person, $event)"
                @keydown.enter="goOn"
              />
              <template v-else>{{ setsText(knownOf(block, one.person)?.sets ?? []) || '–' }}</template>
            </td>
            <td class="number">
              {{ movedText(knownOf(block, one.person)) }}
            </td>
          </tr>
        </tbody>
      </table>
    </template>
    <p v-if="writes && shown.length" class="said">{{ say.how(signOf('kg')) }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
h3 {
  font-size: 15px;
  margin: 8px 0 2px;
}
table {
  border-collapse: collapse;
}
th {
  font-weight: 400;
  text-align: left;
}
th,
td {
  padding: 3px 14px 3px 0;
}
.number {
  text-align: right;
}
</style>
