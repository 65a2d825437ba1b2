<script setup lang="ts">
import { ElButton, ElSkeleton } from 'element-plus'
import { ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import { account } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import PasswordField from '@/parts/PasswordField.vue'
import { moment } from '@/words/dates'
import { JOIN_SCREEN as both, RESET_SCREEN as say } from '@/words/texts/join'

import { useToken } from './useToken'

// A new password for the account that a link is for.
const { token, used } = useToken('reset')
const seen = shallowRef<Awaited<ReturnType<typeof api.seeReset>> | null>(null)
const { trouble, attempt } = useAttempt()
const refused = useAttempt()
const password = ref('')
const done = ref('')
const busy = ref(false)

async function look(): Promise<void> {
  if (!token.value) return
  seen.value = null
  done.value = ''
  await attempt(async () => void (seen.value = await api.seeReset(token.value)))
}
watch(token, look, { immediate: true })

async function set(): Promise<void> {
  busy.value = true
  await refused.attempt(async () => {
    done.value = (await api.useReset(token.value, password.value)).account
    used()
    // Whoever was signed in here with that account is so no more.
    account.value = null
    queryClient.clear()
  })
  busy.value = false
}
</script>

<template>
  <main id="main" class="door">
    <div class="form">
      <h1>{{ say.newPassword }}</h1>
      <p v-if="done" role="status">{{ say.done(done) }}</p>
      <p v-else-if="!token" class="note-bar" role="alert">{{ say.noTokenHere }}</p>
      <p v-else-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <div v-else-if="!seen" role="status">
        <span class="visually-hidden">{{ say.readingTheLink }}</span>
        <ElSkeleton :rows="3" animated :throttle="200" />
      </div>
      <form v-else @submit.prevent="set">
        <p class="lead">{{ say.forAccount(seen.account) }} {{ say.signedOut }}</p>
        <PasswordField v-model="password" :label="say.thatIsToHold" :rule="both.tenCharacters" fresh large />
        <p v-if="refused.trouble.value" class="note-bar" role="alert">{{ refused.trouble.value }}</p>
        <ElButton type="primary" native-type="submit" size="large" :loading="busy">{{ say.set }}</ElButton>
        <p class="quiet">{{ both.goodUntil(moment(seen.expires_at)) }}</p>
      </form>
      <p class="foot">
        <RouterLink to="/sign-in">{{ both.toSignIn }}</RouterLink>
      </p>
    </div>
  </main>
</template>

<style scoped src="./door.css"></style>
