<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput, ElUpload, type UploadFile } from 'element-plus'
import { computed, nextTick, ref, watch } from 'vue'

import ChoiceField from '@/parts/ChoiceField.vue'
import { SESSION_FILTERS as say } from '@/words/texts/sessions'

import type { SortBy } from './useSessionList'

// The head of the list: what it is narrowed to, and what can be taken in.
const props = defineProps<{ tags: readonly string[]; rows: readonly string[] }>()
const emit = defineEmits<{ sort: [by: SortBy]; take: [files: File[]] }>()
const words = defineModel<string>('words', { required: true })
const tag = defineModel<string>('tag', { required: true })
const archived = defineModel<boolean>('archived', { required: true })

const tagChoices = computed(() => [
  { value: '', label: say.anyTag },
  ...props.tags.map((one) => ({ value: one, label: one })),
])
const share = ref<string | null>(null)
const shares = computed(() => props.rows.map((row) => ({ value: row, label: say.shareOfRow(row) })))
watch(share, (row) => row && emit('sort', `share:${row}`))
/** Files come one by one; those that were chosen together are taken together. */
let together: File[] = []
function taken({ raw }: UploadFile): void {
  if (!raw) return
  together = [...together, raw]
  if (together.length > 1) return
  void nextTick(() => {
    emit('take', together)
    together = []
  })
}
</script>

<template>
  <header>
    <h1>{{ say.sessions }}</h1>
    <ElInput
      v-model="words"
      class="search"
      type="search"
      :aria-label="say.search"
      :placeholder="say.titleOrTag"
      autocomplete="off"
    />
    <ChoiceField v-model="tag" :label="say.tag" :options="tagChoices" />
    <ChoiceField v-model="share" :label="say.sortByTheShareOf" :placeholder="say.shareOf" :options="shares" />
    <ElCheckbox v-model="archived">{{ say.putAway }}</ElCheckbox>
    <span class="grow"></span>
    <a href="/api/movements.csv" download>{{ say.movementsAsCsv }}</a>
    <ElUpload
      class="taking"
      accept=".json,.txt,.csv"
      multiple
      :auto-upload="false"
      :show-file-list="false"
      :on-change="taken"
    >
      <!-- The upload is a button itself: what stands in it only looks like one. -->
      <span class="el-button">{{ say.takeInAFile }}</span>
    </ElUpload>
    <RouterLink v-slot="{ href, navigate }" :to="{ name: 'bench', params: { id: 'new' } }" custom>
      <ElButton tag="a" type="primary" :href="href" @click="navigate">{{ say.newSession }}</ElButton>
    </RouterLink>
  </header>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped>
header {
  padding-inline: 0;
  gap: 6px 14px;
  border-bottom: 0;
}
.search {
  width: 190px;
}
.taking {
  display: inline-flex;
}
</style>
