<script setup lang="ts">
import { ElButton, ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'
import { useOwn } from '@/own/useOwn'
import HelpButton from '@/parts/HelpButton.vue'
import SureButton from '@/parts/SureButton.vue'
import UnitsChoice from '@/parts/UnitsChoice.vue'
import { keepShell } from '@/shell'
import { longDay, moment } from '@/words/dates'
import { scoreText } from '@/words/scores'
import { ME_SCREEN as say } from '@/words/texts/me'
import { ownUnits, type Units } from '@/words/units'

import { useToken } from '../join/useToken'
import MeEntry from './MeEntry.vue'
import MeFresh from './MeFresh.vue'
import './me.css'

// The one page behind a person's own link: for a phone, without an account, with or without a network.
const { token, used } = useToken('me')
const own = useOwn(() => token.value, used)
const { page, state, waiting, others, refused, lost, trouble } = own
void keepShell()
const today = computed(() => page.value?.entries.filter((one) => one.day === page.value?.today) ?? [])
const before = computed(() => page.value?.entries.filter((one) => one.day !== page.value?.today) ?? [])
const status = computed(() => {
  if (waiting.value.length) return lost.value ? say.waits(waiting.value.length) : ''
  return lost.value ? say.lost : said.value ? say.sent : ''
})
const said = ref(false)
async function tell(word: Parameters<typeof own.say>[0]): Promise<void> {
  said.value = true
  await own.say(word)
}
function tellIn(wanted: Units): void {
  ownUnits.value = wanted
  void own.again()
}
const ending = useAttempt()
async function drop(id: number, here: boolean): Promise<void> {
  if (!(await ending.attempt(() => api.dropOwnDevice(id)))) return
  await (here ? own.ended() : own.again())
}
async function end(): Promise<void> {
  if (await ending.attempt(() => api.endOwnLink())) await own.ended()
}
</script>

<template>
  <main id="main" class="me">
    <div v-if="state === 'opening'" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <template v-else-if="!page">
      <h1>{{ say.heading }}</h1>
      <p v-if="state === 'refused'" class="note-bar" role="alert">{{ trouble }}</p>
      <p v-else-if="state === 'alone'" class="note-bar" role="alert">
        {{ say.alone }} <ElButton size="large" @click="own.again">{{ say.tryAgain }}</ElButton>
      </p>
      <p v-else class="note-bar" role="alert">{{ state === 'closed' ? say.closed : say.noToken }}</p>
    </template>
    <template v-else>
      <header>
        <h1>{{ longDay(page.today) }} <HelpButton /></h1>
        <p class="said">{{ say.hello(page.name, page.squad) }}</p>
      </header>
      <!-- Its place is kept: nothing moves under a finger when the network goes. -->
      <p class="status" role="status" :class="{ look: lost }">{{ status }}</p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <div v-if="refused.length" class="note-bar" role="alert">
        {{ say.notTaken }}
        <p v-for="(why, index) in refused" :key="index">{{ why }}</p>
        <ElButton size="large" @click="refused = []">{{ say.ok }}</ElButton>
      </div>
      <MeFresh v-if="page.asks_freshness" :page="page" :waits="lost" @say="tell" />
      <p v-if="today.length === 0" class="nothing">{{ say.nothingOn }}</p>
      <MeEntry v-for="one in today" :key="one.id" :page="page" :entry="one" :waits="lost" @say="tell" />
      <section v-if="before.length">
        <h2>{{ say.yesterday }}</h2>
        <MeEntry v-for="one in before" :key="one.id" :page="page" :entry="one" :waits="lost" over @say="tell" />
      </section>
      <section v-if="page.results.length">
        <h2>{{ say.ownResults }}</h2>
        <ul class="results">
          <li v-for="(one, index) in page.results" :key="index">
            <span
              >{{ one.title }}<small>{{ longDay(one.day) }}</small></span
            >
            <b>{{ scoreText(one.score) }}</b>
          </li>
        </ul>
      </section>
      <section v-if="page.emergency">
        <h2>{{ say.ifHurt }}</h2>
        <p class="words">{{ page.emergency }}</p>
      </section>
      <section>
        <h2>{{ say.yourLink }}</h2>
        <p class="said">{{ say.until(moment(page.until)) }}</p>
        <ul class="results">
          <li v-for="one in page.devices" :key="one.id">
            <span>
              {{ one.this ? say.thisPhone(one.called) : one.called }}
              <small>{{ say.lastUsed(moment(one.used_at)) }}</small>
            </span>
            <SureButton
              :label="one.this ? say.endHere : say.endOther"
              :warning="say.endHereWarning"
              @sure="drop(one.id, one.this)"
            />
          </li>
        </ul>
        <SureButton :label="say.endAll" :warning="say.endAllWarning" @sure="end" />
        <p v-if="ending.trouble.value" class="note-bar" role="alert">{{ ending.trouble.value }}</p>
        <UnitsChoice :units="page.units" @choose="tellIn" />
        <p>
          <RouterLink to="/privacy">{{ say.kept }}</RouterLink>
        </p>
      </section>
    </template>
    <!-- A phone that several use: nobody's answers are lost, and nobody sends another's. -->
    <section v-if="others.length" :aria-label="say.othersHeading">
      <h2>{{ say.othersHeading }}</h2>
      <p v-for="(one, index) in others" :key="index" class="said">
        {{ say.others(one.name || say.someoneElse, one.count) }}
      </p>
    </section>
  </main>
</template>
