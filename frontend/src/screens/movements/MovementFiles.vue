<script setup lang="ts">
import { ElButton, ElInput, ElUpload, type UploadFile } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { MovementTaken } from '@/api/types'
import { textOf } from '@/composables/textOf'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import { MOVEMENT_FILES as say } from '@/words/texts/movements'

import MovementChanges from './MovementChanges.vue'

// Movements out as a file and in again; what a file changes is seen before it is taken, and all of it or nothing is.
const emit = defineEmits<{ taken: []; close: [] }>()
const { refresh, version } = useMovements()
const text = ref('')
const shown = ref<MovementTaken[] | null>(null)
const told = ref('')
let seen = ''
const { trouble, attempt } = useAttempt()
/** A list begins with its bracket; anything else is a table. */
const kind = computed<'json' | 'csv'>(() => (text.value.trimStart().startsWith('[') ? 'json' : 'csv'))
const fresh = computed(() => (shown.value ?? []).filter((one) => one.fate !== 'same'))
async function read({ raw }: UploadFile): Promise<void> {
  if (!raw) return
  text.value = await textOf(raw)
  await look()
}
async function look(): Promise<void> {
  shown.value = null
  told.value = ''
  seen = version.value
  await attempt(async () => void (shown.value = await api.previewMovements(kind.value, text.value, squadNow.value)))
}
async function take(): Promise<void> {
  const how = { replace: true, version: seen }
  const done = await attempt(() => api.importMovements(kind.value, text.value, squadNow.value, how))
  if (!done) {
    // Others may have changed them meanwhile: what it brings now is to be seen first.
    shown.value = null
    await refresh()
    return
  }
  told.value = fresh.value.length === 1 ? say.takenOne : say.taken(fresh.value.length)
  shown.value = null
  text.value = ''
  emit('taken')
}
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p class="line">
      {{ say.out }}
      <a :href="`/api/movements.csv?squad=${squadNow}`" download>{{ say.table }}</a>
      <a :href="`/api/movements.json?squad=${squadNow}`" download>{{ say.list }}</a>
    </p>
    <h3>{{ say.in }}</h3>
    <ElUpload accept=".csv,.json" :auto-upload="false" :show-file-list="false" :on-change="read">
      <span class="link">{{ say.choose }}</span>
    </ElUpload>
    <ElInput
      v-model="text"
      type="textarea"
      :rows="5"
      :aria-label="say.paste"
      :placeholder="say.paste"
      @input="shown = null"
    />
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="told" role="status">{{ told }}</p>
    <template v-if="shown">
      <p v-if="fresh.length === 0" role="status" class="said">{{ say.nothingNew }}</p>
      <MovementChanges v-else :taken="fresh" />
    </template>
    <p class="line">
      <ElButton v-if="fresh.length" type="primary" @click="take">{{ say.take(fresh.length) }}</ElButton>
      <ElButton v-else :disabled="!text.trim()" @click="look">{{ say.look }}</ElButton>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
