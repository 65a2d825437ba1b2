<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { STAVE_LEGEND as say } from '@/words/texts/stave'

// How a stave is read. Met once: `closable` stands until one has said so; it can be read again under the keys.
const props = defineProps<{ closable?: boolean }>()
const met = useLocalStorage('fine-tally/legend', false, {
  serializer: { read: (kept) => kept === 'met', write: (on) => (on ? 'met' : '') },
})
const LEVELS = [0, 1, 2, 3, 4]
</script>

<template>
  <span v-if="!props.closable || !met" class="legend">
    <svg width="62" height="12" aria-hidden="true">
      <rect
        v-for="level in LEVELS"
        :key="level"
        :x="level * 12"
        y="1"
        width="10"
        height="10"
        :fill="`var(--e${level})`"
      />
    </svg>
    {{ say.darkerIsHarder }}
    <svg width="28" height="14" aria-hidden="true">
      <rect x="0" y="1" width="10" height="5" fill="var(--e3)" />
      <rect x="14" y="8" width="10" height="5" fill="var(--e3)" />
    </svg>
    {{ say.upperAndLowerHalf }}
    <button v-if="props.closable" type="button" class="link" @click="met = true">{{ say.iSee }}</button>
  </span>
</template>

<style scoped>
.legend {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
  font-size: 13px;
  color: var(--mute);
}
.link {
  margin-left: 6px;
}
</style>
