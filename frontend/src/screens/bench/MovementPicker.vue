<script setup lang="ts">
import { ref } from 'vue'

import MovementPicker from '@/parts/MovementPicker.vue'

import { useBench } from './bench'
import MovementForm from './MovementForm.vue'

// The picker as the Bench has it: with the document's own movements, and a form for those that nobody knows yet.
defineProps<{ label: string; start?: string; near?: string }>()
defineEmits<{ pick: [key: string]; close: [] }>()
const { document } = useBench()
const defining = ref<string | null>(null)
</script>

<template>
  <MovementForm v-if="defining !== null" :words="defining" @made="$emit('pick', $event)" @close="defining = null" />
  <MovementPicker
    v-else
    :label="label"
    :start="start"
    :near="near"
    :own="document?.movements ?? []"
    definable
    @pick="$emit('pick', $event)"
    @define="defining = $event"
    @close="$emit('close')"
  />
</template>
