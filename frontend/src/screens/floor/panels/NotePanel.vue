<script setup lang="ts">
import { ElButton, ElInput, ElRadioButton, ElRadioGroup } from 'element-plus'
import { computed, ref } from 'vue'

import type { KeptRun } from '@/floor/kept'
import type { Given, LiveRun } from '@/floor/useRun'
import ChoiceField from '@/parts/ChoiceField.vue'
import { NOTE as say } from '@/words/texts/floor-panels'

// Something to remember, of the session or of somebody. Pain and dizziness bring the usual caution with them.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const people = computed(() => props.run.with?.people ?? [])
const emit = defineEmits<{ give: [given: Given] }>()
const KINDS = ['free', 'form', 'kit', 'pain', 'dizziness'] as const
/** Health only where the squad asks for it. A device that joined later does not know; the server does. */
const kinds = computed(() =>
  props.run.with?.asks_health === false ? KINDS.filter((one) => one !== 'pain' && one !== 'dizziness') : KINDS,
)
const kind = ref<(typeof KINDS)[number]>('free')
const person = ref('')
const text = ref('')
const kept = ref(false)
const whom = computed(() => [
  { value: '', label: say.nobody },
  ...people.value.map((one) => ({ value: one.person, label: one.name })),
])
const cautions = computed(() => kind.value === 'pain' || kind.value === 'dizziness')
function keep(): void {
  const of = person.value ? { person: person.value } : {}
  emit('give', { do: 'note', kind: kind.value, text: text.value.trim() || say.kinds[kind.value], ...of })
  text.value = ''
  kept.value = true
}
</script>

<template>
  <form @submit.prevent="keep">
    <ElRadioGroup v-model="kind" size="large" :aria-label="say.kind" @change="kept = false">
      <ElRadioButton v-for="one in kinds" :key="one" :value="one">{{ say.kinds[one] }}</ElRadioButton>
    </ElRadioGroup>
    <p v-if="cautions" class="note-bar" role="alert">{{ say.caution }}</p>
    <div class="field">
      <ChoiceField v-if="people.length" v-model="person" :label="say.person" :said="say.person" :options="whom" boxed />
    </div>
    <div class="field">
      <ElInput v-model="text" size="large" :aria-label="say.text" :placeholder="say.text" maxlength="500" />
      <ElButton size="large" native-type="submit" :disabled="disabled || (kind === 'free' && !text.trim())">{{
        say.keep
      }}</ElButton>
    </div>
    <p v-if="kept" role="status">{{ say.kept }}</p>
  </form>
</template>

<style scoped src="./panels.css"></style>
