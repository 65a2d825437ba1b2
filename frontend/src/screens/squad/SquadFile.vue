<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import PasswordField from '@/parts/PasswordField.vue'
import { SQUAD_FILE as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number }>()
const health = ref(false)
const password = ref('')
const busy = ref(false)
const { trouble, attempt } = useAttempt()
async function take(): Promise<void> {
  busy.value = true
  await attempt(async () => saveFile('squad.json', await api.squadFile(props.squad, health.value, password.value)))
  busy.value = false
  await askAgain(KEYS.history(props.squad))
}
</script>

<template>
  <section :aria-label="say.file">
    <h2>{{ say.file }}</h2>
    <p class="said">{{ say.what }}</p>
    <form class="line" @submit.prevent="take">
      <ElCheckbox v-model="health">{{ say.withHealth }}</ElCheckbox>
      <span v-if="health" class="password"><PasswordField v-model="password" :label="say.password" /></span>
      <ElButton native-type="submit" size="small" :loading="busy" :disabled="health && !password">{{
        say.take
      }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
