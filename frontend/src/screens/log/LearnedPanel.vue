<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { LearnedTerm, PersonLog } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import MethodsLink from '@/parts/MethodsLink.vue'
import { dayOfMonth } from '@/words/dates'
import { hundredth, percent, signed, tenth } from '@/words/format'
import { PERSON_LOG as say } from '@/words/texts/log'

// What scores and ratings teach of somebody, whether it is used, how sure it is, and the arithmetic behind it.
const props = defineProps<{ log: PersonLog }>()
const emit = defineEmits<{ changed: [] }>()
const learned = computed(() => props.log.learned)
const scores = computed(() => (learned.value.scores === 1 ? say.oneScore : say.scores(learned.value.scores)))
const ratings = computed(() => (learned.value.ratings === 1 ? say.oneRating : say.ratings(learned.value.ratings)))
const FEW = 4
const pace = computed(() => {
  const { quicker, scores: count } = learned.value
  if (count === 0) return say.atPlan
  const share = percent(Math.abs(quicker))
  if (share === percent(0)) return say.asPlanned(scores.value)
  return (quicker > 0 ? say.quicker : say.slower)(share, scores.value)
})
const effort = computed(() => {
  const { effort_offset: above, ratings: count } = learned.value
  if (count === 0) return say.noRatings
  const written = signed(above, 'effort')
  return written ? say.rated(written, ratings.value) : say.asEstimated(ratings.value)
})
const inUse = computed(() => learned.value.pace.source === 'learned')
const { trouble, attempt } = useAttempt()
const use = (how: 'yes' | 'no') =>
  attempt(async () => {
    await api.useLearned(props.log.person, how)
    emit('changed')
  })
const opened = ref(false)
const tables = computed(() => [
  {
    key: 'pace',
    how: say.paceWhy(tenth(learned.value.why.pace_prior)),
    head: say.factor,
    terms: learned.value.why.pace,
  },
  {
    key: 'effort',
    how: say.effortWhy(tenth(learned.value.why.effort_prior)),
    head: say.difference,
    terms: learned.value.why.effort,
  },
])
const value = (key: string, one: LearnedTerm): string =>
  key === 'pace' ? hundredth(one.value) : signed(one.value, 'effort') || tenth(0)
const low = computed(() => percent(learned.value.low))
const high = computed(() => percent(learned.value.high))
</script>

<template>
  <section :aria-label="say.pace">
    <h2>{{ say.pace }}</h2>
    <p class="big">{{ pace }}</p>
    <template v-if="learned.scores">
      <p class="said">{{ say.sure(low, high) }}</p>
      <p v-if="!learned.counts" class="said">{{ say.notYet }}</p>
      <p v-if="learned.scores < FEW" class="said">{{ say.few }}</p>
    </template>
    <p v-if="learned.pace.source === 'set'" class="said">{{ say.set }}</p>
    <p v-else-if="learned.counts" class="line">
      <span>{{ inUse ? say.inUse : say.notInUse }}</span>
      <ElButton v-if="log.plans" size="small" @click="use(inUse ? 'no' : 'yes')">{{
        inUse ? say.putBack : say.use
      }}</ElButton>
    </p>
    <h2>{{ say.effort }}</h2>
    <p>{{ effort }}</p>
    <p><MethodsLink paragraph="learning" /></p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <button
      v-if="learned.scores || learned.ratings"
      type="button"
      class="link"
      :aria-expanded="opened"
      @click="opened = !opened"
    >
      {{ opened ? say.hideWhy : say.why }}
    </button>
    <template v-if="opened">
      <template v-for="table in tables" :key="table.key">
        <template v-if="table.terms.length">
          <p class="said">{{ table.how }}</p>
          <table>
            <thead>
              <tr>
                <th scope="col">{{ say.day }}</th>
                <th scope="col">{{ table.head }}</th>
                <th scope="col">{{ say.weight }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, index) in table.terms" :key="index">
                <td>{{ dayOfMonth(one.day) }}</td>
                <td>{{ value(table.key, one) }}</td>
                <td>{{ hundredth(one.weight) }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </template>
    </template>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.big {
  font: 600 20px/1.25 var(--head);
  margin: 4px 0;
}
table {
  border-collapse: collapse;
  margin-bottom: 8px;
}
th {
  text-align: left;
  font: 500 13px var(--head);
}
td,
th {
  padding: 1px 18px 1px 0;
}
</style>
