<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import DayField from '@/parts/DayField.vue'
import { fullDate, today } from '@/words/dates'
import { UNDER_AGE as say } from '@/words/texts/people'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const who = ref('')
const day = ref(today())
const { trouble, attempt } = useAttempt()
const changed = (work: () => Promise<unknown>) =>
  attempt(async () => {
    await work()
    emit('changed')
  })
const set = (young: boolean) =>
  changed(() => api.changePerson(props.person.id, { version: props.person.version, under_age: young }))
const agree = () => changed(() => api.guardianAgreed(props.person.id, { who: who.value, day: day.value }))
const takeBack = () => changed(() => api.guardianAgreed(props.person.id, { who: '' }))
</script>

<template>
  <section :aria-label="say.underAge">
    <h2>{{ say.underAge }}</h2>
    <ElCheckbox :model-value="Boolean(person.under_age)" @change="set(Boolean($event))">{{
      say.isUnderAge
    }}</ElCheckbox>
    <!-- Also where the mark was refused: what is kept may stay once a guardian has agreed. -->
    <template v-if="person.under_age || trouble">
      <p class="said">{{ say.what }}</p>
      <p v-if="person.guardian_on" class="line">
        <span>{{ say.noted(person.guardian, fullDate(person.guardian_on)) }}</span>
        <button v-if="person.manages" type="button" class="link" @click="takeBack">{{ say.takeBack }}</button>
      </p>
      <form v-else-if="person.manages" class="line" @submit.prevent="agree">
        <ElInput
          v-model="who"
          class="who"
          size="small"
          :aria-label="say.guardian"
          :placeholder="say.guardian"
          maxlength="120"
        />
        <DayField v-model="day" :label="say.day" :said="say.day" />
        <ElButton native-type="submit" size="small" :disabled="!who.trim()">{{ say.agreed }}</ElButton>
      </form>
      <p v-else class="said">{{ say.headNotes }}</p>
    </template>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.who {
  width: 14em;
}
</style>
