<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { LinkTold } from '@/api/types'
import { whoAmI } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import LinkShown from '@/parts/LinkShown.vue'
import SureButton from '@/parts/SureButton.vue'
import { MEMBERS_PANEL as say } from '@/words/texts/squad'

const props = defineProps<{ squad: number }>()
const { choicesOf } = useTables()
const { data, error, isPending } = useQuery(
  { queryKey: computed(() => KEYS.members(props.squad)), queryFn: () => api.members(props.squad) },
  queryClient,
)
const members = computed(() => data.value ?? [])
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
const link = ref<{ of: number; told: LinkTold } | null>(null)
const changed = async (own: boolean): Promise<void> => {
  await askAgain(KEYS.members(props.squad))
  await askAgain(KEYS.history(props.squad))
  if (own) await whoAmI()
}
const setRole = (id: number, role: string | null | undefined, own: boolean) =>
  attempt(async () => {
    if (role) await api.changeRole(id, role)
  }).then(() => changed(own))
const takeOut = (id: number, own: boolean) =>
  attempt(async () => {
    await api.removeMember(id)
    await changed(own)
  })
const reset = (id: number) =>
  attempt(async () => {
    link.value = null
    link.value = { of: id, told: await api.makeReset(id) }
    await askAgain(KEYS.history(props.squad))
  })
</script>

<template>
  <section :aria-label="say.members">
    <h2>{{ say.members }}</h2>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <div v-else-if="isPending" role="status">
      <span class="visually-hidden">{{ say.readingMembers }}</span>
      <ElSkeleton :rows="3" animated :throttle="200" />
    </div>
    <ul class="lines">
      <li v-for="one in members" :key="one.id">
        <b>{{ one.account }}</b>
        <span v-if="one.you" class="code">{{ say.you }}</span>
        <ChoiceField
          :model-value="one.role"
          :label="say.roleOf(one.account)"
          :options="choicesOf('roles')"
          @update:model-value="setRole(one.id, $event, one.you)"
        />
        <span class="grow"></span>
        <button v-if="!one.you" type="button" class="link" @click="reset(one.id)">
          {{ say.newPassword }}<span class="visually-hidden"> {{ one.account }}</span>
        </button>
        <SureButton
          :label="say.takeOut"
          :warning="say.takeOutWarning"
          :about="one.account"
          @sure="takeOut(one.id, one.you)"
        />
        <LinkShown v-if="link?.of === one.id" :link="link.told" />
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
