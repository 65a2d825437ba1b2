<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import PasswordField from '@/parts/PasswordField.vue'
import { SECOND_FACTOR as say } from '@/words/texts/account'

// For head coaches who want it: signing in with a code of an app, beside the password.
const { data: factor } = useQuery({ queryKey: KEYS.secondFactor(), queryFn: () => api.secondFactor() }, queryClient)
const password = ref('')
const code = ref('')
const made = ref<{ secret: string; picture: string } | null>(null)
const spare = ref<string[]>([])
const { trouble, attempt } = useAttempt()
const setUp = () =>
  attempt(async () => {
    made.value = await api.setUpSecondFactor(password.value)
    password.value = ''
  })
const begin = () =>
  attempt(async () => {
    spare.value = (await api.beginSecondFactor(code.value)).spare
    made.value = null
    code.value = ''
    await askAgain(KEYS.secondFactor())
  })
const end = () =>
  attempt(async () => {
    await api.endSecondFactor(password.value)
    password.value = ''
    spare.value = []
    await askAgain(KEYS.secondFactor())
  })
/** The picture as an image: nothing in it is run. */
const image = (picture: string): string => `data:image/svg+xml,${encodeURIComponent(picture)}`
</script>

<template>
  <section v-if="factor && (factor.may || factor.on)" :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="!made" class="said">{{ factor.on ? say.isOn(factor.spare) : say.what }}</p>
    <template v-if="spare.length">
      <p>{{ say.keep }}</p>
      <ul class="codes">
        <li v-for="one in spare" :key="one">
          <code>{{ one }}</code>
        </li>
      </ul>
    </template>
    <form v-if="made" @submit.prevent="begin">
      <p>{{ say.scan }}</p>
      <img :src="image(made.picture)" :alt="say.picture" width="180" height="180" />
      <p class="said">{{ say.orType }}</p>
      <p>
        <code class="secret">{{ made.secret.match(/.{1,4}/g)?.join(' ') }}</code>
      </p>
      <label for="begin-code">{{ say.code }}</label>
      <p class="line">
        <ElInput id="begin-code" v-model="code" autocomplete="one-time-code" maxlength="10" class="field" />
        <ElButton native-type="submit" type="primary" :disabled="!code">{{ say.begin }}</ElButton>
      </p>
    </form>
    <form v-else @submit.prevent="factor.on ? end() : setUp()">
      <PasswordField v-model="password" :label="say.password" />
      <p>
        <ElButton native-type="submit" :disabled="!password">{{ factor.on ? say.end : say.setUp }}</ElButton>
      </p>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.field {
  width: 10em;
}
form {
  max-width: 340px;
}
.secret {
  font-size: 15px;
  overflow-wrap: anywhere;
}
.codes {
  columns: 2;
  list-style: none;
  padding: 0;
}
label {
  font-weight: 600;
}
</style>
