<script setup lang="ts">
import { computed } from 'vue'

import type { ForeseenHere, ForeseenScore } from '@/api/types'
import { paceText } from '@/words/paces'
import { scoreText } from '@/words/scores'
import { FORESEEN as say } from '@/words/texts/foreseen'

// What is foreseen, in lines: of one person, or of this group; targets by name; who did it otherwise.
const props = defineProps<{ foreseen: ForeseenHere }>()
const lastOf = (one: ForeseenScore): string[] => {
  if (!one.last || !one.best) return []
  const last = scoreText(one.last)
  return [one.days_ago ? say.last(last, one.days_ago) : say.lastToday(last), say.best(scoreText(one.best))]
}
const lines = computed(() => {
  const found = props.foreseen.scores
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
      const { least, most } = middle.score
      const span = say.group(middle.title, of('slowest'), of('middle'), of('quickest'))
      return `${span} (${say.eightInTen(scoreText(least), scoreText(most))})`
    })
  return [...own, ...groups, ...targets.value, ...took.value]
})
function byTitle<T extends { title: string }>(all: readonly T[]): [string, T[]][] {
  return [...new Set(all.map((one) => one.title))].map((title) => [title, all.filter((one) => one.title === title)])
}
/** Of those who agreed to be named: what they made in each window, to go for. */
const targets = computed(() => {
  return byTitle(props.foreseen.targets).map(([title, some]) => {
    const each = some.map((one) => say.target(one.name, scoreText(one.last), scoreText(one.best)))
    return say.targets(title, each.join(', '))
  })
})
const took = computed(() => {
  return byTitle(props.foreseen.took).map(([title, some]) =>
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
