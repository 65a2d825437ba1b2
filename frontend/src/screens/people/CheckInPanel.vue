<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { LinkTold, OnePerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import LinkShown from '@/parts/LinkShown.vue'
import SureButton from '@/parts/SureButton.vue'
import { moment } from '@/words/dates'
import { CHECK_IN as say } from '@/words/texts/people'

// Somebody's own link: told once when it is made; who made it, where it is open, since when; ended at once.
const props = defineProps<{ person: OnePerson }>()
const key = computed(() => KEYS.checkIn(props.person.id))
const { data, error } = useQuery({ queryKey: key, queryFn: () => api.checkInLink(props.person.id) }, queryClient)
const link = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const told = ref<LinkTold | null>(null)
/** Nothing is made for somebody under age before a guardian agreed: that is told, and no button leads into it. */
const young = computed(() => props.person.under_age && !props.person.guardian_on)
const { trouble, attempt } = useAttempt()
const make = () =>
  attempt(async () => {
    told.value = await api.makeCheckInLink(props.person.id)
    await askAgain(key.value)
  })
const end = () =>
  attempt(async () => {
    await api.endCheckInLink(props.person.id)
    told.value = null
    await askAgain(key.value)
  })
</script>

<template>
  <section :aria-label="say.heading">
    <h2>{{ say.heading }}</h2>
    <p class="said">{{ say.what }}</p>
    <p v-if="young" class="said">{{ say.headNotes }}</p>
    <template v-else>
      <template v-if="told">
        <LinkShown :link="told" lasting />
        <p class="said">{{ say.handOn }}</p>
      </template>
      <template v-if="link">
        <p>{{ say.made(moment(link.made_at), link.made_by ?? say.gone) }} {{ say.until(moment(link.until)) }}</p>
        <p v-if="link.devices.length === 0" class="said">{{ say.unused }}</p>
        <ul v-else class="lines">
          <li v-for="one in link.devices" :key="one.id">{{ say.used(one.called, moment(one.used_at)) }}</li>
        </ul>
      </template>
      <p v-else-if="data === null">{{ say.none }}</p>
      <p v-if="data !== undefined" class="line">
        <SureButton v-if="link && person.plans" :label="say.anew" :warning="say.anewWarning" @sure="make" />
        <ElButton v-else-if="person.plans" size="small" @click="make">{{ say.make }}</ElButton>
        <SureButton v-if="link" :label="say.end" :warning="say.endWarning" @sure="end" />
      </p>
    </template>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
