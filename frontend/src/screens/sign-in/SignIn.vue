<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { nextTick, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { Refusal } from '@/api/client'
import { signIn, signingOut } from '@/composables/useAccount'
import PasswordField from '@/parts/PasswordField.vue'
import { SIGN_IN as say } from '@/words/texts/sign-in'

const name = ref('')
const password = ref('')
const trouble = ref('')
const busy = ref(false)
const shared = ref(false)
/** Of the second factor, once the server asks for it. */
const code = ref('')
const asked = ref(false)
const field = useTemplateRef<InstanceType<typeof ElInput>>('field')
const route = useRoute()
const router = useRouter()

async function enter(): Promise<void> {
  busy.value = true
  trouble.value = ''
  try {
    await signIn(name.value.trim(), password.value, shared.value, code.value)
    const next = route.query.next
    await router.push(typeof next === 'string' && next.startsWith('/') && !next.startsWith('//') ? next : '/')
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.message
    if (error.kind.endsWith('second-factor')) {
      asked.value = true
      code.value = ''
      await nextTick()
      field.value?.focus()
    }
  } finally {
    busy.value = false
  }
}

// A made-up stave: what the product draws, before there is anything to draw.
const ink = [
  [0, 0, 26, 1],
  [1, 30, 26, 1],
  [2, 60, 26, 2],
  [3, 90, 26, 2],
  [0, 150, 40, 3],
  [3, 196, 40, 3],
  [4, 242, 40, 3],
  [5, 300, 18, 4],
  [1, 322, 18, 4],
  [5, 344, 18, 4],
  [1, 366, 18, 4],
  [2, 410, 60, 3],
  [0, 474, 46, 3],
  [4, 540, 70, 0],
] as const
</script>

<template>
  <main id="main" class="page">
    <svg class="stave" viewBox="0 0 620 112" aria-hidden="true" preserveAspectRatio="none">
      <rect
        v-for="row in 6"
        :key="row"
        x="0"
        :y="(row - 1) * 18"
        width="620"
        height="18"
        :fill="row % 2 ? '#f8f5ec' : '#fffdf8'"
      />
      <rect
        v-for="([row, x, width, level], index) in ink"
        :key="index"
        :x="x"
        :y="row * 18 + 2"
        :width="width"
        height="14"
        :fill="`var(--e${level})`"
      />
      <line x1="0" x2="620" y1="109" y2="109" stroke="var(--ink)" />
    </svg>
    <p v-if="signingOut" class="form" role="status">{{ say.signingOut }}</p>
    <form v-else class="form" @submit.prevent="enter">
      <h1>{{ say.fineTally }}</h1>
      <p class="lead">{{ say.whatASessionComesTo }}</p>
      <label for="name">{{ say.name }}</label>
      <ElInput id="name" v-model="name" autocomplete="username" autofocus size="large" />
      <PasswordField v-model="password" :label="say.password" large />
      <template v-if="asked">
        <label for="code">{{ say.code }}</label>
        <ElInput
          id="code"
          ref="field"
          v-model="code"
          autocomplete="one-time-code"
          maxlength="40"
          size="large"
          aria-describedby="code-rule"
        />
        <p id="code-rule" class="rule">{{ say.codeRule }}</p>
      </template>
      <ElCheckbox v-model="shared">{{ say.shared }}</ElCheckbox>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <ElButton type="primary" native-type="submit" size="large" :loading="busy">{{ say.signIn }}</ElButton>
      <p class="foot">
        {{ say.noPassword }} <RouterLink to="/privacy">{{ say.whatIsKept }}</RouterLink>
      </p>
    </form>
  </main>
</template>

<style scoped>
.page {
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px minmax(0, 1fr);
  align-content: center;
  row-gap: 0;
}
.stave {
  grid-column: 1 / -1;
  width: 100%;
  height: 112px;
  border-block: 1px solid var(--rule);
  background: var(--sheet);
}
.form {
  grid-column: 2;
  display: grid;
  gap: 6px;
  padding: 28px 0 60px;
}
h1 {
  font-size: 40px;
  line-height: 1;
}
.lead {
  margin: 2px 0 14px;
  color: var(--mute);
}
label {
  font-weight: 600;
  margin-top: 8px;
}
.form :deep(.el-button) {
  margin-top: 16px;
}
.rule {
  margin: 0;
  color: var(--mute);
}
.foot {
  margin: 14px 0 0;
  color: var(--mute);
}
@media (max-width: 420px) {
  .page {
    grid-template-columns: 20px minmax(0, 1fr) 20px;
  }
}
</style>
