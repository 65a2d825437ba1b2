<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useRoute } from 'vue-router'

import { api } from '@/api/client'
import { account, whoAmI } from '@/composables/useAccount'
import { renew, renewed } from '@/shell'
import { NOTICE_BAR as say } from '@/words/texts/parts'

// What one is to be told: an invitation was accepted, a password was set anew. It stays until it is read. A newer release
// is told of everywhere but on the floor, where nothing takes over while a run is not over.
const route = useRoute()
async function read(id: number): Promise<void> {
  await api.readNotice(id)
  await whoAmI()
}
</script>

<template>
  <div v-if="account?.notices.length || (renewed && !route.meta.whole)" class="notices" role="status">
    <p v-if="renewed" class="note-bar">
      {{ say.renewed }} <ElButton size="small" @click="renew">{{ say.openAnew }}</ElButton>
    </p>
    <p v-for="one in account?.notices ?? []" :key="one.id" class="note-bar">
      {{ one.says }} <ElButton size="small" @click="read(one.id)">{{ say.read }}</ElButton>
    </p>
  </div>
</template>

<style scoped>
.notices {
  position: fixed;
  right: 12px;
  bottom: 12px;
  z-index: 20;
  max-width: min(460px, calc(100vw - 24px));
  display: grid;
  gap: 6px;
}
.note-bar {
  margin: 0;
  border: 1px solid var(--warn);
  border-left-width: 3px;
}
</style>
