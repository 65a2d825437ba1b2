<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { queryClient, troubleOf } from '@/api/query'
import type { DocumentIn, Term } from '@/api/types'
import { useFirstPath } from '@/composables/useFirstPath'
import { amount } from '@/words/format'
import { OPENED_FIGURE as say } from '@/words/texts/parts'

import MethodsLink from './MethodsLink.vue'
import { useOpening } from './opening'

const props = defineProps<{
  figure: string
  /** The paragraph of the methods that is linked above already. */ under?: string
}>()
/** Arithmetic of what was typed a while ago is not kept for long: each is as large as its session. */
const KEPT_MS = 30_000
const { figures, question, light: point } = useOpening()
const { did } = useFirstPath()
onMounted(() => did({ what: 'look' }))
const unfolded = ref(new Set<string>())
// New figures mean new arithmetic: what is open is asked for anew once they are there.
const asked = shallowRef(question())
watch([() => props.figure, figures], () => (asked.value = question()))
const { data, error } = useQuery(
  {
    queryKey: computed(() => ['explain', props.figure, JSON.stringify(asked.value)]),
    queryFn: ({ queryKey: [, figure, body], signal }) =>
      api.explain({ ...(JSON.parse(String(body)) as DocumentIn), figure: String(figure) }, signal),
    enabled: computed(() => asked.value !== null),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: KEPT_MS,
  },
  queryClient,
)
const opened = computed(() => data.value?.explanation ?? null)
/** Where the methods say how it is estimated; once, where one thing opens within another. */
const paragraph = computed(() => (data.value && data.value.paragraph !== props.under ? data.value.paragraph : null))
const trouble = troubleOf(error)

const JOINS: Record<string, string> = { sum: '+', product: '×', ratio: '÷', floor: '÷', max: 'or', rms: 'and' }
const HEADS: Record<string, string> = {
  sum: say.addedUp,
  product: 'multiplied',
  ratio: 'divided',
  rms: say.quadraticMean,
  max: say.theLargest,
  floor: say.wholeRepsThatFit,
  lookup: say.readOffTheEffortScale,
  given: say.asTyped,
}
/** Two terms of a ratio or a product are said as a sentence: 15:24 of work in 24:30. What joins them, or nothing. */
const between = computed(() => {
  const { operator, terms, unit } = opened.value ?? {}
  if (terms?.length !== 2) return null
  if (operator === 'product') return JOINS.product
  if (operator !== 'ratio') return null
  return unit === 'share' || terms[0]?.unit !== terms[1]?.unit ? say.in : say.to
})
/** How it came about; the figure itself stands where it was opened. A sentence needs no such word. */
const how = computed(() => {
  const { operator, note, terms } = opened.value ?? {}
  const words =
    between.value === null && operator ? [terms?.length || operator === 'given' ? HEADS[operator] : say.none] : []
  return [...words, ...(note ? [note] : [])].join(' · ')
})
function said(one: Term, index: number): string {
  // Of the whole it is enough to say how much it is.
  if (opened.value?.operator === 'ratio' && index === 1 && between.value === say.in) return termText(one)
  return opened.value?.operator === 'ratio' ? say.of(termText(one), one.label) : `${one.label} ${termText(one)}`
}
function termText(one: Term): string {
  if ((one.count ?? 1) > 1 && one.each !== undefined) {
    const each = `${one.count} × ${amount(one.each, one.unit)}`
    // Efforts are averaged, not added: their sum would mean nothing.
    return one.unit === 'effort' ? each : `${each} = ${amount(one.value, one.unit)}`
  }
  return amount(one.value, one.unit)
}
/** Pointing at a term lights the windows it is about: a block's, or a movement's. */
function light(one: Term): void {
  const block = /^blocks\.(\d+)\b/.exec(one.figure ?? '')?.[1]
  const movement = /^(?:movements|visits)\.([^.]+)/.exec(one.figure ?? '')?.[1]
  point(block !== undefined ? { block: Number(block) } : { movement: movement ?? one.label })
}
function toggle(figure: string): void {
  const next = new Set(unfolded.value)
  if (!next.delete(figure)) next.add(figure)
  unfolded.value = next
}
</script>

<template>
  <div class="why">
    <p v-if="trouble">{{ trouble }}</p>
    <p v-else-if="!opened" role="status">…</p>
    <template v-else>
      <p v-if="how" class="how">{{ how }}</p>
      <div v-if="between !== null" class="sentence">
        <template v-for="(one, index) in opened.terms" :key="index">
          <template v-if="index > 0">{{ ` ${between} ` }}</template>
          <component
            :is="one.figure ? 'button' : 'span'"
            class="plain part"
            :type="one.figure ? 'button' : undefined"
            :title="one.label"
            :aria-expanded="one.figure ? unfolded.has(one.figure) : undefined"
            @click="one.figure && toggle(one.figure)"
            @mouseenter="light(one)"
            @mouseleave="point(null)"
          >
            {{ said(one, index)
            }}<i v-if="one.figure" aria-hidden="true"> {{ unfolded.has(one.figure) ? '−' : '+' }}</i>
          </component>
        </template>
        <template v-for="(one, index) in opened.terms" :key="`o${index}`">
          <OpenedFigure v-if="one.figure && unfolded.has(one.figure)" :figure="one.figure" :under="data?.paragraph" />
        </template>
      </div>
      <ul v-else>
        <li v-for="(one, index) in opened.terms" :key="index" @mouseenter="light(one)" @mouseleave="point(null)">
          <component
            :is="one.figure ? 'button' : 'span'"
            class="plain term"
            :type="one.figure ? 'button' : undefined"
            :aria-expanded="one.figure ? unfolded.has(one.figure) : undefined"
            @click="one.figure && toggle(one.figure)"
          >
            <span class="join" aria-hidden="true">{{ index > 0 ? JOINS[opened.operator] : '' }}</span>
            <span class="label">{{ one.label }}</span>
            <b>{{ termText(one) }}</b>
            <i aria-hidden="true">{{ one.figure ? (unfolded.has(one.figure) ? '−' : '+') : '' }}</i>
          </component>
          <OpenedFigure v-if="one.figure && unfolded.has(one.figure)" :figure="one.figure" :under="data?.paragraph" />
        </li>
      </ul>
      <MethodsLink v-if="paragraph" :paragraph="paragraph" />
    </template>
  </div>
</template>

<style scoped>
.why {
  background: var(--paper-2);
  padding: 5px 8px;
  font-size: 12.5px;
  color: #474239;
  margin: 0 0 4px;
}
.why .why {
  border-left: 2px solid var(--rule);
  margin-left: 8px;
  padding-right: 0;
}
p {
  margin: 0;
}
.how {
  color: var(--mute);
}
.sentence > .part {
  font-weight: 600;
}
button.part:hover {
  text-decoration: underline;
  text-underline-offset: 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.term {
  display: grid;
  grid-template-columns: 18px 1fr auto 16px;
  width: 100%;
  text-align: left;
  padding: 1px 0;
  cursor: default;
}
button.term {
  cursor: pointer;
}
.join {
  color: var(--mute);
}
i {
  font-style: normal;
  text-align: right;
  color: var(--mute);
}
</style>
