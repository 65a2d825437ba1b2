<script setup lang="ts">
import type { OwnPage } from '@/api/types'
import type { OwnWord } from '@/own/useOwn'
import { ME_FRESH as say } from '@/words/texts/me'

// How fresh they are: asked once a day where a coach switched it on; what they said is not shown again.
defineProps<{ page: OwnPage; waits: boolean }>()
const emit = defineEmits<{ say: [word: OwnWord] }>()
</script>

<template>
  <section>
    <h2>{{ say.heading }}</h2>
    <p v-if="page.fresh_sent" role="status">{{ waits ? say.waits : say.sent }}</p>
    <template v-else>
      <div class="five">
        <button
          v-for="one in page.fresh_scale"
          :key="one.value"
          type="button"
          class="tap"
          @click="emit('say', { what: 'fresh', value: one.value })"
        >
          {{ one.value }}<small>{{ one.word }}</small>
        </button>
      </div>
      <p class="said">{{ say.only }}</p>
    </template>
  </section>
</template>

<style scoped>
.five {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 6px;
}
.five .tap {
  text-align: center;
  padding: 6px 2px;
}
</style>
