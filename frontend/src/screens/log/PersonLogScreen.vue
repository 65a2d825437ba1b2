<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { anew, queryClient, troubleOf } from '@/api/query'
import { turnToSquad } from '@/composables/squadAddress'
import { PERSON_LOG as say } from '@/words/texts/log'

import DoneByMovement from './DoneByMovement.vue'
import DoneByWeek from './DoneByWeek.vue'
import LearnedPanel from './LearnedPanel.vue'
import NotesList from './NotesList.vue'
import RatedTable from './RatedTable.vue'
import ScoreLines from './ScoreLines.vue'

// A person over the last year: pace and effort and how sure, scores of the same work, what was done.
const props = defineProps<{ id: string }>()
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.personLog(props.id)), queryFn: () => api.personLog(props.id) },
  queryClient,
)
const log = computed(() => data.value ?? null)
const trouble = troubleOf(error)
watch(log, (now) => now && turnToSquad(now.squad), { immediate: true })
const changed = () => anew(KEYS.personLog(props.id))
</script>

<template>
  <main id="main">
    <header>
      <RouterLink to="/log">{{ say.toLog }}</RouterLink>
      <h1>{{ log ? say.heading(log.name) : trouble ? say.noSuch : '…' }}</h1>
      <span class="grow"></span>
      <RouterLink v-if="log" :to="{ name: 'person', params: { id } }">{{ say.what }}</RouterLink>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="!log" class="waiting" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <div v-else class="page">
      <div class="column">
        <LearnedPanel :log="log" @changed="changed" />
        <RatedTable :rated="log.rated" />
      </div>
      <div class="column">
        <ScoreLines :lines="log.lines" />
        <NotesList v-if="log.notes.length" :notes="log.notes" @changed="changed" />
      </div>
      <DoneByWeek class="wide" :weeks="log.weeks" />
      <DoneByMovement class="wide" :movements="log.movements" />
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/paper.css"></style>
