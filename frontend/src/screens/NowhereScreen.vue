<script setup lang="ts">
import { NOWHERE_SCREEN as say } from '@/words/texts/shell'
</script>

<template>
  <main id="main" class="nowhere">
    <h1>{{ say.nothingHere }}</h1>
    <p>
      {{ say.thereIsNoSuchPage }} <RouterLink to="/bench">{{ say.toTheSessions }}</RouterLink>
    </p>
  </main>
</template>

<style scoped>
.nowhere {
  padding: 40px;
}
</style>
