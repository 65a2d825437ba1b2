<script setup lang="ts">
import { ElCheckbox } from 'element-plus'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { fullDate } from '@/words/dates'
import { PERSON_NAMED as say } from '@/words/texts/people'

// Whether others of the squad may read whose score it is: for the person, and for those who plan to note.
const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const { trouble, attempt } = useAttempt()
const agrees = (agreed: unknown) =>
  attempt(async () => {
    await api.setNamed(props.person.id, Boolean(agreed))
    emit('changed')
  })
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p v-if="person.under_age" class="said">{{ say.underAge }}</p>
    <ElCheckbox v-else :model-value="person.named_on !== null" @update:model-value="agrees">{{
      person.own ? say.mine : say.theirs
    }}</ElCheckbox>
    <p v-if="person.named_on && !person.under_age" class="said">{{ say.since(fullDate(person.named_on)) }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
