<script setup lang="ts">
import { ElInput } from 'element-plus'
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'

import type { FloorPerson } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import type { Given } from '@/floor/useRun'
import { BEFORE as before, HURT as say } from '@/words/texts/floor'

// Someone is hurt: time and sound stand already; the squad's own words, then who, what, and how it goes on.
const props = defineProps<{
  people: readonly FloorPerson[]
  emergency: string
  /** Whether the squad notes health: without it nothing of what happened is kept. */
  health: boolean
}>()
const emit = defineEmits<{ give: [given: Given]; close: [] }>()
const heading = useTemplateRef<HTMLElement>('heading')
onMounted(() => nextTick(() => heading.value?.focus()))

const person = ref('')
const text = ref('')
const choices = computed(() => [
  { value: '', label: say.nobody },
  ...props.people.map((one) => ({ value: one.person, label: one.name })),
])
const named = computed(() => props.people.find((one) => one.person === person.value))
function note(): void {
  const of = person.value ? { person: person.value } : {}
  if (text.value.trim()) emit('give', { do: 'note', kind: 'hurt', text: text.value.trim(), ...of })
  if (person.value) emit('give', { do: 'away', person: person.value, why: 'hurt' })
}
/** One tap: what happened is kept, and the clock and the sound go on. */
function goOn(): void {
  note()
  emit('give', { do: 'resume' })
  emit('close')
}
function end(): void {
  note()
  emit('give', { do: 'stop' })
  emit('close')
}
</script>

<template>
  <section class="hurt" aria-labelledby="hurt-heading">
    <h2 id="hurt-heading" ref="heading" tabindex="-1">{{ say.heading }}</h2>
    <p>{{ say.stands }}</p>
    <p class="words">{{ emergency || before.noWords }}</p>
    <p class="note-bar">{{ say.caution }}</p>
    <div class="who">
      <span aria-hidden="true">{{ say.whoIsIt }}</span>
      <ChoiceField v-model="person" :label="say.whoIsIt" :options="choices" />
    </div>
    <ElInput
      v-if="health"
      v-model="text"
      type="textarea"
      :rows="2"
      :aria-label="say.what"
      :placeholder="say.what"
      maxlength="500"
    />
    <p v-else>{{ say.notNoted }}</p>
    <div class="keys">
      <button type="button" class="floor-key" @click="goOn">
        {{ named ? say.goOnWithout(named.name) : say.goOn }}
      </button>
      <button type="button" class="floor-key" @click="end">{{ say.end }}</button>
    </div>
  </section>
</template>

<style scoped src="./floor.css"></style>
<style scoped>
.hurt {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--sheet);
  color: var(--ink);
  padding: 14px;
  min-height: 100%;
}
p {
  margin: 0;
}
h2 {
  font-size: 30px;
}
.words {
  font: 600 24px/1.25 var(--head);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.who {
  display: flex;
  gap: 10px;
  align-items: center;
}
.keys {
  display: grid;
  gap: 8px;
  margin-top: auto;
}
</style>
