<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { keep, queryClient, troubleOf } from '@/api/query'
import type { Settings } from '@/api/types'
import { headHere, plansHere, squadNow, whoAmI } from '@/composables/useAccount'
import { SQUAD_SCREEN as say } from '@/words/texts/squad'

import HabitsPanel from './HabitsPanel.vue'
import HistoryPanel from './HistoryPanel.vue'
import InvitePanel from './InvitePanel.vue'
import KitForm from './KitForm.vue'
import LinksPanel from './LinksPanel.vue'
import MembersPanel from './MembersPanel.vue'
import SettingsForm from './SettingsForm.vue'
import SquadFile from './SquadFile.vue'

const { data, error } = useQuery(
  { queryKey: KEYS.settings(squadNow.value), queryFn: () => api.settings(squadNow.value) },
  queryClient,
)
const settings = computed(() => data.value ?? null)
const trouble = troubleOf(error)
async function changed(made: Settings): Promise<void> {
  await keep(KEYS.settings(squadNow.value), made)
  // Its name and the first day of its weeks stand elsewhere, too.
  await whoAmI()
}
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ settings?.name ?? say.squad }}</h1>
      <span class="grow"></span>
      <RouterLink to="/privacy">{{ say.whatIsKept }}</RouterLink>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="!settings" class="waiting" role="status">
      <span class="visually-hidden">{{ say.readingTheSettings }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-else class="page">
      <div class="column">
        <SettingsForm :settings="settings" @changed="changed" />
        <MembersPanel v-if="headHere" :squad="squadNow" />
      </div>
      <div class="column">
        <KitForm :settings="settings" @changed="changed" />
        <InvitePanel v-if="headHere" :squad="squadNow" :sends-mail="settings.sends_mail" />
        <LinksPanel v-if="plansHere" :squad="squadNow" />
        <HabitsPanel v-if="plansHere" :squad="squadNow" />
        <SquadFile v-if="headHere" :squad="squadNow" />
      </div>
      <HistoryPanel v-if="headHere" class="wide" :squad="squadNow" />
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/paper.css"></style>
