<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import type { UnknownName } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import ChoiceField from '@/parts/ChoiceField.vue'
import { UNKNOWN_NAMES as say } from '@/words/texts/movements'

// Names that sessions use and nobody knows: each is said to be a movement, or defined.
defineProps<{ names: readonly UnknownName[] }>()
const emit = defineEmits<{ settled: []; define: [name: string]; close: [] }>()
const { all, nameOf } = useMovements()
const choosing = ref('')
const told = ref('')
const { trouble, attempt } = useAttempt()
function often(one: UnknownName): string {
  const sessions = one.use.sessions.length
  const there =
    sessions > 1 ? say.often(one.times, sessions) : one.times > 1 ? say.seldom(one.times) : sessions ? say.just : ''
  return [there, one.use.planned ? say.onPlan(one.use.planned) : ''].filter(Boolean).join(' · ')
}
async function settle(name: string, key: string | null | undefined): Promise<void> {
  if (!key) return
  await attempt(async () => {
    const done = await api.settleMovement(name, key, squadNow.value)
    told.value = [say.settled(name, done.sessions, done.planned), done.left ? say.left(done.left) : '']
      .filter(Boolean)
      .join(' ')
    choosing.value = ''
    emit('settled')
  })
}
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p class="said">{{ names.length ? say.what : say.none }}</p>
    <p v-if="told" role="status">{{ told }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <ul class="lines">
      <li v-for="one in names" :key="one.key">
        <b class="grow">{{ one.key }}</b>
        <span class="said">{{ often(one) }}</span>
        <ElButton v-for="near in one.nearest" :key="near" size="small" @click="settle(one.key, near)"
          >{{ say.isOne(nameOf(near)) }}<span class="visually-hidden"> ({{ one.key }})</span></ElButton
        >
        <ChoiceField
          v-if="choosing === one.key"
          :label="say.which(one.key)"
          :options="all.map((each) => ({ value: each.key, label: each.name ?? each.key }))"
          opened
          @update:model-value="settle(one.key, $event)"
        />
        <button v-else type="button" class="link" @click="choosing = one.key">
          {{ say.another }}<span class="visually-hidden"> {{ say.which(one.key) }}</span>
        </button>
        <button type="button" class="link" @click="emit('define', one.key)">
          {{ say.define }}<span class="visually-hidden">: {{ say.defineThis(one.key) }}</span>
        </button>
      </li>
    </ul>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.lines .el-button + .el-button {
  margin-left: 0;
}
</style>
