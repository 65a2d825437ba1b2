<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElSkeleton } from 'element-plus'
import { computed } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient, troubleOf } from '@/api/query'
import type { MovementDef } from '@/api/types'
import { plansHere, squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import SureButton from '@/parts/SureButton.vue'
import { percent } from '@/words/format'
import { MOVEMENT_CHANGES as changes, MOVEMENT_FIELDS as FIELDS, MOVEMENT_PAGE as say } from '@/words/texts/movements'

import ChainPicture from './ChainPicture.vue'

// One movement: what is known of it, what is easier and harder, where it is used; changed, copied, removed.
const props = defineProps<{ movement: string }>()
const emit = defineEmits<{ show: [key: string]; edit: [movement: MovementDef, changes: boolean]; removed: [] }>()
const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.movement(squadNow.value, props.movement)),
    queryFn: () => api.movement(props.movement, squadNow.value),
  },
  queryClient,
)
const looked = computed(() => data.value ?? null)
const trouble = troubleOf(error)
const { nameOf } = useMovements()
const { labelOf } = useTables()
const MOST = 12
const one = computed(() => looked.value?.movement)
const weights = (of: Readonly<Record<string, number>>): string =>
  Object.entries(of)
    .sort((a, b) => b[1] - a[1])
    .map(([name, share]) => (share === 1 ? name : `${name} ${percent(share)}`))
    .join(', ')
const names = (keys: readonly string[] | string | null | undefined): string =>
  (typeof keys === 'string' ? [keys] : (keys ?? [])).map(nameOf).join(', ')
/** What is known, field by field; what is not said is left out. */
const known = computed(() => {
  const of = one.value
  if (!of) return []
  const grade = of.landing_grade ? labelOf('landing_grades', of.landing_grade) : ''
  const landings = of.landings ? [of.landings, grade].filter(Boolean).join(', ') : ''
  const pairs: [string, string | number | null | undefined][] = [
    ['patterns', weights(of.patterns ?? {})],
    ['position', of.position],
    ['plane', of.plane],
    ['sides', of.sides ? labelOf('sides', of.sides) : ''],
    ['rep_is', of.rep_is],
    ['pace_s', of.pace_s],
    ['speed_mps', of.speed_mps],
    ['met', of.met],
    ['met_source', of.met_source],
    ['landings', landings],
    ['skilled', of.skilled ? say.yes : ''],
    ['stresses', (of.stresses ?? []).join(', ')],
    ['kit', (of.kit ?? []).join(', ')],
    ['contains', (of.contains ?? []).map(({ movement, reps }) => `${reps} ${nameOf(movement)}`).join(', ')],
    ['relieves', (of.relieves ?? []).join(', ')],
    ['kit_swaps', names(of.kit_swaps)],
    ['cues', (of.cues ?? []).join(' · ')],
    ['cautions', (of.cautions ?? []).join(' · ')],
  ]
  return pairs.filter(([, value]) => value !== '' && value !== null && value !== undefined)
})
const use = computed(() => looked.value?.use)
const plan = computed(() => {
  const { planned = 0, kept = 0, logged = 0 } = use.value ?? {}
  return [planned ? say.follows(planned) : '', kept ? say.keeps(kept) : '', logged ? say.logged(logged) : '']
    .filter(Boolean)
    .join(' ')
})
const alone = computed(() => looked.value?.chain.columns.length === 1)
const status = computed(() => (looked.value?.own ? (looked.value.ships ? say.ownOver : say.ownOne) : say.ships))
const { trouble: refused, attempt } = useAttempt()
const remove = () =>
  attempt(async () => {
    await api.removeMovement(props.movement, squadNow.value)
    emit('removed')
  })
</script>

<template>
  <p v-if="trouble" class="note-bar" role="alert">{{ say.noSuch }} {{ trouble }}</p>
  <div v-else-if="!looked || !one" role="status">
    <span class="visually-hidden">{{ say.reading }}</span>
    <ElSkeleton :rows="6" animated :throttle="200" />
  </div>
  <article v-else>
    <h2 class="title">{{ one.name ?? one.key }}</h2>
    <p class="said">
      {{ status }}<template v-if="one.aliases?.length"> · {{ say.called(one.aliases.join(', ')) }}</template>
    </p>
    <p v-if="plansHere" class="line">
      <ElButton size="small" @click="emit('edit', one, true)">{{ say.edit }}</ElButton>
      <ElButton size="small" @click="emit('edit', one, false)">{{ say.copy }}</ElButton>
      <SureButton
        v-if="looked.own"
        :label="looked.ships ? say.putBack : say.remove"
        :warning="looked.ships ? say.putBackWarning : say.removeWarning"
        @sure="remove"
      />
    </p>
    <p v-if="refused" class="note-bar" role="alert">{{ refused }}</p>
    <section>
      <h2>{{ say.chain }}</h2>
      <p v-if="alone" class="said">{{ say.alone }}</p>
      <ChainPicture v-else :chain="looked.chain" @show="emit('show', $event)" />
    </section>
    <div class="halves">
      <section>
        <h2>{{ say.known }}</h2>
        <dl>
          <div v-for="[field, value] in known" :key="field">
            <dt>{{ FIELDS[field] }}</dt>
            <dd>{{ value }}</dd>
          </div>
        </dl>
        <template v-if="looked.over.length">
          <h3>{{ say.differs }}</h3>
          <p v-for="each in looked.over" :key="each.field">
            {{ changes.fromTo(FIELDS[each.field], each.was || changes.nothing, each.becomes || changes.nothing) }}
          </p>
        </template>
      </section>
      <section>
        <h2>{{ say.used }}</h2>
        <p v-if="use?.sessions.length === 0" class="said">{{ say.unused }}</p>
        <ul v-else class="lines">
          <li v-for="each in use?.sessions.slice(0, MOST)" :key="each.session">
            <RouterLink :to="{ name: 'bench', params: { id: each.session } }" class="grow">{{ each.title }}</RouterLink>
            <span class="said">{{ each.times === 1 ? say.once : say.times(each.times) }}</span>
          </li>
        </ul>
        <p v-if="(use?.sessions.length ?? 0) > MOST" class="said">{{ say.more((use?.sessions.length ?? 0) - MOST) }}</p>
        <p v-if="plan">{{ plan }}</p>
      </section>
    </div>
  </article>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.title {
  border: 0;
  font-size: 27px;
  margin: 0;
}
h3 {
  font-size: 16px;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  gap: 12px;
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
}
dt {
  flex: 0 0 150px;
  color: var(--mute);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.halves {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 30px;
}
.line {
  margin-bottom: 16px;
}
.line .el-button + .el-button {
  margin-left: 0;
}
@media (max-width: 1000px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
