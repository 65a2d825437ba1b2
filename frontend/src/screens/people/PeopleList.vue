<script setup lang="ts">
import { ElButton, ElInput, ElUpload, type UploadFile } from 'element-plus'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { ListedPerson } from '@/api/types'
import { textOf } from '@/composables/textOf'
import type { Undoable } from '@/composables/undoable'
import { useAttempt } from '@/composables/useAttempt'
import { placeText, refusalText } from '@/words/refusal'
import { PEOPLE_LIST as say } from '@/words/texts/people'

// A list of people: shown before anything is taken in.
const props = defineProps<{ squad: number }>()
const emit = defineEmits<{ changed: [change: Undoable]; close: [] }>()
const LARGEST = 200_000
const text = ref('')
const seen = shallowRef<readonly ListedPerson[] | null>(null)
/** Every line that is wrong, by its place. */
const wrong = ref<string[]>([])
const { trouble, attempt } = useAttempt()
const added = computed(() => (seen.value ?? []).filter((one) => !one.known).length)
watch(text, () => {
  seen.value = null
  wrong.value = []
})

async function look(): Promise<void> {
  wrong.value = []
  try {
    seen.value = await api.previewPeople(text.value, props.squad)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    seen.value = null
    wrong.value = error.problems.length ? error.problems.map(placeText) : [refusalText(error)]
  }
}
async function take(): Promise<void> {
  await attempt(async () => {
    const { added: count, undo } = await api.takePeople(text.value, props.squad)
    emit('changed', { done: say.done(count), undo: () => api.undoImport(undo) })
    emit('close')
  })
}
async function fromFile({ raw }: UploadFile): Promise<void> {
  if (!raw) return
  if (raw.size > LARGEST) {
    wrong.value = [say.tooLarge]
    return
  }
  text.value = await textOf(raw)
  // What was seen of another text goes before this one is looked at.
  await nextTick()
  await look()
}
const happens = (one: ListedPerson): string =>
  one.known ? (one.groups.length ? say.isThere : say.staysAsIs) : say.isNew
</script>

<template>
  <form class="strip" :aria-label="say.bringAList" @submit.prevent="look" @keydown.esc.stop="emit('close')">
    <div class="how">
      {{ say.how }}
      <ElUpload
        class="file"
        accept=".csv,.txt,text/csv,text/plain"
        :auto-upload="false"
        :show-file-list="false"
        :on-change="fromFile"
      >
        <!-- The upload is a button itself: what stands in it only looks like one. -->
        <span class="link">{{ say.orAFile }}</span>
      </ElUpload>
    </div>
    <ElInput v-model="text" type="textarea" :rows="5" :aria-label="say.list" :placeholder="say.example" />
    <ElButton native-type="submit" :type="seen ? 'default' : 'primary'" :disabled="!text.trim()">{{
      say.look
    }}</ElButton>
    <ElButton v-if="seen" type="primary" @click="take">{{ say.take(added) }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    <ol v-if="wrong.length" class="wrong" role="alert">
      <li v-for="one in wrong" :key="one">{{ one }}</li>
    </ol>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-if="seen" class="seen">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ say.line }}</th>
            <th scope="col">{{ say.name }}</th>
            <th scope="col">{{ say.groups }}</th>
            <th scope="col">{{ say.what }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in seen" :key="one.line">
            <td>{{ one.line }}</td>
            <td>{{ one.name }}</td>
            <td>{{ one.groups.join(', ') }}</td>
            <td :class="{ known: one.known }">{{ happens(one) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </form>
</template>

<style scoped src="@/styles/strip.css"></style>
<style scoped>
.how {
  flex-basis: 100%;
}
.wrong {
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 6px 12px 6px 30px;
  max-height: 160px;
  overflow: auto;
  overflow-wrap: anywhere;
}
.seen {
  flex-basis: 100%;
  max-height: 320px;
  overflow: auto;
}
table {
  border-collapse: collapse;
  min-width: min(100%, 640px);
}
th {
  text-align: left;
  font: 500 13px var(--head);
  border-bottom: 1px solid var(--ink);
}
td {
  border-bottom: 1px solid var(--rule);
  padding: 2px 12px 2px 0;
}
.known {
  color: var(--mute);
}
.file {
  display: inline-block;
  margin-left: 8px;
}
</style>
