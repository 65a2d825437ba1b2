<script setup lang="ts">
import type { ParagraphKey } from '@/api/types'
import { METHODS_LINK as say } from '@/words/texts/parts'

// From an estimate to the paragraph of the methods that says how it comes about.
defineProps<{ paragraph: ParagraphKey }>()
</script>

<template>
  <RouterLink class="methods-link" :to="{ name: 'methods', hash: `#${paragraph}` }">{{
    say.how[paragraph]
  }}</RouterLink>
</template>

<style scoped>
.methods-link {
  display: inline-block;
  min-height: 24px;
  padding-top: 2px;
}
@media print {
  .methods-link {
    display: none;
  }
}
</style>
