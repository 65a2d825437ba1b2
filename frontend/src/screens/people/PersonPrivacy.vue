<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElCheckbox } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import SureButton from '@/parts/SureButton.vue'
import { PERSON_PRIVACY as say } from '@/words/texts/people'

// All that is kept, as one file; and erasing it, with the name in texts looked for before.
const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ erased: [] }>()
const looking = ref(false)
const fromTexts = ref(true)
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.traces(props.person.id)),
    queryFn: () => api.traces(props.person.id),
    enabled: looking,
    gcTime: 0,
  },
  queryClient,
)
const traces = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
async function erase(): Promise<void> {
  if (await attempt(() => api.erasePerson(props.person.id, fromTexts.value))) emit('erased')
}
</script>

<template>
  <section :aria-label="say.privacy">
    <h2>{{ say.privacy }}</h2>
    <p class="line">
      <a :href="`/api/people/${person.id}/export`" download>{{ say.takeOut }}</a>
      <RouterLink to="/privacy">{{ say.toThePage }}</RouterLink>
    </p>
    <p>
      <button v-if="!looking" type="button" class="link" @click="looking = true">{{ say.look }}</button>
    </p>
    <template v-if="traces">
      <p class="said">{{ traces.length ? say.stands : say.none }}</p>
      <ul class="traces">
        <li v-for="(one, at) in traces" :key="at">{{ say.in(one.title, one.says) }}</li>
      </ul>
      <ElCheckbox v-if="traces.length" v-model="fromTexts">{{ say.takeOutOfTexts }}</ElCheckbox>
    </template>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <p>
      <SureButton :label="say.erase" :warning="say.eraseWarning" :about="person.name" @sure="erase" />
    </p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.traces {
  max-height: 180px;
  overflow: auto;
  margin: 0 0 6px;
  padding-left: 18px;
}
</style>
