<script setup lang="ts">
import { ElButton } from 'element-plus'
import { nextTick, ref, useTemplateRef } from 'vue'

import { SURE as say } from '@/words/texts/parts'

// What cannot be taken back is asked once more, in its place.
defineProps<{ label: string; /** What it would do, and that it stays so. */ warning: string; about?: string }>()
const emit = defineEmits<{ sure: [] }>()
const asking = ref(false)
const no = useTemplateRef<InstanceType<typeof ElButton>>('no')
async function ask(): Promise<void> {
  asking.value = true
  await nextTick()
  no.value?.ref?.focus()
}
function yes(): void {
  asking.value = false
  emit('sure')
}
</script>

<template>
  <span v-if="asking" class="sure" role="group" :aria-label="label" @keydown.esc.stop="asking = false">
    <span>{{ warning }}</span>
    <ElButton ref="no" size="small" @click="asking = false">{{ say.no }}</ElButton>
    <ElButton size="small" type="danger" plain @click="yes">{{ say.really }}</ElButton>
  </span>
  <button v-else type="button" class="link" @click="ask">
    {{ label }}<span v-if="about" class="visually-hidden"> {{ about }}</span>
  </button>
</template>

<style scoped>
.sure {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 4px 10px;
}
.sure .el-button + .el-button {
  margin-left: 0;
}
</style>
