<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { anew } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import { SQUAD_FILE as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number }>()
const health = ref(false)
const busy = ref(false)
const { trouble, attempt } = useAttempt()
async function take(): Promise<void> {
  busy.value = true
  await attempt(async () => saveFile('squad.json', await api.squadFile(props.squad, health.value)))
  busy.value = false
  await anew(KEYS.history(props.squad))
}
</script>

<template>
  <section :aria-label="say.file">
    <h2>{{ say.file }}</h2>
    <p class="said">{{ say.what }}</p>
    <form class="line" @submit.prevent="take">
      <ElCheckbox v-model="health">{{ say.withHealth }}</ElCheckbox>
      <ElButton native-type="submit" size="small" :loading="busy">{{ say.take }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
