<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { onMounted, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'
import { ADD_PERSON as say } from '@/words/texts/people'

const props = defineProps<{ squad: number }>()
const emit = defineEmits<{ changed: []; close: [] }>()
const name = ref('')
const groups = ref('')
const field = useTemplateRef<InstanceType<typeof ElInput>>('field')
onMounted(() => field.value?.focus())
const { trouble, attempt } = useAttempt()
async function add(): Promise<void> {
  const named = groups.value.split(',').map((one) => one.trim())
  const body = { name: name.value, groups: named.filter(Boolean), squad: props.squad }
  if (!(await attempt(() => api.addPerson(body)))) return
  name.value = ''
  emit('changed')
  field.value?.focus()
}
</script>

<template>
  <form class="strip" :aria-label="say.addSomebody" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <ElInput ref="field" v-model="name" class="name" :aria-label="say.name" :placeholder="say.name" maxlength="120" />
    <ElInput
      v-model="groups"
      class="groups"
      :aria-label="say.groups"
      :placeholder="say.groupsPlaceholder"
      maxlength="200"
    />
    <ElButton type="primary" native-type="submit" :disabled="!name.trim()">{{ say.add }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
.name {
  width: 16em;
}
.groups {
  width: 12em;
}
</style>
