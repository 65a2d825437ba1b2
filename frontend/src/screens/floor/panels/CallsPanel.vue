<script setup lang="ts">
import { ElCheckbox, ElCheckboxGroup, ElRadio, ElRadioGroup } from 'element-plus'
import { computed } from 'vue'

import { CALL_KINDS, type CallKind, type CallsWanted } from '@/floor/calls'
import { SOUNDS as say } from '@/words/texts/floor-panels'

// What is called, and how: each call can be switched off.
const wanted = defineModel<CallsWanted>('wanted', { required: true })
const outdoors = defineModel<boolean>('outdoors', { required: true })
const on = computed({
  get: () => CALL_KINDS.filter((kind) => !wanted.value.off.includes(kind)),
  set: (kinds: CallKind[]) => {
    wanted.value = { ...wanted.value, off: CALL_KINDS.filter((kind) => !kinds.includes(kind)) }
  },
})
const shakes = 'vibrate' in navigator
const WAYS = ['usual', 'music', 'silent'] as const
</script>

<template>
  <section>
    <div class="field">
      <ElCheckbox v-model="wanted.tones" size="large">{{ say.tones }}</ElCheckbox>
      <ElCheckbox v-model="wanted.voice" size="large">{{ say.voice }}</ElCheckbox>
      <ElCheckbox v-if="shakes" v-model="wanted.vibration" size="large">{{ say.vibration }}</ElCheckbox>
      <ElCheckbox v-model="outdoors" size="large">{{ say.outdoors }}</ElCheckbox>
    </div>
    <h2>{{ say.way }}</h2>
    <ElRadioGroup v-model="wanted.way" :aria-label="say.way" class="spaced">
      <ElRadio v-for="way in WAYS" :key="way" :value="way" size="large">{{ say.ways[way] }}</ElRadio>
    </ElRadioGroup>
    <h2>{{ say.each }}</h2>
    <ElCheckboxGroup v-model="on" :aria-label="say.each" class="each">
      <ElCheckbox v-for="kind in CALL_KINDS" :key="kind" :value="kind" size="large">{{ say.kinds[kind] }}</ElCheckbox>
    </ElCheckboxGroup>
  </section>
</template>

<style scoped src="./panels.css"></style>
<style scoped>
.each {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}
</style>
