<script setup lang="ts">
import { ElCheckbox, ElDialog } from 'element-plus'

import StaveLegend from '@/stave/StaveLegend.vue'
import { HELP_PANEL as say } from '@/words/texts/bench'
import { SHORTCUTS, singleKeys } from './shortcuts'

const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <ElDialog :model-value="true" :title="say.keys" width="min(720px, 94vw)" @close="emit('close')">
    <dl>
      <div v-for="one in SHORTCUTS" :key="one.keys">
        <dt>
          <kbd>{{ one.keys }}</kbd>
        </dt>
        <dd>{{ one.does }}</dd>
      </div>
    </dl>
    <p>{{ say.theStave }} <StaveLegend /></p>
    <ElCheckbox v-model="singleKeys">{{ say.singleLettersActWhenNo }}</ElCheckbox>
  </ElDialog>
</template>

<style scoped>
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
</style>
