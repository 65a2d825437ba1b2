<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { dateOf, fullDate } from '@/words/dates'
import { LINKS_PANEL as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number }>()
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.links(props.squad)), queryFn: () => api.calendarLinks(props.squad) },
  queryClient,
)
const links = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
const revoke = (id: number) =>
  attempt(async () => {
    await api.revokeLink(id)
    await askAgain(KEYS.links(props.squad))
  })
</script>

<template>
  <section :aria-label="say.calendarLinks">
    <h2>{{ say.calendarLinks }}</h2>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <p v-if="links?.length === 0" class="said">{{ say.none }}</p>
    <ul class="lines">
      <li v-for="one in links ?? []" :key="one.id">
        <b>{{ one.name }}</b>
        <span class="said grow"
          ><template v-if="one.person">{{ say.of(one.person) }} · </template
          >{{ say.made(fullDate(dateOf(new Date(one.made_at)))) }}</span
        >
        <button type="button" class="link" @click="revoke(one.id)">
          {{ say.revoke }}<span class="visually-hidden">: {{ one.name }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
