<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import DayField from '@/parts/DayField.vue'
import MovementPicker from '@/parts/MovementPicker.vue'
import MeasureField from '@/parts/MeasureField.vue'
import NumberField from '@/parts/NumberField.vue'
import { fullDate, today } from '@/words/dates'
import { tenth } from '@/words/format'
import { MAXIMA_PANEL as say } from '@/words/texts/people'
import { inUnits, signOf } from '@/words/units'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const { nameOf } = useMovements()
const movement = ref('')
const picking = ref(false)
const kg = ref<number | null>(null)
const reps = ref<number | null>(5)
const day = ref(today())
const { trouble, attempt } = useAttempt()
async function add(): Promise<void> {
  const set = { movement: movement.value, kg: kg.value ?? 0, reps: reps.value ?? 0, day: day.value }
  if (!(await attempt(() => api.addMaximum(props.person.id, set)))) return
  kg.value = null
  emit('changed')
}
const drop = (id: number) =>
  attempt(async () => {
    await api.dropMaximum(id)
    emit('changed')
  })
/** A tenth of a unit: no maximum is known closer. */
const mass = (of: number): string => `${tenth(inUnits(of, 'kg'))} ${signOf('kg')}`
function pick(key: string): void {
  movement.value = key
  picking.value = false
}
</script>

<template>
  <section :aria-label="say.maxima">
    <h2>{{ say.maxima }}</h2>
    <p class="said">{{ person.under_age ? say.young : say.how }}</p>
    <p v-if="!person.maxima.length" class="said">{{ say.none }}</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">{{ say.movement }}</th>
          <th scope="col">{{ say.set }}</th>
          <th scope="col">{{ say.epley }}</th>
          <th scope="col">{{ say.brzycki }}</th>
          <th scope="col">{{ say.day }}</th>
          <th v-if="person.plans" scope="col">
            <span class="visually-hidden">{{ say.remove }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in person.maxima" :key="one.id">
          <td>{{ nameOf(one.movement) }}</td>
          <td>{{ one.reps === 1 ? mass(one.kg) : say.times(mass(one.kg), one.reps) }}</td>
          <td v-if="one.reps === 1" colspan="2" class="said">{{ say.measured }}</td>
          <template v-else>
            <td>{{ mass(one.epley) }}</td>
            <td>{{ mass(one.brzycki) }}</td>
          </template>
          <td class="said">{{ one.day ? fullDate(one.day) : say.dayUnknown }}</td>
          <td v-if="person.plans">
            <button type="button" class="link" @click="drop(one.id)">
              {{ say.remove }}<span class="visually-hidden">: {{ nameOf(one.movement) }}</span>
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-if="person.plans">
      <MovementPicker v-if="picking" :label="say.movement" @pick="pick" @close="picking = false" />
      <form class="line" @submit.prevent="add">
        <button type="button" class="link" :aria-expanded="picking" @click="picking = !picking">
          {{ movement ? nameOf(movement) : say.pick }}
        </button>
        <MeasureField v-model="kg" of="kg" :label="say.weight" :max="1000" :step="2.5" />
        <NumberField v-model="reps" :label="say.reps" said="×" :min="1" :max="12" />
        <DayField v-model="day" :label="say.day" :said="say.on" />
        <ElButton native-type="submit" size="small" :disabled="!movement || !kg">{{ say.add }}</ElButton>
      </form>
    </template>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
table {
  border-collapse: collapse;
  margin-bottom: 6px;
  min-width: min(100%, 640px);
}
th {
  text-align: left;
  font: 500 13px var(--head);
  border-bottom: 1px solid var(--ink);
}
td {
  border-bottom: 1px solid var(--rule);
  padding: 2px 14px 2px 0;
}
</style>
