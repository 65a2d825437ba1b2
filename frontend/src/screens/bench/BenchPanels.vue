<script lang="ts">
export type Panel = 'fit' | 'plan' | 'versions'
</script>

<script setup lang="ts">
import { defineAsyncComponent } from 'vue'

import type { SessionDoc } from '@/api/types'

// Each is fetched when it is first opened: the Bench itself waits for none of them.
const FitPanel = defineAsyncComponent(() => import('./FitPanel.vue'))
const PlanPanel = defineAsyncComponent(() => import('./PlanPanel.vue'))
const VersionsPanel = defineAsyncComponent(() => import('./VersionsPanel.vue'))

// What opens over the Bench, one at a time. `session`: its id, '' for one that is not kept yet.
defineProps<{ session: string; save: () => Promise<boolean> }>()
defineEmits<{ restore: [document: SessionDoc] }>()
const panel = defineModel<Panel | null>({ required: true })
const close = (): void => {
  panel.value = null
}
</script>

<template>
  <FitPanel v-if="panel === 'fit'" @close="close" />
  <PlanPanel v-if="panel === 'plan' && session" :session="session" :save="save" @close="close" />
  <VersionsPanel
    v-if="panel === 'versions' && session"
    :session="session"
    @restore="$emit('restore', $event)"
    @close="close"
  />
</template>
