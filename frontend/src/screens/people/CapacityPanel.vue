<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import DayField from '@/parts/DayField.vue'
import MeasureField from '@/parts/MeasureField.vue'
import NumberField from '@/parts/NumberField.vue'
import { fullDate, today } from '@/words/dates'
import { measured, tenth } from '@/words/format'
import { CAPACITY_PANEL as say } from '@/words/texts/people'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const { tables } = useTables()
const tests = computed(() => tables.value.field_tests)
const choices = computed(() => tests.value.map((one) => ({ value: one.key, label: one.label })))
const test = ref('twelve-minute-run')
const chosen = computed(() => tests.value.find((one) => one.key === test.value))
const known = computed(() => tests.value.find((one) => one.key === props.person.capacity?.test))
const result = ref<number | null>(null)
const day = ref(today())
const resultText = (of: number | null, unit: string): string =>
  unit === 'm' && of !== null ? measured(of, 'm') : `${of ?? '–'} ${unit}`
const { trouble, attempt } = useAttempt()
const put = (value: number | null) =>
  attempt(async () => {
    await api.setCapacity(props.person.id, { test: test.value, result: value, day: day.value })
    result.value = null
    emit('changed')
  })
</script>

<template>
  <section :aria-label="say.capacity">
    <h2>{{ say.capacity }}</h2>
    <p v-if="person.capacity">
      <b class="big">{{ say.isMet(tenth(person.capacity.met)) }}</b>
      <span v-if="known" class="said">
        {{ say.from(known.label, resultText(person.capacity.result, known.unit)) }}
        <template v-if="person.capacity.day">{{ say.on(fullDate(person.capacity.day)) }}</template>
      </span>
    </p>
    <p v-if="person.capacity && known" class="said">{{ known.source }}</p>
    <p v-else-if="!person.capacity" class="said">{{ say.notKnown }}</p>
    <form v-if="person.plans" class="line" @submit.prevent="result !== null && put(result)">
      <ChoiceField v-model="test" :label="say.test" :options="choices" />
      <MeasureField
        v-if="chosen && chosen.unit === 'm'"
        v-model="result"
        of="m"
        :label="chosen.result"
        :said="chosen.result"
        :min="chosen.low"
        :max="chosen.high"
      />
      <NumberField
        v-else-if="chosen"
        v-model="result"
        :label="chosen.result"
        :said="chosen.result"
        :unit="chosen.unit"
        :min="chosen.low"
        :max="chosen.high"
      />
      <DayField v-model="day" :label="say.day" />
      <ElButton native-type="submit" size="small" :disabled="result === null">{{ say.keep }}</ElButton>
      <button v-if="person.capacity" type="button" class="link" @click="put(null)">{{ say.forget }}</button>
    </form>
    <p v-if="person.plans && chosen" class="said">{{ chosen.source }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.big {
  font: 600 24px/1.2 var(--head);
  margin-right: 10px;
}
p {
  margin: 2px 0;
}
</style>
