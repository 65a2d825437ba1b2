<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput, ElSkeleton } from 'element-plus'
import { ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import { account, chooseSquad, whoAmI } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import PasswordField from '@/parts/PasswordField.vue'
import { moment } from '@/words/dates'
import { JOIN_SCREEN as say } from '@/words/texts/join'

import { useToken } from './useToken'

// What an invitation is for: opening it uses nothing up, accepting does.
const { token, used } = useToken('join')
const router = useRouter()
const seen = shallowRef<Awaited<ReturnType<typeof api.seeInvitation>> | null>(null)
const { trouble, attempt } = useAttempt()
const refused = useAttempt()
const name = ref('')
const password = ref('')
const shared = ref(false)
const busy = ref(false)

async function look(): Promise<void> {
  if (!token.value) return
  seen.value = null
  await attempt(async () => void (seen.value = await api.seeInvitation(token.value)))
}
watch(token, look, { immediate: true })

async function accept(): Promise<void> {
  busy.value = true
  const own = { name: name.value, password: password.value, shared: shared.value }
  await refused.attempt(async () => {
    const { squad } = await api.acceptInvitation({ token: token.value, ...(seen.value?.as_account ? {} : own) })
    used()
    queryClient.clear()
    await whoAmI()
    chooseSquad(squad)
    await router.push('/')
  })
  busy.value = false
}
</script>

<template>
  <main id="main" class="door">
    <div class="form">
      <h1>{{ seen ? say.join(seen.squad) : say.anInvitation }}</h1>
      <p v-if="!token" class="note-bar" role="alert">{{ say.noToken }}</p>
      <p v-else-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <div v-else-if="!seen" role="status">
        <span class="visually-hidden">{{ say.reading }}</span>
        <ElSkeleton :rows="4" animated :throttle="200" />
      </div>
      <form v-else @submit.prevent="accept">
        <p class="lead">
          {{ seen.by ? say.invitesYou(seen.by, seen.squad, seen.role) : say.youAreInvited(seen.squad, seen.role) }}
          <template v-if="seen.person">{{ say.youAreInTheList(seen.person) }}</template>
        </p>
        <template v-if="seen.as_account">
          <ElButton type="primary" native-type="submit" size="large" :loading="busy">
            {{ say.joinAs(seen.as_account) }}
          </ElButton>
          <p class="quiet">{{ say.notYou }}</p>
        </template>
        <template v-else>
          <label for="name">{{ say.nameToSignInWith }}</label>
          <ElInput id="name" v-model="name" autocomplete="username" size="large" maxlength="150" />
          <PasswordField v-model="password" :label="say.password" :rule="say.tenCharacters" fresh large />
          <ElCheckbox v-model="shared">{{ say.shared }}</ElCheckbox>
          <ElButton type="primary" native-type="submit" size="large" :loading="busy">{{ say.makeAnAccount }}</ElButton>
          <RouterLink :to="{ name: 'sign-in', query: { next: '/join' } }">{{ say.haveAnAccount }}</RouterLink>
        </template>
        <p v-if="refused.trouble.value" class="note-bar" role="alert">{{ refused.trouble.value }}</p>
        <p class="quiet">{{ say.goodUntil(moment(seen.expires_at)) }}</p>
      </form>
      <p class="foot">
        <RouterLink to="/privacy">{{ say.whatIsKept }}</RouterLink>
        <RouterLink v-if="!account" to="/sign-in">{{ say.toSignIn }}</RouterLink>
        <RouterLink v-else to="/">{{ say.toYourSquad }}</RouterLink>
      </p>
    </div>
  </main>
</template>

<style scoped src="./door.css"></style>
