<script setup lang="ts">
import { computed, ref } from 'vue'

import type { OwnEntry, OwnPage, OwnWindow } from '@/api/types'
import type { OwnWord } from '@/own/useOwn'
import ChoiceField from '@/parts/ChoiceField.vue'
import ScoreField from '@/parts/ScoreField.vue'
import { whole } from '@/words/format'
import { scoreText, type Typed } from '@/words/scores'
import { ME_ENTRY as say } from '@/words/texts/me'

import MeHealth from './MeHealth.vue'

// One session as its holder sees it: whether they come, the text for the wall, what they do otherwise, scores, effort.
const props = defineProps<{ page: OwnPage; entry: OwnEntry; waits: boolean; over?: boolean }>()
const emit = defineEmits<{ say: [word: OwnWord] }>()
const id = computed(() => props.entry.id)
const head = computed(() =>
  [props.entry.time ? say.atTime(props.entry.time.slice(0, 5)) : '', say.minutes(whole(props.entry.minutes))]
    .filter(Boolean)
    .join(' · '),
)
const choices = (labels: readonly string[]) => [
  { value: '', label: say.asPlanned },
  ...labels.map((label) => ({ value: label, label })),
]
function expected(one: OwnWindow): string {
  const told = one.target
    ? say.target(scoreText(one.target.expected), scoreText(one.target.least), scoreText(one.target.most))
    : ''
  const before = one.last ? say.last(scoreText(one.last)) : ''
  return [told, before, one.best ? say.best(scoreText(one.best)) : ''].filter(Boolean).join(' · ')
}
function score(one: OwnWindow, typed: Typed): void {
  const { block, section_pass, index } = one
  emit('say', { what: 'score', entry: id.value, block, section_pass, index, score: typed })
}
const anew = ref(false)
const word = computed(() => props.page.scale.find((one) => one.effort === props.entry.effort))
function rate(effort: number): void {
  anew.value = false
  emit('say', { what: 'effort', entry: id.value, effort })
}
</script>

<template>
  <article :aria-label="entry.title">
    <h2>{{ entry.title }}</h2>
    <p class="said">{{ head }}</p>
    <template v-if="!over">
      <div v-if="!entry.logged" class="two" role="group" :aria-label="say.comes">
        <button
          type="button"
          class="tap"
          :aria-pressed="entry.said === 'here'"
          @click="emit('say', { what: 'here', entry: id })"
        >
          {{ say.here }}
        </button>
        <button
          type="button"
          class="tap"
          :aria-pressed="entry.said === 'away'"
          @click="emit('say', { what: 'away', entry: id })"
        >
          {{ say.away }}
        </button>
      </div>
      <p v-else class="said">{{ say.logged }}</p>
      <section v-if="entry.cautions.length">
        <h3>{{ say.cautions }}</h3>
        <p v-for="line in entry.cautions" :key="line" class="caution">{{ line }}</p>
      </section>
      <section v-if="entry.text">
        <h3>{{ say.plan }}</h3>
        <pre tabindex="0">{{ entry.text }}</pre>
      </section>
    </template>
    <section v-if="entry.steps.length">
      <h3>{{ say.otherwise }}</h3>
      <p v-for="one in entry.steps" :key="one.step" class="step">
        <span>{{ one.name }}</span>
        <span v-if="one.fixed">{{ say.agreed(one.taken) }}</span>
        <ChoiceField
          v-else
          :model-value="one.taken"
          :label="say.instead(one.name)"
          :options="choices(one.labels)"
          boxed
          @update:model-value="emit('say', { what: 'option', entry: id, step: one.step, label: $event ?? '' })"
        />
      </p>
    </section>
    <section v-if="entry.windows.length">
      <h3>{{ say.scores }}</h3>
      <div v-for="one in entry.windows" :key="`${one.block}/${one.section_pass}/${one.index}`" class="step">
        <span
          >{{ one.title }}<small>{{ expected(one) }}</small></span
        >
        <ScoreField
          :label="say.scoreOf(one.title)"
          :made="one.score ? scoreText(one.score) : ''"
          :disabled="false"
          @typed="score(one, $event)"
        />
      </div>
      <p class="said">{{ say.how }}</p>
    </section>
    <section>
      <h3>{{ say.effort }}</h3>
      <p v-if="word && !anew">
        {{ say.chosen(`${word.effort}, ${word.word}`) }}
        <button type="button" class="link" @click="anew = true">{{ say.change }}</button>
      </p>
      <div v-else class="two">
        <button
          v-for="one in page.scale"
          :key="one.effort"
          type="button"
          class="tap"
          :aria-pressed="one.effort === entry.effort"
          @click="rate(one.effort)"
        >
          <b>{{ one.effort }}</b> {{ one.word }}
        </button>
      </div>
    </section>
    <MeHealth v-if="page.asks_health" :page="page" :entry="entry" :waits="waits" @say="emit('say', $event)" />
  </article>
</template>

<style scoped>
article {
  margin-bottom: 26px;
}
pre {
  background: var(--sheet);
  border: 1px solid var(--rule);
  padding: 10px 12px;
  margin: 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font: 17px/1.45 var(--text);
}
.step {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 14px;
  border-bottom: 1px dotted var(--rule);
  padding: 6px 0;
}
.step > span:first-child {
  flex: 1 1 150px;
}
.step :deep(.el-select__wrapper) {
  min-height: 44px;
  font-size: 17px;
}
.caution {
  font-size: 15px;
}
b {
  display: inline-block;
  min-width: 1.3em;
}
</style>
