<script setup lang="ts">
import { helpShown } from '@/composables/useHelp'
import { HELP_SIGN } from '@/words/keys'
import { HELP_PANEL as say } from '@/words/texts/help'
</script>

<template>
  <button type="button" class="help" :title="say.open" aria-haspopup="dialog" @click="helpShown = true">
    {{ HELP_SIGN }}<span class="visually-hidden"> {{ say.open }}</span>
  </button>
</template>

<style scoped>
.help {
  min-width: 30px;
  min-height: 30px;
  border: 1px solid currentcolor;
  border-radius: 50%;
  background: none;
  color: inherit;
  font: 600 16px/1 var(--head);
  cursor: pointer;
}
</style>
