<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'
import { useEventListener } from '@vueuse/core'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'

import { APP as say } from '@/words/texts/parts'
import { account, squadNow } from './composables/useAccount'
import { useFirstPath } from './composables/useFirstPath'
import { helpKey, helpShown } from './composables/useHelp'
import { useWeekStart } from './composables/useWeekStart'
import { mayWait } from './floor/mayWait'
import NoticeBar from './parts/NoticeBar.vue'
import SideRail from './parts/SideRail.vue'

const route = useRoute()
const locale = useWeekStart()
// Fetched when they are first asked for.
const FirstPath = defineAsyncComponent(() => import('./parts/FirstPath.vue'))
const WaitingRuns = defineAsyncComponent(() => import('./parts/WaitingRuns.vue'))
const HelpPanel = defineAsyncComponent(() => import('./parts/HelpPanel.vue'))
useEventListener('keydown', helpKey)
/** Before one is in there is nothing beside the page, nor on the floor; the page on what is kept is for both. */
const { step } = useFirstPath()
const onThePath = computed(() => step.value !== '')
const bare = computed(
  () => route.meta.door === true || route.meta.whole === true || (route.meta.open === true && account.value === null),
)
</script>

<template>
  <a class="visually-hidden skip" href="#main">{{ say.skipToTheContent }}</a>
  <ElConfigProvider :locale="locale" :message="{ max: 3 }">
    <div :class="{ shell: !bare, 'on-the-path': onThePath }">
      <SideRail v-if="!bare" />
      <!-- Another squad is another set of screens, another run another screen; signing in is none of them. -->
      <RouterView :key="route.meta.keyed ? route.fullPath : bare ? 0 : squadNow" />
    </div>
    <FirstPath v-if="onThePath && !bare" />
    <HelpPanel v-if="helpShown" />
    <NoticeBar />
    <WaitingRuns v-if="mayWait && account && !bare" />
  </ElConfigProvider>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  height: 100%;
}
.skip:focus {
  position: fixed;
  clip-path: none;
  width: auto;
  height: auto;
  background: var(--sheet);
  padding: 8px 12px;
  z-index: 10;
}
/* The first steps stand over the foot of the screen: what is under them can be scrolled out. */
.on-the-path :deep(> main) {
  padding-bottom: 130px;
}
@media (max-width: 700px) {
  .shell {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
  }
}
</style>
