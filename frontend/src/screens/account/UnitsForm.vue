<script setup lang="ts">
import { api } from '@/api/client'
import { account } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import UnitsChoice from '@/parts/UnitsChoice.vue'
import { UNITS_FORM as say } from '@/words/texts/account'
import type { Units } from '@/words/units'

const { trouble, attempt } = useAttempt()
const choose = (units: Units) =>
  attempt(async () => {
    account.value = await api.setUnits(units)
  })
</script>

<template>
  <section :aria-label="say.units">
    <h2>{{ say.units }}</h2>
    <UnitsChoice v-if="account" :units="account.units" @choose="choose" />
    <p class="said">{{ say.kept }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
