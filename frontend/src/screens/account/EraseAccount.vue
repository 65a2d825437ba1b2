<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { account, beginAnew } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { ERASE_ACCOUNT as say } from '@/words/texts/account'

const password = ref('')
const { trouble, attempt } = useAttempt()
async function erase(): Promise<void> {
  const name = account.value?.name ?? ''
  if (!(await attempt(() => api.eraseAccount(password.value)))) return
  const { forgetAccount } = await import('@/floor/kept')
  await forgetAccount(name, true)
  beginAnew()
}
</script>

<template>
  <section :aria-label="say.erase">
    <h2>{{ say.erase }}</h2>
    <p class="said">{{ say.what }}</p>
    <form class="line" @submit.prevent="erase">
      <ElInput
        v-model="password"
        type="password"
        :aria-label="say.passwordNow"
        :placeholder="say.passwordNow"
        autocomplete="current-password"
        maxlength="500"
        class="field"
      />
      <ElButton native-type="submit" type="danger" plain :disabled="!password">{{ say.eraseAll }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.field {
  width: 14em;
}
</style>
