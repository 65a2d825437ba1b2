<script setup lang="ts">
import { SESSION_TABLE as say } from '@/words/texts/sessions'

// What can be done with a session of the list.
defineProps<{ id: string; title: string; archived: boolean }>()
defineEmits<{ duplicate: []; archive: [] }>()
</script>

<template>
  <button type="button" class="link" :aria-label="say.copy(title)" @click="$emit('duplicate')">
    {{ say.copyIt }}
  </button>
  <RouterLink class="link" :to="{ name: 'card', params: { id } }" :aria-label="say.cardOf(title)">{{
    say.card
  }}</RouterLink>
  <button
    type="button"
    class="link"
    :aria-label="`${archived ? say.bringBack : say.putAway} ${title}`"
    @click="$emit('archive')"
  >
    {{ archived ? say.bringBack : say.putAway }}
  </button>
</template>
