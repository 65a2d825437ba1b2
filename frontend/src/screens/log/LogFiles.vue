<script setup lang="ts">
import { ElButton, ElUpload, type UploadFile } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import { Refusal } from '@/api/refusal'
import { textOf } from '@/composables/textOf'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import DayField from '@/parts/DayField.vue'
import { tellDone } from '@/parts/notices'
import { placeText, refusalText } from '@/words/refusal'
import { LOG_FILES as say } from '@/words/texts/log'

import { bringLog, type Brought } from './bringLog'

// The log as a file: taken out between two days or whole, and brought in again.
const first = ref('')
const last = ref('')
const { trouble, attempt } = useAttempt()
const between = () => ({
  ...(first.value ? { first: first.value } : {}),
  ...(last.value ? { last: last.value } : {}),
})
const takeOut = (kind: 'csv' | 'json') =>
  attempt(async () => saveFile(`log.${kind}`, await api.logFile(kind, squadNow.value, between())))

const wrong = ref<string[]>([])
const progress = ref<Brought | null>(null)
async function bring({ raw }: UploadFile): Promise<void> {
  wrong.value = []
  if (!raw) return
  try {
    const sessions = await bringLog(await textOf(raw), squadNow.value, (now) => (progress.value = now))
    tellDone(say.brought(sessions))
    await Promise.all([
      askAgain(KEYS.log()),
      askAgain(KEYS.lastDone()),
      askAgain(KEYS.personLog()),
      askAgain(KEYS.week()),
    ])
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    wrong.value = error.problems.length ? error.problems.map(placeText) : [refusalText(error)]
  } finally {
    progress.value = null
  }
}
const MOST_WRONG = 8
</script>

<template>
  <section :aria-label="say.heading" class="files">
    <p class="line">
      <b>{{ say.takeOut }}</b>
      <DayField v-model="first" :label="say.from" :said="say.from" />
      <DayField v-model="last" :label="say.to" :said="say.to" />
      <ElButton size="small" @click="takeOut('json')">{{ say.openForm }}</ElButton>
      <ElButton size="small" @click="takeOut('csv')">{{ say.table }}</ElButton>
    </p>
    <p class="line">
      <b>{{ say.bring }}</b>
      <ElUpload
        accept=".json,application/json"
        :auto-upload="false"
        :show-file-list="false"
        :disabled="progress !== null"
        :on-change="bring"
      >
        <ElButton size="small" :loading="progress !== null">{{ say.choose }}</ElButton>
      </ElUpload>
      <span class="said" role="status">{{ progress ? say.under(progress) : say.most }}</span>
    </p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <ul v-if="wrong.length" class="note-bar" role="alert">
      <li v-for="one in wrong.slice(0, MOST_WRONG)" :key="one">{{ one }}</li>
    </ul>
  </section>
</template>

<style scoped>
.files {
  border-bottom: 1px solid var(--rule);
  margin-bottom: 12px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  margin: 4px 0 8px;
}
</style>
