<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElSkeleton } from 'element-plus'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { useAttempt } from '@/composables/useAttempt'
import { dateOf, fullDate, moment } from '@/words/dates'
import { DEVICES as say } from '@/words/texts/account'

const { data, error, isPending } = useQuery({ queryKey: KEYS.devices(), queryFn: api.devices }, queryClient)
const devices = computed(() => data.value ?? [])
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
const out = (number: string) =>
  attempt(async () => {
    await api.signOutDevice(number)
    await askAgain(KEYS.devices())
  })
</script>

<template>
  <section :aria-label="say.signedInOn">
    <h2>{{ say.signedInOn }}</h2>
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <div v-else-if="isPending" role="status">
      <span class="visually-hidden">{{ say.readingDevices }}</span>
      <ElSkeleton :rows="2" animated :throttle="200" />
    </div>
    <ul class="lines">
      <li v-for="one in devices" :key="one.number">
        <b>{{ one.called }}</b>
        <span v-if="one.this" class="code">{{ say.thisOne }}</span>
        <span v-if="one.shared" class="code">{{ say.shared }}</span>
        <span class="said grow">{{ say.since(moment(one.began_at), fullDate(dateOf(new Date(one.ends_at)))) }}</span>
        <button v-if="!one.this" type="button" class="link" @click="out(one.number)">
          {{ say.signOutThere }}<span class="visually-hidden">: {{ one.called }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
