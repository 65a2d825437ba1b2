<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { APP as say } from '@/words/texts/parts'
import { account, squadNow } from './composables/useAccount'
import { useWeekStart } from './composables/useWeekStart'
import NoticeBar from './parts/NoticeBar.vue'
import SideRail from './parts/SideRail.vue'

const route = useRoute()
const locale = useWeekStart()
/** Before one is in there is nothing beside the page, nor on the floor; the page on what is kept is for both. */
const bare = computed(
  () => route.meta.door === true || route.meta.whole === true || (route.meta.open === true && account.value === null),
)
</script>

<template>
  <a class="visually-hidden skip" href="#main">{{ say.skipToTheContent }}</a>
  <ElConfigProvider :locale="locale" :message="{ max: 3 }">
    <div :class="{ shell: !bare }">
      <SideRail v-if="!bare" />
      <!-- Another squad is another set of screens, another run another screen; signing in is none of them. -->
      <RouterView :key="route.meta.keyed ? route.fullPath : bare ? 0 : squadNow" />
    </div>
    <NoticeBar />
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
@media print {
  .shell {
    display: block;
    height: auto;
  }
}
@media (max-width: 700px) {
  .shell {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
  }
}
</style>
