<script setup lang="ts">
import { computed, ref } from 'vue'

import OpenedFigure from '@/parts/OpenedFigure.vue'
import { signed } from '@/words/format'

import { useBench } from './bench'
import type { Big, Row } from './useTally'

// The four figures that stand first. Each opens its arithmetic below the row, one at a time.
const props = defineProps<{ big: Big[] }>()
const { deltas, lit, light } = useBench()
const open = ref<string | null>(null)
const opened = computed(() => props.big.find((one) => one.label === open.value))
const toggle = (label: string): void => {
  open.value = open.value === label ? null : label
}
const shines = (one: Big): boolean => one.parts.some((part) => light.value.kinds.has(part.lights?.kind ?? ''))
function delta(part: Row): string {
  const by = deltas.value?.[part.figure]
  return by ? signed(by, part.unit ?? 'count') : ''
}
</script>

<template>
  <dl class="big">
    <div v-for="one in big" :key="one.label" :class="{ shines: shines(one) }">
      <dt>{{ one.label }}</dt>
      <dd :class="{ several: one.parts.length > 1 }">
        <button type="button" class="plain" :aria-expanded="open === one.label" @click="toggle(one.label)">
          <span class="visually-hidden">{{ one.label }}: </span>
          <template v-for="(part, index) in one.parts" :key="part.figure"
            ><template v-if="index > 0"> · </template
            ><span @mouseenter="lit = part.lights ?? null" @mouseleave="lit = null">{{ part.value }}</span></template
          >
          <i aria-hidden="true">{{ open === one.label ? '−' : '+' }}</i>
        </button>
      </dd>
      <template v-for="part in one.parts" :key="part.figure">
        <dd v-if="delta(part)" class="delta">
          {{ one.parts.length > 1 ? `${part.label} ${delta(part)}` : delta(part) }}
        </dd>
      </template>
    </div>
  </dl>
  <div v-if="opened" class="opened">
    <template v-for="part in opened.parts" :key="part.figure">
      <p v-if="opened.parts.length > 1">{{ part.label }}</p>
      <OpenedFigure :figure="part.figure" />
    </template>
  </div>
</template>

<style scoped src="@/styles/big.css"></style>
<style scoped>
.big {
  grid-template-columns: 1fr 1fr 1.5fr 0.7fr;
}
dd button {
  font: inherit;
  white-space: nowrap;
}
dd i {
  font: 400 14px var(--text);
  margin-left: 3px;
  color: var(--mute);
}
dd.several {
  font-size: 22px;
  line-height: 1.45;
}
dd.delta {
  font: 600 13px var(--text);
  color: var(--warn);
}
.shines {
  box-shadow: inset 0 -3px 0 var(--ribbon);
}
.opened p {
  margin: 4px 0 0;
  font-size: 12.5px;
}
</style>
