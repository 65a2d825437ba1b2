<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'

import type { KeptRun } from '@/floor/kept'
import type { FloorPerson } from '@/api/types'
import { optionsTaken, wasHurt } from '@/floor/present'
import type { Given, LiveRun } from '@/floor/useRun'
import ChoiceField from '@/parts/ChoiceField.vue'
import { PRESENT as say } from '@/words/texts/floor-panels'
import { REPORT_KINDS } from '@/words/texts/reports'

// Who came late, who left, who does a step otherwise: taken down while time goes on.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const emit = defineEmits<{ give: [given: Given] }>()
const people = computed(() => props.run.with?.people ?? [])
const here = computed(() => new Set(props.live.here.value.map((one) => one.person)))

const who = ref('')
const what = ref('')
const whoOf = computed(() => people.value.map((one) => ({ value: one.person, label: one.name })))
const options = computed(() => props.run.with?.options ?? [])
const whatOf = computed(() =>
  options.value.flatMap((one) =>
    one.labels.map((label) => ({ value: `${one.step}\n${label}`, label: say.option(one.name, label) })),
  ),
)
function keep(): void {
  const [step, label] = what.value.split('\n')
  if (who.value && step && label) emit('give', { do: 'option', person: who.value, step, label })
  what.value = ''
}
/** Open health reports, and who was hurt in this run. Sheets of an earlier release have none. */
function reportsOf(one: FloorPerson): readonly string[] {
  const kinds = new Set(one.reports ?? [])
  if (wasHurt(props.live.said.value, one.person)) kinds.add('hurt')
  return [...kinds]
}
const otherwise = (person: string): string => [...optionsTaken(props.live.said.value, person).values()].join(', ')
</script>

<template>
  <section>
    <p v-if="people.length === 0">{{ say.nobody }}</p>
    <form v-if="people.length && whatOf.length" class="field" @submit.prevent="keep">
      <ChoiceField v-model="who" :label="say.who" :options="whoOf" :placeholder="say.who" boxed />
      <ChoiceField v-model="what" :label="say.what" :options="whatOf" :placeholder="say.what" boxed />
      <ElButton size="large" native-type="submit" :disabled="disabled || !who || !what">{{ say.keep }}</ElButton>
    </form>
    <ul>
      <li v-for="one in people" :key="one.person">
        <span
          >{{ one.name
          }}<small
            >{{ here.has(one.person) ? say.here : say.away
            }}<template v-if="otherwise(one.person)"> · {{ otherwise(one.person) }}</template
            ><template v-for="kind in reportsOf(one)" :key="kind"> · {{ REPORT_KINDS[kind] }}</template></small
          ></span
        >
        <button
          type="button"
          class="floor-key"
          :disabled="disabled"
          :aria-label="here.has(one.person) ? say.left(one.name) : say.came(one.name)"
          @click="
            emit(
              'give',
              here.has(one.person)
                ? { do: 'away', person: one.person, why: 'left' }
                : { do: 'here', person: one.person, why: 'late' },
            )
          "
        >
          {{ here.has(one.person) ? say.hasGone : say.hasCome }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="../floor.css"></style>
<style scoped src="./panels.css"></style>
