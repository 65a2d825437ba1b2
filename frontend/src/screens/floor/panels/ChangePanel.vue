<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { FloorOffer } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import type { KeptRun } from '@/floor/kept'
import type { Given, LiveRun } from '@/floor/useRun'
import ChoiceField from '@/parts/ChoiceField.vue'
import { refusalText } from '@/words/refusal'
import { CHANGE as say } from '@/words/texts/floor-panels'

import HoldButton from '../HoldButton.vue'

// Another movement, a round more or fewer, a block left out, something put in: of what is not done yet. Needs the server.
const props = defineProps<{ live: LiveRun; run: KeptRun; disabled: boolean }>()
const emit = defineEmits<{ give: [given: Given] }>()
const offers = shallowRef<FloorOffer[] | null>(null)
const trouble = shallowRef<Refusal | null>(null)
const said = ref('')

async function ask(): Promise<void> {
  trouble.value = null
  try {
    offers.value = (await api.offers(props.run.id, props.live.now())).offers
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error
  }
}
void ask()

interface OfBlock {
  title: string
  whole: FloorOffer[]
  steps: Map<string, FloorOffer[]>
}
const KINDS = ['rounds-more', 'rounds-fewer', 'leave-out'] as const
/** By block: what can be done with it whole, and each of its movements with what may stand in its place. */
const blocks = computed(() => {
  const found = new Map<number, OfBlock>()
  for (const offer of offers.value ?? []) {
    const block: OfBlock = found.get(offer.block) ?? { title: offer.title, whole: [], steps: new Map() }
    found.set(offer.block, block)
    if (offer.name === undefined) block.whole.push(offer)
    else block.steps.set(offer.name, [...(block.steps.get(offer.name) ?? []), offer])
  }
  return [...found]
})
const wholeWord = (offer: FloorOffer): string => say.kinds[KINDS.find((kind) => kind === offer.kind) ?? 'leave-out']
const instead = ref<Record<string, number>>({})
const choices = (steps: FloorOffer[]) => [
  { value: -1, label: say.asIs },
  ...steps.map((one, value) => ({ value, label: one.to ?? '' })),
]

async function make(edits: unknown[]): Promise<void> {
  emit('give', { do: 'change', edits })
  said.value = say.done
  instead.value = {}
  // What may be changed next goes by what now stands.
  await new Promise((go) => setTimeout(go, 600))
  await ask()
}
const text = ref('')
const { trouble: unread, attempt } = useAttempt()
async function add(): Promise<void> {
  await attempt(async () => {
    const { edits } = await api.addedText(props.run.id, props.live.now(), text.value)
    text.value = ''
    await make(edits)
  })
}
</script>

<template>
  <section>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble.passing ? say.noNetwork : refusalText(trouble) }}</p>
    <p v-else-if="!offers" role="status">{{ say.reading }}</p>
    <template v-else>
      <p v-if="said" role="status">{{ said }}</p>
      <p v-if="blocks.length === 0">{{ say.nothing }}</p>
      <section v-for="[number, block] in blocks" :key="number" :aria-label="block.title">
        <h2>{{ block.title }}</h2>
        <div class="pairs">
          <HoldButton
            v-for="offer in block.whole"
            :key="offer.kind"
            :label="wholeWord(offer)"
            @held="disabled || make(offer.edits)"
          />
        </div>
        <div v-for="[name, steps] in block.steps" :key="name" class="field">
          <ChoiceField
            :model-value="instead[`${number}/${name}`] ?? -1"
            :label="say.instead(name)"
            :said="say.instead(name)"
            :options="choices(steps)"
            boxed
            @update:model-value="instead = { ...instead, [`${number}/${name}`]: $event ?? -1 }"
          />
          <HoldButton
            v-if="(instead[`${number}/${name}`] ?? -1) >= 0"
            :label="say.forAll"
            @held="disabled || make(steps[instead[`${number}/${name}`] ?? -1]?.edits ?? [])"
          />
        </div>
      </section>
      <form @submit.prevent="add">
        <h2>{{ say.text }}</h2>
        <ElInput v-model="text" type="textarea" :rows="3" :aria-label="say.text" />
        <p v-if="unread" class="note-bar" role="alert">{{ unread }}</p>
        <ElButton size="large" native-type="submit" :disabled="disabled || !text.trim()">{{ say.add }}</ElButton>
      </form>
    </template>
  </section>
</template>

<style scoped src="./panels.css"></style>
