<script setup lang="ts">
import { ElInput } from 'element-plus'
import { useId } from 'vue'

// A password under its label; of one that is made anew the rule stands below.
defineProps<{ label: string; fresh?: boolean; rule?: string; large?: boolean }>()
const password = defineModel<string>({ required: true })
const id = useId()
</script>

<template>
  <label :for="id">{{ label }}</label>
  <ElInput
    :id="id"
    v-model="password"
    type="password"
    :autocomplete="fresh ? 'new-password' : 'current-password'"
    show-password
    maxlength="500"
    :size="large ? 'large' : 'default'"
    :aria-describedby="rule ? `${id}-rule` : undefined"
  />
  <p v-if="rule" :id="`${id}-rule`" class="rule">{{ rule }}</p>
</template>

<style scoped>
label {
  display: block;
  font-weight: 600;
  margin-top: 6px;
}
.rule {
  margin: 2px 0 6px;
  color: var(--mute);
}
</style>
