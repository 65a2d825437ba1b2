<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { CalendarLink } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { usePeople } from '@/composables/useTables'

const props = defineProps<{ begins: string; squad: number; editable: boolean }>()
defineEmits<{ close: [] }>()
const { people, fetchPeople } = usePeople()
const links = shallowRef<readonly CalendarLink[]>([])
const made = ref('')
const name = ref('')
const person = ref('')
const { trouble, attempt } = useAttempt()

const read = () =>
  attempt(async () => {
    links.value = await api.links(props.squad)
  })
onMounted(() => {
  if (!props.editable) return
  void fetchPeople(props.squad)
  void read()
})
const make = () =>
  attempt(async () => {
    const link = await api.makeLink({
      name: name.value,
      person: person.value ? Number(person.value) : null,
      squad: props.squad,
    })
    made.value = `${location.origin}${link.path ?? ''}`
    await read()
  })
const revoke = (id: number) =>
  attempt(async () => {
    await api.revokeLink(id)
    await read()
  })
const file = (kind: string): string => `/api/plan/week.${kind}?day=${props.begins}&squad=${props.squad}`
</script>

<template>
  <section class="share" aria-label="Export">
    <p>
      This week as
      <a :href="file('ics')" download>calendar file</a> · <a :href="file('csv')" download>.csv</a> ·
      <a :href="file('xlsx')" download>.xlsx</a>
      <button type="button" class="link close" @click="$emit('close')">close</button>
    </p>
    <template v-if="editable">
      <form @submit.prevent="make">
        <label
          >Calendar link for
          <select v-model="person">
            <option value="">the squad</option>
            <option v-for="one in people" :key="one.id" :value="String(one.id)">{{ one.name }}</option>
          </select>
        </label>
        <label>name <input v-model="name" maxlength="80" placeholder="what it is for" /></label>
        <ElButton size="small" native-type="submit">Make a link</ElButton>
      </form>
      <p v-if="made" role="status">
        Subscribe to <code>{{ made }}</code>. It is shown this once; whoever has it sees the plan, until it is revoked.
      </p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <ul v-if="links.length">
        <li v-for="link in links" :key="link.id">
          {{ link.name }}<template v-if="link.person"> · {{ link.person }}</template>
          <button type="button" class="link" @click="revoke(link.id)">
            revoke<span class="visually-hidden"> {{ link.name }}</span>
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
