<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { usePeople } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import { SHARE_PANEL as say } from '@/words/texts/week'

const props = defineProps<{ begins: string; squad: number; editable: boolean }>()
defineEmits<{ close: [] }>()
const SQUAD = ''
const { people } = usePeople(() => (props.editable ? props.squad : 0))
const choices = computed(() => [
  { value: SQUAD, label: say.theSquad },
  ...people.value.map((one) => ({ value: one.id, label: one.name })),
])
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.links(props.squad)),
    queryFn: ({ queryKey }) => api.calendarLinks(Number(queryKey[1])),
    enabled: computed(() => props.editable),
  },
  queryClient,
)
const links = computed(() => data.value ?? [])
const made = ref('')
const name = ref('')
const person = ref<string>(SQUAD)
const { trouble: refused, attempt } = useAttempt()
const notRead = troubleOf(error)

const make = () =>
  attempt(async () => {
    const link = await api.makeLink({ name: name.value, person: person.value || null, squad: props.squad })
    made.value = `${location.origin}${link.path ?? ''}`
    await askAgain(KEYS.links(props.squad))
  })
const revoke = (id: number) =>
  attempt(async () => {
    await api.revokeLink(id)
    await askAgain(KEYS.links(props.squad))
  })
const file = (kind: string): string => `/api/plan/week.${kind}?day=${props.begins}&squad=${props.squad}`
</script>

<template>
  <section class="share" :aria-label="say.export">
    <p>
      {{ say.thisWeekAs }}
      <a :href="file('ics')" download>{{ say.calendarFile }}</a> · <a :href="file('csv')" download>{{ say.csv }}</a> ·
      <a :href="file('xlsx')" download>{{ say.xlsx }}</a>
      <button type="button" class="link close" @click="$emit('close')">{{ say.close }}</button>
    </p>
    <template v-if="editable">
      <form @submit.prevent="make">
        <ChoiceField v-model="person" :label="say.calendarLinkFor" :said="say.calendarLinkFor" :options="choices" />
        <ElInput
          v-model="name"
          class="name"
          :aria-label="say.name"
          maxlength="80"
          :placeholder="say.whatItIsFor"
          size="small"
        />
        <ElButton size="small" native-type="submit">{{ say.makeALink }}</ElButton>
      </form>
      <p v-if="made" role="status">
        {{ say.subscribeTo }} <code>{{ made }}</code>{{ say.itIsShownThisOnce }}
      </p>
      <p v-if="refused || notRead" class="note-bar" role="alert">{{ refused || notRead }}</p>
      <ul v-if="links.length">
        <li v-for="link in links" :key="link.id">
          {{ link.name }}<template v-if="link.person"> · {{ link.person }}</template>
          <button type="button" class="link" @click="revoke(link.id)">
            {{ say.revoke }}<span class="visually-hidden"> {{ link.name }}</span>
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.share {
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 12px;
  margin-bottom: 8px;
}
p {
  margin: 0 0 4px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
form .name {
  width: 14em;
}
code {
  overflow-wrap: anywhere;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.close {
  float: right;
}
@media print {
  .share {
    display: none;
  }
}
</style>
