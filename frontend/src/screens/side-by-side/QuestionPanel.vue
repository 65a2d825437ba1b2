<script lang="ts">
// What was asked last: whoever comes back to change the question finds it as it was.
const asked = { text: '', minutes: 12, matter: 'conditioning' }
</script>

<script setup lang="ts">
import { ElButton, ElInput, ElInputNumber, ElRadio, ElRadioGroup } from 'element-plus'
import { computed, ref } from 'vue'

import { QUESTION_PANEL as say } from '@/words/texts/side-by-side'
import { useCompareTables, type Source } from './useComparison'

// What a coach wants to know, in three choices: these movements, so many minutes, and what matters.
const emit = defineEmits<{ start: [source: Source] }>()
const { tables } = useCompareTables()
const text = ref(asked.text)
const minutes = ref<number | undefined>(asked.minutes)
const matter = ref(asked.matter)
const ready = computed(() => text.value.trim() !== '' && (minutes.value ?? 0) > 0)
function ask(): void {
  if (!ready.value) return
  asked.text = text.value.trim()
  asked.minutes = minutes.value ?? asked.minutes
  asked.matter = matter.value
  emit('start', { ...asked })
}
</script>

<template>
  <section class="question" :aria-label="say.whichFormat">
    <h2>{{ say.whichFormatAsked }}</h2>
    <form @submit.prevent="ask">
      <label for="question-text">{{ say.theseMovementsAsYouWould }}</label>
      <ElInput
        id="question-text"
        v-model="text"
        type="textarea"
        :rows="5"
        maxlength="1500"
        placeholder="10 push-ups&#10;goblet squat 16 kg&#10;bent row, 8 each side"
        @keydown.ctrl.enter.prevent="ask"
      />
      <p class="minutes">
        <label for="question-minutes">{{ say.in }}</label>
        <ElInputNumber
          id="question-minutes"
          v-model="minutes"
          :min="1"
          :max="180"
          :precision="0"
          controls-position="right"
          :aria-label="say.minutes"
        />
        <span>{{ say.minutesFor }}</span>
      </p>
      <ElRadioGroup v-model="matter" :aria-label="say.whatMatters">
        <ElRadio v-for="one in tables?.matters ?? []" :key="one.key" :value="one.key">{{ one.sentence }}</ElRadio>
      </ElRadioGroup>
      <p>
        <ElButton type="primary" native-type="submit" :disabled="!ready">{{ say.ask }}</ElButton>
      </p>
    </form>
  </section>
</template>

<style scoped>
h2 {
  font-size: 19px;
  margin-bottom: 8px;
}
form {
  max-width: 560px;
}
.minutes {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 12px 0 4px;
}
.el-input-number {
  width: 120px;
}
.el-radio-group {
  display: grid;
  justify-items: start;
}
</style>
