<script setup lang="ts">
import { useRouter } from 'vue-router'

import { KEPT, PRIVACY_SCREEN as say } from '@/words/texts/privacy'

const router = useRouter()
</script>

<template>
  <main id="main" class="kept">
    <article>
      <h1>{{ say.title }}</h1>
      <section v-for="[heading, sentences] in KEPT" :key="heading">
        <h2>{{ heading }}</h2>
        <p v-for="one in sentences" :key="one">{{ one }}</p>
      </section>
      <button type="button" class="link" @click="router.back()">{{ say.back }}</button>
    </article>
  </main>
</template>

<style scoped>
.kept {
  overflow: auto;
  padding: 22px 20px 60px;
}
article {
  max-width: 66ch;
  margin-inline: auto;
}
h1 {
  font-size: 34px;
  line-height: 1.1;
}
h2 {
  font-size: 20px;
  margin-top: 16px;
  border-bottom: 1px solid var(--rule);
}
p {
  margin: 4px 0;
}
</style>
