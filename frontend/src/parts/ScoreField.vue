<script setup lang="ts">
import { ElInput } from 'element-plus'
import { ref, useId, watch } from 'vue'

import { typedScore, type Typed } from '@/words/scores'
import { SCORES as say } from '@/words/texts/floor-panels'

// A score as it is typed: what cannot be read stays there, with a word on how it is written.
const props = defineProps<{ label: string; made: string; disabled: boolean }>()
const emit = defineEmits<{ typed: [score: Typed] }>()
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
  const same = text.value.trim() === props.made
  const typed = same || text.value.trim() === '' ? null : typedScore(text.value)
  bad.value = !same && text.value.trim() !== '' && !typed
  if (typed) emit('typed', typed)
}
</script>

<template>
  <span class="score">
    <ElInput
      v-model="text"
      size="large"
      :aria-label="label"
      :aria-invalid="bad"
      :aria-describedby="bad ? why : undefined"
      :placeholder="say.example"
      :disabled="disabled"
      maxlength="12"
      @change="take"
    />
    <span v-if="bad" :id="why" role="alert" class="bad">{{ say.bad }}</span>
  </span>
</template>

<style scoped>
.score {
  display: inline-block;
  width: 110px;
  flex: none;
}
.bad {
  display: block;
  font-size: 13px;
  line-height: 1.2;
  color: var(--warn);
}
@media print {
  .score :deep(.el-input__wrapper) {
    box-shadow: none;
    border: 1px solid #000;
    border-radius: 0;
    min-height: 30px;
  }
  .score :deep(input)::placeholder {
    color: transparent;
  }
}
</style>
