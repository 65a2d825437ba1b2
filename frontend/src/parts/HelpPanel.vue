<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog } from 'element-plus'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { account, plansHere } from '@/composables/useAccount'
import { helpShown, singleKeys } from '@/composables/useHelp'
import { useFirstPath } from '@/composables/useFirstPath'
import StaveLegend from '@/stave/StaveLegend.vue'
import { keysOf } from '@/words/keys'
import { ANY_SCREEN, HELP_PANEL as say, SCREEN_HELP } from '@/words/texts/help'

// What the screen is for in three lines, and its keys.
const route = useRoute()
const { begin } = useFirstPath()
const screen = computed(() => String(route.name))
const lines = computed(() => SCREEN_HELP[screen.value] ?? ANY_SCREEN)
const close = (): void => {
  helpShown.value = false
}
function take(): void {
  close()
  void begin()
}
</script>

<template>
  <ElDialog :model-value="true" :title="say.on" width="min(720px, 94vw)" @close="close">
    <p v-for="line in lines" :key="line" class="what">{{ line }}</p>
    <h3>{{ say.keys }}</h3>
    <dl>
      <div v-for="one in keysOf(screen)" :key="one.keys">
        <dt>
          <kbd>{{ one.keys }}</kbd>
        </dt>
        <dd>{{ one.does }}</dd>
      </div>
    </dl>
    <p v-if="route.name === 'bench'">{{ say.theStave }} <StaveLegend /></p>
    <ElCheckbox v-model="singleKeys">{{ say.singleLettersActWhenNo }}</ElCheckbox>
    <p v-if="account" class="line">
      <ElButton v-if="plansHere" @click="take">{{ say.path }}</ElButton>
      <RouterLink to="/methods" @click="close">{{ say.methods }}</RouterLink>
    </p>
  </ElDialog>
</template>

<style scoped>
.what {
  margin: 2px 0;
  font-size: 15px;
}
h3 {
  font-size: 16px;
  margin-top: 10px;
}
dl {
  margin: 0 0 12px;
  columns: 2 240px;
}
dl div {
  display: flex;
  gap: 10px;
  break-inside: avoid;
  padding: 2px 0;
}
dt {
  min-width: 110px;
}
dd {
  margin: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
</style>
