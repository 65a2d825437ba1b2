<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { turnToSquad } from '@/composables/squadAddress'
import { plansHere, squadNow, whoAmI } from '@/composables/useAccount'
import HealthReports from '@/parts/HealthReports.vue'
import GroupMark from '@/parts/GroupMark.vue'
import { PERSON_SCREEN as say } from '@/words/texts/people'

import CapacityPanel from './CapacityPanel.vue'
import CheckInPanel from './CheckInPanel.vue'
import LimitsPanel from './LimitsPanel.vue'
import MaximaPanel from './MaximaPanel.vue'
import PersonAway from './PersonAway.vue'
import PersonDetails from './PersonDetails.vue'
import PersonNamed from './PersonNamed.vue'
import PersonPrivacy from './PersonPrivacy.vue'
import UnderAge from './UnderAge.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.person(props.id)), queryFn: () => api.person(props.id) },
  queryClient,
)
const person = computed(() => data.value ?? null)
const trouble = troubleOf(error)
watch(person, (now) => now && turnToSquad(now.squad), { immediate: true })
const changed = () =>
  Promise.all([
    askAgain(KEYS.person(props.id)),
    askAgain(KEYS.people(squadNow.value)),
    askAgain(KEYS.groups(squadNow.value)),
    askAgain(KEYS.week()),
  ])
async function erased(): Promise<void> {
  queryClient.removeQueries({ queryKey: KEYS.person(props.id) })
  await askAgain(KEYS.people(squadNow.value))
  await whoAmI()
  await router.push(plansHere.value ? '/people' : '/')
}
</script>

<template>
  <main id="main">
    <header>
      <RouterLink v-if="plansHere" to="/people">{{ say.toPeople }}</RouterLink>
      <h1>{{ person?.name ?? (trouble ? say.nobody : '…') }}</h1>
      <GroupMark v-for="group in person?.groups ?? []" :key="group.id" :group="group" />
      <RouterLink v-if="person?.plans" :to="{ name: 'week', query: { whose: `person:${person.id}` } }">{{
        say.week
      }}</RouterLink>
      <span v-if="person?.own" class="said">{{ say.you }}</span>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ say.noSuch }} {{ trouble }}</p>
    <div v-else-if="!person" class="waiting" role="status">
      <span class="visually-hidden">{{ say.readingPerson }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <HealthReports v-if="person?.plans" class="reported" :person="person.id" />
    <div v-if="!trouble && person" class="page">
      <div class="column">
        <LimitsPanel :person="person" @changed="changed" />
        <PersonDetails :person="person" @changed="changed" />
      </div>
      <div class="column">
        <PersonAway :person="person" @changed="changed" />
        <CapacityPanel :person="person" @changed="changed" />
        <UnderAge v-if="person.manages" :person="person" @changed="changed" />
        <CheckInPanel v-if="person.own || person.plans" :person="person" />
        <PersonNamed v-if="person.own || person.plans" :person="person" @changed="changed" />
        <PersonPrivacy v-if="person.own || person.manages" :person="person" @erased="erased" />
      </div>
      <MaximaPanel class="wide" :person="person" @changed="changed" />
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/paper.css"></style>
