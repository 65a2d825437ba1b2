<script setup lang="ts">
import { ElSkeleton } from 'element-plus'
import { computed, nextTick, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'
import HelpButton from '@/parts/HelpButton.vue'
import { longDay } from '@/words/dates'
import { RATE_SCREEN as say } from '@/words/texts/log'

import { logChanged, useLogEntry } from './logApi'

// The tablet goes round: one name, eleven words, two taps. Who has answered is seen, what was answered never.
const props = defineProps<{ id: string }>()
const { page, trouble: notRead } = useLogEntry(() => props.id)
const GROUP = 'group'
const chosen = ref('')
const thanked = ref('')
const now = ref(new Set<string>())
const people = computed(() => page.value?.people.filter((one) => one.came) ?? [])
const answered = (person: string, rated: number | null): boolean => rated !== null || now.value.has(person)
const everybody = computed(
  () => people.value.length > 0 && people.value.every((one) => answered(one.person, one.rated)),
)
const name = computed(() => people.value.find((one) => one.person === chosen.value)?.name ?? '')
const heading = useTemplateRef<HTMLElement>('heading')
const { trouble, attempt } = useAttempt()
async function turn(to: string): Promise<void> {
  chosen.value = to
  await nextTick()
  heading.value?.focus()
}
async function rate(effort: number): Promise<void> {
  const person = chosen.value === GROUP ? null : chosen.value
  const said = name.value
  if (!(await attempt(() => api.rate(props.id, { person, effort, way: 'tablet' })))) return
  thanked.value = said
  now.value = new Set([...now.value, chosen.value])
  await turn('')
  await logChanged(props.id)
}
</script>

<template>
  <main id="main" class="rate">
    <p v-if="notRead" class="note-bar" role="alert">{{ notRead }}</p>
    <div v-else-if="!page" role="status">
      <span class="visually-hidden">{{ say.reading }}</span>
      <ElSkeleton :rows="6" animated :throttle="200" />
    </div>
    <template v-else>
      <p class="said">{{ page.title }} · {{ longDay(page.day) }}</p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <template v-if="!chosen">
        <h1 ref="heading" tabindex="-1">{{ everybody ? say.all : say.whoAreYou }}</h1>
        <p role="status" class="said">{{ thanked ? say.thanks(thanked) : say.hand }}</p>
        <ul class="names">
          <li v-for="one in people" :key="one.person">
            <button
              type="button"
              class="key"
              :class="{ has: answered(one.person, one.rated) }"
              @click="turn(one.person)"
            >
              {{ one.name }}<small v-if="answered(one.person, one.rated)">{{ say.answered }}</small>
            </button>
          </li>
        </ul>
        <p class="foot">
          <button type="button" class="link" @click="turn(GROUP)">{{ say.group }}</button>
          <HelpButton />
          <RouterLink :to="{ name: 'logged', params: { id } }">{{ say.done }}</RouterLink>
        </p>
        <p class="said">{{ say.tooEarly }}</p>
      </template>
      <template v-else>
        <h1 ref="heading" tabindex="-1">{{ chosen === GROUP ? say.question : say.you(name) }}</h1>
        <p v-if="chosen === GROUP" class="said">{{ say.groupHow }}</p>
        <ul class="words">
          <li v-for="one in page.scale" :key="one.effort">
            <button type="button" class="key" @click="rate(one.effort)">
              <b>{{ one.effort }}</b> {{ one.word }}
            </button>
          </li>
        </ul>
        <p class="foot">
          <button type="button" class="link" @click="turn('')">{{ say.notYou }}</button>
        </p>
      </template>
    </template>
  </main>
</template>

<style scoped>
.rate {
  height: 100dvh;
  padding: 16px max(20px, calc((100% - 860px) / 2)) 40px;
  overflow: auto;
}
h1 {
  font-size: 30px;
  overflow-wrap: anywhere;
}
h1:focus {
  outline: none;
}
ul {
  list-style: none;
  padding: 0;
  margin: 12px 0;
  display: grid;
  gap: 8px;
}
.names {
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
}
.key {
  width: 100%;
  min-height: 64px;
  text-align: left;
  padding: 6px 14px;
  background: var(--sheet);
  border: 1px solid var(--field);
  border-radius: 3px;
  font: 600 20px/1.15 var(--head);
  cursor: pointer;
}
.words .key {
  min-height: 52px;
}
.key.has {
  color: var(--mute);
  border-style: dashed;
}
small {
  display: block;
  font: 13px var(--text);
}
b {
  display: inline-block;
  min-width: 1.6em;
  font-size: 24px;
}
.foot {
  display: flex;
  justify-content: space-between;
  font-size: 17px;
}
.said {
  color: var(--mute);
  margin: 4px 0;
}
@media (min-width: 700px) {
  .words {
    grid-template-columns: repeat(2, 1fr);
  }
}
</style>
