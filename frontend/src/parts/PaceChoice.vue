<script setup lang="ts">
import { computed } from 'vue'

import { account } from '@/composables/useAccount'
import { usePeople } from '@/composables/useTables'
import { PACE_CHOICE as say } from '@/words/texts/foreseen'

import ChoiceField from './ChoiceField.vue'

// At whose pace something is figured: the squad's, somewhere in this group's span, one person's; '' the squad's.
const props = defineProps<{ squad: number }>()
const whose = defineModel<string>({ required: true })

const own = computed(() => account.value?.squads.find((one) => one.id === props.squad))
const plans = computed(() => own.value !== undefined && own.value.role !== 'athlete')
const { people } = usePeople(() => (plans.value ? props.squad : 0))
const choices = computed(() => [
  { value: '', label: say.squad },
  ...(['slowest', 'middle', 'quickest'] as const).map((one) => ({ value: one, label: say[one] })),
  ...people.value.map((one) => ({ value: one.id, label: one.name })),
  ...(!plans.value && own.value?.person ? [{ value: own.value.person, label: say.me }] : []),
])
</script>

<template>
  <ChoiceField v-model="whose" :label="say.label" :said="say.label" :options="choices" />
</template>
