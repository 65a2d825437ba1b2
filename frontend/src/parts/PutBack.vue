<script setup lang="ts">
import { ElButton } from 'element-plus'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { PUT_BACK as say } from '@/words/texts/parts'

// A session that was taken off the plan, while a run of it went on or waited: it can be put back on its day.
const props = defineProps<{ entry: string; title: string }>()
const emit = defineEmits<{ done: [] }>()
const { trouble, attempt } = useAttempt()
const putBack = () =>
  attempt(async () => {
    await api.restoreEntry(props.entry)
    for (const key of [KEYS.week(), KEYS.today(), KEYS.log()]) void askAgain(key)
    emit('done')
  })
</script>

<template>
  <span class="put-back">
    <span>{{ trouble || say.takenOff(title) }}</span>
    <ElButton size="small" type="primary" @click="putBack">{{ say.putBack }}</ElButton>
  </span>
</template>

<style scoped>
.put-back {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
</style>
