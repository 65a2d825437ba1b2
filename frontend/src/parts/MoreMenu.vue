<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'

import { MORE_MENU as say } from '@/words/texts/parts'

/** What a header has beyond its buttons: a word for each, with its key if it has one. */
export interface Deed {
  name: string
  does: string
  key?: string
  disabled?: boolean
}
defineProps<{ label: string; deeds: readonly Deed[] }>()
const emit = defineEmits<{ choose: [name: string] }>()
</script>

<template>
  <ElDropdown
    trigger="click"
    placement="bottom-end"
    :persistent="false"
    @command="(name: string) => emit('choose', name)"
  >
    <ElButton :aria-label="label">{{ say.more }}<span aria-hidden="true">&nbsp;▾</span></ElButton>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-for="one in deeds" :key="one.name" :command="one.name" :disabled="one.disabled">
          {{ one.does }}<kbd v-if="one.key">{{ one.key }}</kbd>
        </ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
kbd {
  margin-left: 14px;
  font: 12px var(--text);
  color: var(--mute);
}
</style>
