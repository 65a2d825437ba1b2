<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { ElRadio, ElRadioGroup } from 'element-plus'
import { onScopeDispose } from 'vue'

import { loudnessOf, takeWay } from '@/floor/sound'
import { Tones } from '@/floor/tones'
import { useCallsWanted } from '@/floor/useCalls'
import { spokenAloud } from '@/floor/voice'
import { SOUNDS as say } from '@/words/texts/floor-panels'

// Once on a device: what the calls sound like there, and how they go with what else sounds.
const wanted = useCallsWanted()
const heard = useLocalStorage('floor-heard', false)
const WAYS = ['usual', 'music', 'silent'] as const
let context: AudioContext | null = null

async function hear(): Promise<void> {
  await context?.close()
  takeWay(wanted.value.way)
  context = new AudioContext()
  await context.resume()
  new Tones(context, () => loudnessOf(wanted.value.way)).setAnew([
    { shape: 'count-in', inS: 0.1 },
    { shape: 'change', inS: 3.1 },
  ])
  spokenAloud().say(say.tried)
}
onScopeDispose(() => void context?.close())
</script>

<template>
  <section v-if="!heard">
    <h2>{{ say.once }}</h2>
    <ElRadioGroup v-model="wanted.way" :aria-label="say.way" class="spaced">
      <ElRadio v-for="way in WAYS" :key="way" :value="way" size="large">{{ say.ways[way] }}</ElRadio>
    </ElRadioGroup>
    <div class="keys">
      <button type="button" class="floor-key" @click="hear">{{ say.hear }}</button>
      <button type="button" class="floor-key" @click="heard = true">{{ say.heard }}</button>
    </div>
  </section>
</template>

<style scoped src="./floor.css"></style>
<style scoped src="./panels/panels.css"></style>
<style scoped>
section {
  margin-top: 14px;
}
h2 {
  font-size: 18px;
  border-bottom: 1px solid var(--rule);
}
.keys {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
}
.floor-key {
  font-size: 17px;
}
</style>
