<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { HABITS_PANEL as say } from '@/words/texts/squad'

// How the squad's words are read where they could be meant otherwise: what was chosen twice, until it is forgotten.
const props = defineProps<{ squad: number }>()
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.habits(props.squad)), queryFn: () => api.habits(props.squad) },
  queryClient,
)
const habits = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
const forget = (rule: string) =>
  attempt(async () => {
    await api.forgetHabit(props.squad, rule)
    await askAgain(KEYS.habits(props.squad))
  })
</script>

<template>
  <section :aria-label="say.habits">
    <h2>{{ say.habits }}</h2>
    <p class="said">{{ say.what }}</p>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <p v-if="habits?.length === 0" class="said">{{ say.none }}</p>
    <ul class="lines">
      <li v-for="one in habits ?? []" :key="one.rule">
        <span class="grow"
          >{{ say.readAs(one.says, one.read_as) }}
          <span class="said">{{ say.not(one.others.join(say.or)) }}</span></span
        >
        <button type="button" class="link" @click="forget(one.rule)">
          {{ say.forget }}<span class="visually-hidden">{{ say.of(one.says) }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
