<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { tellDone } from '@/parts/notices'
import PasswordField from '@/parts/PasswordField.vue'
import { PASSWORD_FORM as say } from '@/words/texts/account'

const old = ref('')
const wanted = ref('')
const { trouble, attempt } = useAttempt()
async function change(): Promise<void> {
  if (!(await attempt(() => api.changePassword(old.value, wanted.value)))) return
  old.value = wanted.value = ''
  tellDone(say.changed)
  await askAgain(KEYS.devices())
}
</script>

<template>
  <section :aria-label="say.password">
    <h2>{{ say.password }}</h2>
    <form @submit.prevent="change">
      <PasswordField v-model="old" :label="say.now" />
      <PasswordField v-model="wanted" :label="say.toHold" :rule="say.rule" fresh />
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <ElButton native-type="submit" :disabled="!old || !wanted">{{ say.change }}</ElButton>
    </form>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
form {
  max-width: 340px;
}
</style>
