<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref } from 'vue'

import { api } from '@/api/client'
import type { CountedGroup } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import GroupMark from '@/parts/GroupMark.vue'
import SureButton from '@/parts/SureButton.vue'
import { GROUPS_PANEL as say } from '@/words/texts/people'

const props = defineProps<{ squad: number; groups: readonly CountedGroup[] }>()
const emit = defineEmits<{ changed: []; close: [] }>()
const { choicesOf } = useTables()
const name = ref('')
const { trouble, attempt } = useAttempt()
const changed = (work: () => Promise<unknown>) =>
  attempt(async () => {
    await work()
    emit('changed')
  })
async function make(): Promise<void> {
  if (await changed(() => api.addGroup({ name: name.value, people: [], squad: props.squad }))) name.value = ''
}
</script>

<template>
  <section class="strip" :aria-label="say.groups" @keydown.esc.stop="emit('close')">
    <p>
      {{ say.why }} <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </p>
    <p v-if="!groups.length">{{ say.none }}</p>
    <ul>
      <li v-for="one in groups" :key="one.id">
        <GroupMark :group="one" bare />
        <ElInput
          :model-value="one.name"
          class="name"
          size="small"
          maxlength="40"
          :aria-label="say.nameOf(one.name)"
          @change="changed(() => api.changeGroup(one.id, { name: String($event) }))"
        />
        <ChoiceField
          :model-value="one.mark"
          :label="say.markOf(one.name)"
          :options="choicesOf('marks')"
          @update:model-value="$event && changed(() => api.changeGroup(one.id, { mark: $event }))"
        />
        <span class="said">{{ say.people(one.count) }}</span>
        <SureButton
          :label="say.end"
          :warning="say.endWarning"
          :about="one.name"
          @sure="changed(() => api.endGroup(one.id))"
        />
      </li>
    </ul>
    <form @submit.prevent="make">
      <ElInput
        v-model="name"
        class="name"
        size="small"
        maxlength="40"
        :aria-label="say.newGroup"
        :placeholder="say.newGroup"
      />
      <ElButton native-type="submit" size="small" :disabled="!name.trim()">{{ say.make }}</ElButton>
    </form>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
ul {
  flex-basis: 100%;
  list-style: none;
  margin: 0;
  padding: 0;
}
li,
form {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  min-height: 32px;
}
.name {
  width: 13em;
}
.said {
  color: var(--mute);
}
</style>
