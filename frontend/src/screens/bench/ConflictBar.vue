<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { RevisionItem, SessionOut } from '@/api/types'

defineProps<{ conflict: { kept: RevisionItem; theirs: SessionOut } }>()
defineEmits<{ mine: []; theirs: [] }>()
const time = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <div class="note-bar asking" role="alert">
    <span>
      {{ conflict.theirs.saved_by }} saved this session at {{ time(conflict.theirs.saved_at) }}, after you opened it.
      Yours is kept as version {{ conflict.kept.id }}; nothing is lost.
    </span>
    <ElButton size="small" @click="$emit('theirs')">Show theirs</ElButton>
    <ElButton size="small" @click="$emit('mine')">Put mine on top</ElButton>
  </div>
</template>
