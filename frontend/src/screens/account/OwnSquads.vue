<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { account, chooseSquad, whoAmI } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import SureButton from '@/parts/SureButton.vue'
import { OWN_SQUADS as say } from '@/words/texts/account'

const { labelOf } = useTables()
const router = useRouter()
const { trouble, attempt } = useAttempt()
const name = ref('')
const head = computed(() => account.value?.squads.some((one) => one.role === 'head-coach'))
/** Where one is: a squad is founded there, and may move on its own page. */
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
const found = () =>
  attempt(async () => {
    const { id } = await api.foundSquad({ name: name.value, time_zone: zone, week_start: 0 })
    name.value = ''
    await whoAmI()
    chooseSquad(id)
    await router.push('/squad')
  })
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
    <form v-if="head" class="line" @submit.prevent="found">
      <ElInput
        v-model="name"
        class="name"
        size="small"
        maxlength="120"
        :aria-label="say.name"
        :placeholder="say.found"
      />
      <ElButton native-type="submit" size="small" :disabled="!name.trim()">{{ say.make }}</ElButton>
    </form>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.name {
  width: 16em;
}
</style>
