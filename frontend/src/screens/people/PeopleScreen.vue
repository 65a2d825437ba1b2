<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElEmpty, ElInput, ElSkeleton } from 'element-plus'
import { computed, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import { plansHere, squadNow } from '@/composables/useAccount'
import { useGroups } from '@/composables/useTables'
import type { Undoable } from '@/composables/undoable'
import ChoiceField from '@/parts/ChoiceField.vue'
import UndoBar from '@/parts/UndoBar.vue'
import { PEOPLE_SCREEN as say } from '@/words/texts/people'

import AddPerson from './AddPerson.vue'
import GroupsPanel from './GroupsPanel.vue'
import PeopleList from './PeopleList.vue'
import PeopleTable from './PeopleTable.vue'

type Panel = 'add' | 'list' | 'groups'
const panel = ref<Panel | null>(null)
const toggle = (which: Panel): void => {
  panel.value = panel.value === which ? null : which
}
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.people(squadNow.value)),
    queryFn: () => api.people(squadNow.value),
    enabled: plansHere,
  },
  queryClient,
)
const notRead = troubleOf(error)
const { groups } = useGroups(squadNow)
const words = ref('')
const group = ref(0)
const choices = computed(() => [
  { value: 0, label: say.everybody },
  ...groups.value.map((one) => ({ value: one.id, label: one.name })),
])
const people = computed(() => data.value ?? null)
const shown = computed(() =>
  (people.value ?? []).filter(
    (one) =>
      one.name.toLowerCase().includes(words.value.trim().toLowerCase()) &&
      (group.value === 0 || one.groups.some((each) => each.id === group.value)),
  ),
)
/** The import that was made last. */
const undoable = shallowRef<Undoable | null>(null)
async function imported(change: Undoable): Promise<void> {
  undoable.value = change
  await changed()
}
async function undone(): Promise<void> {
  undoable.value = null
  await changed()
}
const changed = () => Promise.all([askAgain(KEYS.people(squadNow.value)), askAgain(KEYS.groups(squadNow.value))])
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ say.people }}</h1>
      <span v-if="people" class="said">{{ say.count(people.length) }}</span>
      <template v-if="people?.length">
        <ElInput
          v-model="words"
          class="find"
          :aria-label="say.find"
          :placeholder="say.findPlaceholder"
          maxlength="60"
          clearable
        />
        <ChoiceField v-if="groups.length" v-model="group" :label="say.group" :options="choices" />
      </template>
      <span class="grow"></span>
      <template v-if="plansHere">
        <ElButton :aria-expanded="panel === 'groups'" @click="toggle('groups')">{{ say.groups }}</ElButton>
        <ElButton :aria-expanded="panel === 'list'" @click="toggle('list')">{{ say.aList }}</ElButton>
        <ElButton type="primary" :aria-expanded="panel === 'add'" @click="toggle('add')">{{ say.addOne }}</ElButton>
      </template>
    </header>
    <AddPerson v-if="panel === 'add'" :squad="squadNow" @changed="changed" @close="panel = null" />
    <PeopleList v-if="panel === 'list'" :squad="squadNow" @changed="imported" @close="panel = null" />
    <UndoBar v-if="undoable" :change="undoable" @undone="undone" @dismiss="undoable = null" />
    <GroupsPanel
      v-if="panel === 'groups'"
      :squad="squadNow"
      :groups="groups"
      @changed="changed"
      @close="panel = null"
    />
    <p v-if="!plansHere" class="note-bar" role="alert">{{ say.onlyCoaches }}</p>
    <p v-else-if="notRead" class="note-bar" role="alert">{{ notRead }}</p>
    <div v-else-if="!people" class="waiting" role="status">
      <span class="visually-hidden">{{ say.readingPeople }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <ElEmpty v-else-if="people.length === 0" :image-size="0" :description="say.nobodyYet" />
    <ElEmpty v-else-if="shown.length === 0" :image-size="0" :description="say.nobodyCalledSo" />
    <PeopleTable v-else :people="shown" />
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped>
main {
  overflow: auto;
}
.find {
  width: 14em;
}
.waiting,
:deep(.el-empty) {
  padding: 20px;
}
</style>
