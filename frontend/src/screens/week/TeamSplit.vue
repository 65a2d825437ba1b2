<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { TEAM_SPLIT as say } from '@/words/texts/week'

// Even teams of whoever comes, for this day alone: by pace or by lot.
const props = defineProps<{ entry: string; /** Whether they are split already. */ split: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { choicesOf } = useTables()
const count = ref<number | null>(2)
const by = ref<'pace' | 'lot'>('pace')
const { trouble, attempt } = useAttempt()
const put = (teams: number) =>
  attempt(async () => {
    await api.split(props.entry, { count: teams, by: by.value })
    emit('changed')
  })
</script>

<template>
  <form class="split" :aria-label="say.splitIntoTeams" @submit.prevent="count && put(count)">
    <NumberField v-model="count" :label="say.teams" :said="say.splitInto" :min="2" :max="20" :unit="say.teams" />
    <ChoiceField
      v-model="by"
      :label="say.howTheyAreEven"
      :options="choicesOf('splits') as { value: 'pace' | 'lot'; label: string }[]"
    />
    <ElButton size="small" native-type="submit">{{ split ? say.splitAnew : say.split }}</ElButton>
    <button v-if="split" type="button" class="link" @click="put(0)">{{ say.noTeams }}</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.split {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin: 2px 0 6px;
}
.note-bar {
  flex-basis: 100%;
  margin: 0;
}
</style>
