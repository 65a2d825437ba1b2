<script setup lang="ts">
import { computed } from 'vue'

import { shownTime } from '@/floor/runState'
import { useCalls } from '@/floor/useCalls'
import { useLeaveOut } from '@/floor/useLeaveOut'
import { useOneTab } from '@/floor/useOneTab'
import { useRun } from '@/floor/useRun'
import { FLOOR as floor } from '@/words/texts/floor'
import { OTHER as say } from '@/words/texts/floor-panels'

import { dueOf } from './due'

// The other run of this phone: its time and what is due in a strip; a tap changes over. Its calls begin with its name.
const props = defineProps<{ id: string }>()
const mine = useOneTab(props.id)
const live = useRun(props.id, () => mine.value)
const name = computed(() => live.run.value?.name || live.run.value?.title || '')
const calls = useCalls(
  live,
  () => !mine.value,
  () => name.value,
)
useLeaveOut(live, () => mine.value)
calls.wake()

const state = computed(() => live.state.value)
const now = computed(() => {
  const of = state.value
  if (!of) return ''
  if (of.mode === 'over') return say.over
  return shownTime(of)
})
const kind = computed(() => {
  const of = state.value
  if (!of || of.mode === 'over') return ''
  if (of.mode === 'paused') return floor.paused
  const due = dueOf(of)
  return due.given ? due.label : of.beat ? floor[of.beat.kind] : ''
})
</script>

<template>
  <RouterLink v-if="state" class="strip" :to="{ name: 'floor', params: { id } }" replace :aria-label="say.strip(name)">
    <strong>{{ name }}</strong>
    <span>{{ kind }}</span>
    <span class="clock">{{ now }}</span>
  </RouterLink>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-height: 64px;
  padding: 0 12px;
  border: 2px solid currentcolor;
  border-radius: 3px;
  color: inherit;
  text-decoration: none;
  font: 600 19px/1.1 var(--head);
}
strong {
  min-width: 0;
  overflow-wrap: anywhere;
}
.clock {
  font-size: 30px;
  font-variant-numeric: tabular-nums;
}
</style>
