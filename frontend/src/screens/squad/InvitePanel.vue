<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElInput } from 'element-plus'
import { computed, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { Invitation, LinkTold } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { usePeople, useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import LinkShown from '@/parts/LinkShown.vue'
import { dateOf, fullDate, moment } from '@/words/dates'
import { INVITE_PANEL as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number; sendsMail: boolean }>()
const { choicesOf, labelOf } = useTables()
const { people } = usePeople(() => props.squad)
const role = ref('athlete')
const person = ref('')
const email = ref('')
const link = shallowRef<LinkTold | null>(null)
const whom = computed(() => [
  { value: '', label: say.anybody },
  ...people.value.filter((one) => !one.account).map((one) => ({ value: one.id, label: one.name })),
])
const { data, error } = useQuery(
  { queryKey: computed(() => KEYS.invitations(props.squad)), queryFn: () => api.invitations(props.squad) },
  queryClient,
)
const open = computed(() => (data.value ?? []).filter((one) => one.used_at === null))
const used = computed(() => (data.value ?? []).filter((one) => one.used_at !== null))
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
const changed = () => Promise.all([askAgain(KEYS.invitations(props.squad)), askAgain(KEYS.history(props.squad))])
const invite = () =>
  attempt(async () => {
    link.value = null
    link.value = await api.invite(props.squad, {
      role: role.value,
      person: person.value || null,
      email: email.value.trim() || null,
    })
    await changed()
  })
const end = (id: number) =>
  attempt(async () => {
    await api.endInvitation(id)
    await changed()
  })
const about = (one: Invitation): string =>
  one.person ? say.forOne(labelOf('roles', one.role), one.person) : labelOf('roles', one.role)
const day = (at: string | null): string => (at ? fullDate(dateOf(new Date(at))) : '')
</script>

<template>
  <section :aria-label="say.invite">
    <h2>{{ say.invite }}</h2>
    <form class="line" @submit.prevent="invite">
      <ChoiceField v-model="role" :label="say.asWhat" :said="say.as" :options="choicesOf('roles')" />
      <ChoiceField v-model="person" :label="say.forWhom" :said="say.for" :options="whom" />
      <ElInput
        v-if="sendsMail"
        v-model="email"
        type="email"
        :aria-label="say.email"
        :placeholder="say.email"
        maxlength="200"
        size="small"
        class="email"
      />
      <ElButton native-type="submit" type="primary" size="small">{{ say.make }}</ElButton>
    </form>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <LinkShown v-if="link" :link="link" />
    <template v-if="open.length">
      <h3>{{ say.open }}</h3>
      <ul class="lines">
        <li v-for="one in open" :key="one.id">
          <b>{{ about(one) }}</b>
          <span class="said grow">{{ say.by(one.by ?? say.gone, moment(one.expires_at)) }}</span>
          <button type="button" class="link" @click="end(one.id)">
            {{ say.end }}<span class="visually-hidden">: {{ about(one) }}</span>
          </button>
        </li>
      </ul>
    </template>
    <template v-if="used.length">
      <h3>{{ say.used }}</h3>
      <ul class="lines">
        <li v-for="one in used" :key="one.id">
          <b>{{ about(one) }}</b>
          <span class="said">{{ say.wasUsed(one.used_by ?? say.gone, day(one.used_at)) }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
h3 {
  font-size: 15px;
  margin-top: 8px;
}
.email {
  width: 15em;
}
</style>
