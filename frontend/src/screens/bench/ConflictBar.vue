<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { RevisionItem, SessionOut } from '@/api/types'
import { CONFLICT_BAR as say } from '@/words/texts/bench'

defineProps<{ conflict: { kept: RevisionItem; theirs: SessionOut } }>()
defineEmits<{ mine: []; theirs: [] }>()
const time = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <div class="note-bar asking" role="alert">
    <span>
      {{ say.savedThisSessionAtAfter(conflict.theirs.saved_by, time(conflict.theirs.saved_at), conflict.kept.id) }}
    </span>
    <ElButton size="small" @click="$emit('theirs')">{{ say.showTheirs }}</ElButton>
    <ElButton size="small" @click="$emit('mine')">{{ say.putMineOnTop }}</ElButton>
  </div>
</template>
