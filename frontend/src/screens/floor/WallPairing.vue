<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient } from '@/api/query'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { clockTime } from '@/words/dates'
import { TODAY as say } from '@/words/texts/floor'

// A screen on the wall shows six signs; typed here, it shows the squad's runs until midnight.
const screens = useQuery(
  { queryKey: computed(() => KEYS.screens(squadNow.value)), queryFn: () => api.screens(squadNow.value) },
  queryClient,
)
const code = ref('')
const { trouble, attempt } = useAttempt()
async function show(): Promise<void> {
  await attempt(async () => {
    await api.pairWall(code.value, squadNow.value)
    code.value = ''
    await askAgain(KEYS.screens(squadNow.value))
  })
}
async function end(id: number): Promise<void> {
  await attempt(async () => {
    await api.endScreen(id)
    await askAgain(KEYS.screens(squadNow.value))
  })
}
</script>

<template>
  <form class="wall" @submit.prevent="show">
    <h2>{{ say.walls }}</h2>
    <p class="quiet">{{ say.wallHow }}</p>
    <div class="row">
      <ElInput
        v-model="code"
        size="large"
        :aria-label="say.code"
        :placeholder="say.code"
        maxlength="8"
        autocomplete="off"
      />
      <ElButton size="large" native-type="submit" :disabled="code.trim().length < 6">{{ say.show }}</ElButton>
    </div>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-for="one in screens.data.value ?? []" :key="one.id">
      {{ say.shown(clockTime(one.until)) }}
      <button type="button" class="link" @click="end(one.id)">{{ say.end }}</button>
    </p>
  </form>
</template>

<style scoped>
h2 {
  font-size: 19px;
  margin-top: 18px;
}
.quiet {
  color: var(--mute);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.row .el-input {
  flex: 1;
  min-width: 130px;
}
</style>
