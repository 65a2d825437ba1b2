<script setup lang="ts">
import { ElButton, ElCheckbox, ElCheckboxGroup, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import type { OnePerson } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useGroups } from '@/composables/useTables'
import MeasureField from '@/parts/MeasureField.vue'
import NumberField from '@/parts/NumberField.vue'
import { tellDone } from '@/parts/notices'
import { measured } from '@/words/format'
import { PERSON_DETAILS as say } from '@/words/texts/people'

const props = defineProps<{ person: OnePerson }>()
const emit = defineEmits<{ changed: [] }>()
const { groups } = useGroups(() => (props.person.plans ? squadNow.value : 0))
const name = ref('')
const short = ref('')
const body = ref<number | null>(null)
const pace = ref<number | null>(null)
const effort = ref<number | null>(null)
watch(
  () => props.person,
  (now) => {
    name.value = now.name
    short.value = now.short_name
    body.value = now.body_kg
    pace.value = now.pace_factor
    effort.value = now.effort_offset || null
  },
  { immediate: true },
)
const { trouble, attempt } = useAttempt()
async function save(): Promise<void> {
  const done = await attempt(() =>
    api.changePerson(props.person.id, {
      version: props.person.version,
      name: name.value,
      short_name: short.value,
      ...(props.person.manages ? { body_kg: body.value } : {}),
      pace_factor: pace.value,
      effort_offset: effort.value,
    }),
  )
  if (!done) return
  tellDone(say.saved)
  emit('changed')
}
const chosen = computed(() => props.person.groups.map((one) => one.id))
const setGroups = (wanted: unknown) =>
  attempt(async () => {
    await api.setGroups(props.person.id, wanted as number[])
    emit('changed')
  })
</script>

<template>
  <section :aria-label="say.details">
    <h2>{{ say.details }}</h2>
    <p class="said">{{ person.account ? say.account(person.account) : say.noAccount }}</p>
    <form v-if="person.plans" @submit.prevent="save">
      <label for="person-name">{{ say.name }}</label>
      <ElInput id="person-name" v-model="name" maxlength="120" />
      <label for="short-name">{{ say.shortName }}</label>
      <ElInput id="short-name" v-model="short" maxlength="20" class="short" />
      <template v-if="groups.length">
        <h3>{{ say.groups }}</h3>
        <ElCheckboxGroup :model-value="chosen" :aria-label="say.groups" @change="setGroups">
          <ElCheckbox v-for="one in groups" :key="one.id" :value="one.id">{{ one.name }}</ElCheckbox>
        </ElCheckboxGroup>
      </template>
      <h3>{{ say.figures }}</h3>
      <p v-if="person.manages" class="line">
        <MeasureField v-model="body" of="kg" :label="say.bodyMass" :said="say.bodyMass" :min="20" :max="300" />
      </p>
      <p class="line">
        <NumberField v-model="pace" :label="say.pace" :said="say.pace" :min="0.5" :max="2" :step="0.05" />
        <span class="said">{{ say.paceWhat }}</span>
      </p>
      <p class="line">
        <NumberField v-model="effort" :label="say.effort" :said="say.effort" :min="-3" :max="3" :step="0.5" />
        <span class="said">{{ say.effortWhat }}</span>
      </p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <ElButton native-type="submit" type="primary">{{ say.save }}</ElButton>
    </form>
    <template v-else>
      <p>{{ say.shortName }}: {{ person.short_name }}</p>
      <p>{{ person.groups.map((one) => one.name).join(', ') || say.noGroups }}</p>
      <p v-if="person.body_kg">{{ say.bodyMass }}: {{ measured(person.body_kg, 'kg') }}</p>
      <p v-if="person.pace_factor">{{ say.pace }}: {{ person.pace_factor }} ({{ say.paceWhat }})</p>
    </template>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
label {
  display: block;
  font-weight: 600;
  margin-top: 4px;
}
h3 {
  font-size: 15px;
  margin-top: 10px;
}
.short {
  width: 14em;
}
.line .said {
  margin: 0;
}
</style>
