<script setup lang="ts">
import { api } from '@/api/client'
import { account, whoAmI } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import SureButton from '@/parts/SureButton.vue'
import { OWN_SQUADS as say } from '@/words/texts/account'

const { labelOf } = useTables()
const { trouble, attempt } = useAttempt()
const leave = (id: number) =>
  attempt(async () => {
    await api.leaveSquad(id)
    await whoAmI()
  })
</script>

<template>
  <section :aria-label="say.squads">
    <h2>{{ say.squads }}</h2>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="!account?.squads.length" class="said">{{ say.none }}</p>
    <ul class="lines">
      <li v-for="one in account?.squads ?? []" :key="one.id">
        <b>{{ one.name }}</b>
        <span class="said grow">{{ say.as(labelOf('roles', one.role)) }}</span>
        <RouterLink v-if="one.person" :to="{ name: 'person', params: { id: one.person } }">{{
          say.yourPage
        }}</RouterLink>
        <SureButton :label="say.leave" :warning="say.leaveWarning" :about="one.name" @sure="leave(one.id)" />
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
