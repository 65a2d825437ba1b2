<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import type { ForeseenScore, SessionDoc } from '@/api/types'
import { scoreText } from '@/words/scores'
import { paceText } from '@/words/paces'
import { FORESEEN as say } from '@/words/texts/foreseen'

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
const lastOf = (one: ForeseenScore): string[] => {
  if (!one.last || !one.best) return []
  const last = scoreText(one.last)
  return [one.days_ago ? say.last(last, one.days_ago) : say.lastToday(last), say.best(scoreText(one.best))]
}
const lines = computed(() => {
  const found = data.value?.scores ?? []
  const own = found
    .filter((one) => one.whom === 'person')
    .map((one) => {
      const { expected, least, most } = one.score
      const said = say.person(one.title, scoreText(expected), scoreText(least), scoreText(most))
      return [said, paceText(one.pace, true), ...lastOf(one)].join(' · ')
    })
  const groups = found
    .filter((one) => one.whom === 'middle')
    .map((middle) => {
      const of = (whom: ForeseenScore['whom']): string =>
        scoreText(
          found.find(
            (one) =>
              one.whom === whom &&
              one.block === middle.block &&
              one.section_pass === middle.section_pass &&
              one.index === middle.index,
          )?.score.expected,
        )
      return say.group(middle.title, of('slowest'), of('middle'), of('quickest'))
    })
  return [...own, ...groups, ...targets.value, ...took.value]
})
function byTitle<T extends { title: string }>(all: readonly T[]): [string, T[]][] {
  return [...new Set(all.map((one) => one.title))].map((title) => [title, all.filter((one) => one.title === title)])
}
/** Of those who agreed to be named: what they made in each window, to go for. */
const targets = computed(() => {
  return byTitle(data.value?.targets ?? []).map(([title, some]) => {
    const each = some.map((one) => say.target(one.name, scoreText(one.last), scoreText(one.best)))
    return say.targets(title, each.join(', '))
  })
})
const took = computed(() => {
  return byTitle(data.value?.took ?? []).map(([title, some]) =>
    say.took(title, some.map((one) => say.tookOne(one.name, one.options.join(', '))).join(', ')),
  )
})
</script>

<template>
  <ul v-if="lines.length" :aria-label="say.label">
    <li v-for="line in lines" :key="line">{{ line }}</li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 2px 0;
  padding: 0;
  font-size: 13px;
  color: var(--mute);
}
</style>
