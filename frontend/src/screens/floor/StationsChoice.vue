<script setup lang="ts">
import { ElRadio, ElRadioGroup } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { StationsWay } from '@/api/types'
import { whole } from '@/words/format'
import { STATIONS as say } from '@/words/texts/floor-panels'

// Fewer or more people than planned: stations laid out anew, with the minutes. As planned they stand unless told.
const props = defineProps<{ entry: string; people: number }>()
const edits = defineModel<readonly unknown[]>({ required: true })
const ways = shallowRef<StationsWay[]>([])
/** How many people these ways are for. Until the ways for a new number arrive, nothing can be chosen. */
const laidOutFor = ref(0)
const offline = ref(false)
const chosen = ref<Record<number, number>>({})

watch(
  () => props.people,
  async (people) => {
    chosen.value = {}
    edits.value = []
    if (people < 1) return
    try {
      const told = (await api.stationWays(props.entry, people)).ways
      if (people !== props.people) return
      ways.value = told
      laidOutFor.value = people
      offline.value = false
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (people !== props.people) return
      ways.value = []
      offline.value = true
    }
  },
  { immediate: true },
)
const blocks = computed(() => {
  const numbers = [...new Set(ways.value.map((one) => one.block))]
  return numbers.map((number) => [number, ways.value.filter((one) => one.block === number)] as const)
})
function choose(block: number, index: number): void {
  chosen.value = { ...chosen.value, [block]: index }
  edits.value = blocks.value.flatMap(([number, of]) => of[chosen.value[number] ?? 0]?.edits ?? [])
}
const groupsOf = (way: StationsWay): string => [...new Set(way.groups)].join(' / ')
</script>

<template>
  <p v-if="offline" class="quiet">{{ say.noNetwork }}</p>
  <section v-for="[number, some] in blocks" :key="number">
    <h2>
      {{ say.heading }} <small>{{ say.people(laidOutFor) }}</small>
    </h2>
    <ElRadioGroup
      :model-value="chosen[number] ?? 0"
      :aria-label="say.heading"
      :disabled="laidOutFor !== people"
      class="ways"
      @update:model-value="choose(number, Number($event))"
    >
      <ElRadio v-for="(way, index) in some" :key="way.kind" :value="index" size="large">
        {{ say.way(say.kinds[way.kind], whole(way.s / 60)) }} ·
        <span v-if="way.fits">{{ say.groups(groupsOf(way)) }}</span>
        <strong v-else>{{ say.full }}</strong>
      </ElRadio>
    </ElRadioGroup>
    <p class="quiet">{{ some[chosen[number] ?? 0]?.stations.join(', ') }}</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 18px;
  border-bottom: 1px solid var(--rule);
}
small {
  font: 14px var(--text);
  color: var(--mute);
}
.ways {
  flex-direction: column;
  align-items: flex-start;
}
p {
  margin: 4px 0;
}
.quiet {
  color: var(--mute);
}
section {
  margin-top: 14px;
}
</style>
