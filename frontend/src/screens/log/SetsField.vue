<script setup lang="ts">
import { ElInput } from 'element-plus'
import { ref, useId, watch } from 'vue'

import { setsText, typedSets, type LoggedSet } from '@/words/scores'
import { SETS_TABLE as say } from '@/words/texts/log'
import { signOf } from '@/words/units'

// Sets as they are typed: what cannot be read stays there, with a word on how they are written.
const props = defineProps<{ label: string; made: string }>()
const emit = defineEmits<{ typed: [sets: LoggedSet[]] }>()
const text = ref(props.made)
const bad = ref(false)
const why = useId()
watch(
  () => props.made,
  (made) => {
    text.value = made
    bad.value = false
  },
)
function take(): void {
  const sets = typedSets(text.value)
  bad.value = sets === null
  if (!sets) return
  text.value = setsText(sets)
  if (text.value !== props.made) emit('typed', sets)
}
</script>

<template>
  <span>
    <ElInput
      v-model="text"
      size="small"
      :aria-label="label"
      :aria-invalid="bad"
      :aria-describedby="bad ? why : undefined"
      :placeholder="say.example"
      maxlength="200"
      @change="take"
    />
    <small v-if="bad" :id="why" role="alert">{{ say.how(signOf('kg')) }}</small>
  </span>
</template>

<style scoped>
small {
  display: block;
  color: var(--warn);
}
</style>
