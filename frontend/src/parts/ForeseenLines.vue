<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import type { SessionDoc } from '@/api/types'

import ForeseenList from './ForeseenList.vue'
import MethodsLink from './MethodsLink.vue'

// What is foreseen in the windows of a session: of one person, or from this group's slowest to its quickest.
const props = defineProps<{ document: SessionDoc; squad: number; person?: string }>()
/** Whoever types is not asked about at every key. */
const QUIET_MS = 700
const KEPT_MS = 30_000
const asked = refDebounced(
  computed(() => JSON.stringify(props.document)),
  QUIET_MS,
)
const { data } = useQuery(
  {
    queryKey: computed(() => ['foreseen', props.squad, props.person ?? '', asked.value]),
    queryFn: ({ signal }) =>
      api.foreseen(JSON.parse(asked.value) as SessionDoc, props.squad, props.person || null, signal),
    placeholderData: keepPreviousData,
    gcTime: KEPT_MS,
  },
  queryClient,
)
</script>

<template>
  <div v-if="data">
    <ForeseenList :foreseen="data" />
    <MethodsLink v-if="data.scores.length" paragraph="learning" />
  </div>
</template>
