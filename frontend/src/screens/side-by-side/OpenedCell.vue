<script setup lang="ts">
import { computed, provide } from 'vue'

import type { Column, SessionDoc } from '@/api/types'
import OpenedFigure from '@/parts/OpenedFigure.vue'
import { OPENING } from '@/parts/opening'

// A figure of one column, opened to its arithmetic: asked with the document that the column was figured as.
const props = defineProps<{ column: Column; figure: string; label: string; squad: number }>()
provide(OPENING, {
  figures: computed(() => props.column),
  question: () =>
    props.column.document && { document: props.column.document as unknown as SessionDoc, squad: props.squad },
  light: () => {},
})
</script>

<template>
  <div class="opened">
    <p>{{ column.name }} · {{ label }}</p>
    <OpenedFigure :figure="figure" />
  </div>
</template>

<style scoped>
.opened {
  max-width: 560px;
  margin: 2px 0 6px auto;
  text-align: left;
}
p {
  margin: 0;
  font-weight: 600;
}
</style>
