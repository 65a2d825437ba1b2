<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Given, SessionDoc } from '@/api/types'
import { account } from '@/composables/useAccount'
import { usePeople } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { WHO_PANEL as say } from '@/words/texts/bench'

const props = defineProps<{
  document: SessionDoc
  squad: number
  /** Scores of the log that it goes on from, by block: they stand where nothing is typed. */
  taken: Readonly<Record<string, Partial<Record<string, number | null>>>>
}>()
const given = defineModel<Given>({ required: true })
/** As whom it is figured; '' for anyone. */
const person = defineModel<string>('person', { required: true })

const own = computed(() => account.value?.squads.find((one) => one.id === props.squad))
const plans = computed(() => own.value !== undefined && own.value.role !== 'athlete')
const { people } = usePeople(() => (plans.value ? props.squad : 0))
/** Who does not plan is figured as themselves, and as nobody else. */
const as = computed(() => [
  { value: '', label: say.anyone },
  ...people.value.map((one) => ({ value: one.id, label: one.name })),
  ...(!plans.value && own.value?.person ? [{ value: own.value.person, label: say.me }] : []),
])
const withWhat = computed(() => [
  { value: '', label: options.value.length ? say.theStandard : say.noOptionsHere },
  ...options.value.map((one) => ({ value: one, label: one })),
])

const option = ref('')
const scores = ref<Record<string, number>>({})

function everything(value: unknown, visit: (one: Record<string, unknown>) => void): void {
  if (Array.isArray(value)) value.forEach((one) => everything(one, visit))
  else if (typeof value === 'object' && value !== null) {
    visit(value as Record<string, unknown>)
    Object.values(value).forEach((one) => everything(one, visit))
  }
}
/** The words an option can be taken by: levels, kits, labels that stand in this session. */
const options = computed(() => {
  const words = new Set<string>()
  everything(props.document.blocks, (one) => {
    if (!Array.isArray(one.options)) return
    for (const each of one.options as { label: string; level?: string; kit?: string | string[] }[]) {
      if (each.level) words.add(each.level)
      for (const kit of Array.isArray(each.kit) ? each.kit : each.kit ? [each.kit] : []) words.add(kit)
      if (!each.level && !each.kit) words.add(each.label)
    }
  })
  return [...words]
})
/** Blocks whose score sets a value later on. */
const scored = computed(() => {
  const found = new Map<string, string>()
  everything(props.document.blocks, (one) => {
    const from = one.from as { block?: string; take?: string } | undefined
    if (from?.block && from.take) found.set(from.block, from.take)
  })
  return [...found]
})

watch([option, scores], () => {
  given.value = {
    ...(option.value ? { options: option.value } : {}),
    ...(Object.keys(scores.value).length
      ? {
          scores: Object.fromEntries(
            scored.value
              .map(([block, take]) => [block, { [take]: scores.value[block] }])
              .filter(([block]) => scores.value[String(block)] !== undefined),
          ),
        }
      : {}),
  } as Given
})
const fromTheLog = (block: string, take: string): string => {
  const made = props.taken[block]?.[take]
  return typeof made === 'number' ? say.fromTheLog(made) : ''
}
function score(block: string, value: number | null | undefined): void {
  const rest = Object.fromEntries(Object.entries(scores.value).filter(([key]) => key !== block))
  scores.value = value === null || value === undefined ? rest : { ...rest, [block]: value }
}
</script>

<template>
  <div class="who" role="group" :aria-label="say.asWhomWithWhat">
    <ChoiceField v-model="person" :label="say.asWhom" :said="say.as" :options="as" />
    <ChoiceField
      v-model="option"
      :label="say.withWhat"
      :said="say.with"
      :options="withWhat"
      :disabled="options.length === 0"
    />
    <NumberField
      v-for="[block, take] in scored"
      :key="block"
      :model-value="scores[block] ?? null"
      :label="say.of(take, block)"
      :said="say.of(take, block)"
      :placeholder="fromTheLog(block, take)"
      @update:model-value="score(block, $event)"
    />
  </div>
</template>

<style scoped>
.who {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font-size: 13px;
  color: var(--mute);
}
</style>
