<script setup lang="ts">
import { useTables } from '@/composables/useTables'
import { EFFORT_FIELD as say } from '@/words/texts/bench'

// The effort of a block or a movement; what it has without one is said by whoever stands around it.
defineProps<{ effort: string | null | undefined; otherwise: string }>()
const emit = defineEmits<{ choose: [effort: string] }>()
const { tables } = useTables()
</script>

<template>
  <label>
    {{ say.effort }}
    <select :value="effort ?? ''" @change="emit('choose', ($event.target as HTMLSelectElement).value)">
      <option value="">{{ otherwise }}</option>
      <option v-for="one in tables.efforts" :key="one.key" :value="one.key">{{ one.label }}</option>
    </select>
  </label>
</template>

<style scoped>
label {
  color: var(--mute);
}
select {
  font-weight: 600;
  color: var(--ink);
}
</style>
