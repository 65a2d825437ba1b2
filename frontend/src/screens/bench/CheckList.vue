<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, keep, queryClient } from '@/api/query'
import type { CheckResult } from '@/api/types'
import { account } from '@/composables/useAccount'
import type { Edit } from '@/composables/edits'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import { CHECK_LIST as say } from '@/words/texts/bench'

import { placed, useBench } from './bench'

const { figures, edit, document, squad } = useBench()
const all = ref(false)
const { trouble, attempt } = useAttempt()

const { labelOf } = useTables()
const open = computed(() => (figures.value?.checks ?? []).filter((one) => !one.accepted))
const accepted = computed(() => (figures.value?.checks ?? []).filter((one) => one.accepted))
/** What is shown before the rest is asked for: what will not work, then what needs a look, and not too many. */
const MOST_SHOWN = 3
const loud = computed(() =>
  open.value
    .filter((one) => one.severity !== 'note')
    .sort((a, b) => Number(b.severity === 'stop') - Number(a.severity === 'stop'))
    .slice(0, MOST_SHOWN),
)
const shown = computed(() => (all.value ? [...open.value, ...accepted.value] : loud.value))
const quiet = computed(() => open.value.length + accepted.value.length - loud.value.length)
const isHead = computed(() => account.value?.squads.some((one) => one.id === squad.value && one.role === 'head-coach'))

function mend(one: CheckResult): void {
  if (one.mend) edit(one.mend.edits as unknown as Edit[])
}
/** The block that can accept a check. */
function blockOf(one: CheckResult) {
  return document.value && one.block !== null ? placed(document.value)[one.block] : undefined
}
function accept(one: CheckResult, on: boolean): void {
  const at = blockOf(one)
  if (!at) return
  const others = (at.block.on_purpose ?? []).filter((code) => code !== one.code)
  const value = on ? [...others, one.code] : others
  const place = [...at.editPath, 'on_purpose']
  edit([value.length ? { op: 'set', path: place, value } : { op: 'set', path: place, unset: true }])
}
const { data } = useQuery(
  {
    queryKey: computed(() => KEYS.muted(squad.value)),
    queryFn: ({ queryKey }) => api.mutedChecks(Number(queryKey[1])),
    enabled: computed(() => squad.value > 0),
  },
  queryClient,
)
const muted = computed(() => data.value?.muted ?? [])
const mute = (code: string, on: boolean) =>
  attempt(async () => {
    await keep(KEYS.muted(squad.value), await api.muteCheck(squad.value, code, on))
    // What checks tell has changed, so every figure kept is out of date.
    await askAgain(['figures'])
  })
</script>

<template>
  <section class="checks" :aria-label="say.checks">
    <h3 class="visually-hidden">{{ say.checks }}</h3>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="open.length === 0" class="quiet">{{ say.theChecksHaveNothingTo }}</p>
    <ul>
      <li v-for="(one, index) in shown" :key="index" :class="one.severity">
        <b>{{ one.accepted ? say.onPurpose : labelOf('severities', one.severity) }}</b> {{ one.text }}
        <span class="acts">
          <button v-if="one.mend && !one.accepted" type="button" class="link" @click="mend(one)">
            {{ one.mend.label }}
          </button>
          <button
            v-if="blockOf(one)"
            type="button"
            class="link"
            :aria-label="`${one.accepted ? say.lookAgain : say.acceptIt}: ${one.text}`"
            @click="accept(one, !one.accepted)"
          >
            {{ one.accepted ? say.lookAgain : say.acceptIt }}
          </button>
          <button
            v-if="isHead"
            type="button"
            class="link"
            :title="say.doNotTellTheSquad(one.code)"
            @click="mute(one.code, true)"
          >
            {{ say.mute }}<span class="visually-hidden">{{ say.forTheSquad(one.code) }}</span>
          </button>
        </span>
      </li>
    </ul>
    <p v-if="muted.length && (all || quiet === 0)" class="quiet">
      {{ say.mutedForTheSquad }}
      <template v-for="code in muted" :key="code">
        {{ code.replaceAll('-', ' ') }}
        <button v-if="isHead" type="button" class="link" @click="mute(code, false)">
          {{ say.tellAgain }}<span class="visually-hidden">{{ say.of(code) }}</span>
        </button>
      </template>
    </p>
    <button v-if="quiet > 0 || all" type="button" class="link" :aria-expanded="all" @click="all = !all">
      {{ all ? say.fewer : `${quiet} more` }}
    </button>
  </section>
</template>

<style scoped>
.checks {
  padding-top: 6px;
}
ul {
  list-style: none;
  margin: 2px 0;
  padding: 0;
}
li {
  border-left: 3px solid var(--rule);
  padding: 3px 10px;
  margin-top: 4px;
  font-size: 13px;
  background: var(--sheet);
}
li.look,
li.stop {
  border-color: var(--warn);
  background: var(--warn-sheet);
}
li.stop {
  border-left-width: 6px;
}
/* What can be done about it is at hand where one points, and takes no line of its own before. */
li {
  position: relative;
}
.acts {
  position: absolute;
  right: 0;
  bottom: 0;
  padding: 0 10px;
  background: inherit;
  white-space: nowrap;
  opacity: 0;
}
li:hover .acts,
li:focus-within .acts {
  opacity: 1;
}
@media (hover: none) {
  .acts {
    position: static;
    padding: 0;
    opacity: 1;
  }
}
.link {
  font-size: 12.5px;
  margin-left: 6px;
}
.quiet {
  color: var(--mute);
  margin: 2px 0;
}
</style>
