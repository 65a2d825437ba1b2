<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useClipboard } from '@vueuse/core'
import { ElButton, ElSkeleton } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import { turnToSquad } from '@/composables/squadAddress'
import { useAttempt } from '@/composables/useAttempt'
import { saveFile } from '@/composables/useFiles'
import ChoiceField from '@/parts/ChoiceField.vue'
import ForeseenLines from '@/parts/ForeseenLines.vue'
import { CARD_SCREEN as say } from '@/words/texts/card'

import CardSheet from './CardSheet.vue'

const props = defineProps<{ id: string }>()
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.card(props.id)),
    async queryFn({ queryKey }) {
      const session = await api.session(String(queryKey[1]))
      return { session, card: (await api.card(session.document, session.squad)).card }
    },
    // The Bench may have changed it since.
    gcTime: 0,
  },
  queryClient,
)
const card = computed(() => data.value?.card ?? null)
const session = computed(() => data.value?.session ?? null)
watch(session, (now) => now && turnToSquad(now.squad), { immediate: true })
const notRead = troubleOf(error)
const { trouble: refused, attempt } = useAttempt()
const trouble = computed(() => refused.value || notRead.value)

type Paper = 'a4' | 'letter'
const paper = ref<Paper>('a4')
const PAPERS: { value: Paper; label: string }[] = [
  { value: 'a4', label: 'A4' },
  { value: 'letter', label: say.letter },
]
const sharing = typeof navigator.canShare === 'function' && navigator.canShare({ text: 'a' })
const { copy: toClipboard, copied } = useClipboard({ legacy: true })
const print = (): void => window.print()
/** Hand something to the phone's own sheet; who closes the sheet has changed their mind. */
async function shared(what: ShareData): Promise<void> {
  try {
    await navigator.share(what)
  } catch (error) {
    if (!(error instanceof DOMException && error.name === 'AbortError')) throw error
  }
}
const pdf = () =>
  attempt(async () => {
    if (!session.value) return
    const made = await api.cardPdf(session.value.document, session.value.squad, paper.value)
    const file = new File([made], 'card.pdf', { type: 'application/pdf' })
    if (navigator.canShare?.({ files: [file] })) await shared({ files: [file] })
    else saveFile('card.pdf', made)
  })
const copy = () =>
  attempt(async () => {
    if (!session.value) return
    const { document, squad } = session.value
    const { text } = await api.wordsOf(document, squad)
    if (navigator.canShare?.({ text })) await shared({ title: document.title, text })
    else await toClipboard(text)
  })
</script>

<template>
  <main id="main" class="screen">
    <header class="bar">
      <RouterLink :to="{ name: 'bench', params: { id } }">{{ say.backToTheBench }}</RouterLink>
      <span class="grow"></span>
      <ChoiceField v-model="paper" :label="say.paper" :said="say.paper" :options="PAPERS" />
      <ElButton @click="copy">{{ copied ? say.copied : sharing ? say.shareAsText : say.copyAsBoardText }}</ElButton>
      <ElButton @click="pdf">{{ say.pdf }}</ElButton>
      <ElButton type="primary" @click="print">{{ say.print }}</ElButton>
    </header>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-else-if="card === null" role="status">
      <span class="visually-hidden">{{ say.writingTheCard }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <CardSheet v-if="card" :card="card" :paper="paper">
      <ForeseenLines v-if="session" :document="session.document" :squad="session.squad" />
    </CardSheet>
  </main>
</template>

<style scoped>
.screen {
  overflow: auto;
  padding: 0 20px 40px;
}
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 58px;
  flex-wrap: wrap;
}
.grow {
  flex: 1;
}
@media print {
  .bar {
    display: none;
  }
  .screen {
    padding: 0;
    overflow: visible;
  }
}
</style>
