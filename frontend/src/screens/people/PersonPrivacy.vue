<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElCheckbox } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import PasswordField from '@/parts/PasswordField.vue'
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
const password = ref('')
const takeOut = () =>
  attempt(async () => saveFile('person.json', await api.personFile(props.person.id, password.value)))
async function erase(): Promise<void> {
  if (await attempt(() => api.erasePerson(props.person.id, fromTexts.value, password.value))) emit('erased')
}
</script>

<template>
  <section :aria-label="say.privacy">
    <h2>{{ say.privacy }}</h2>
    <div class="password">
      <PasswordField v-model="password" :label="say.password" :rule="say.passwordFirst" />
    </div>
    <p class="line">
      <ElButton size="small" :disabled="!password" @click="takeOut">{{ say.takeOut }}</ElButton>
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
      <SureButton v-if="password" :label="say.erase" :warning="say.eraseWarning" :about="person.name" @sure="erase" />
    </p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.password {
  max-width: 18em;
}
.traces {
  max-height: 180px;
  overflow: auto;
  margin: 0 0 6px;
  padding-left: 18px;
}
</style>
