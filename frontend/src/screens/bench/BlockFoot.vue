<script setup lang="ts">
import { BLOCK_FOOT as say } from '@/words/texts/bench'

import type { PlacedBlock } from './bench'
import ValueCell from './ValueCell.vue'

// The line between a block and the next: its rest, and what can be done with the block once it is pointed at.
defineProps<{ placed: PlacedBlock; name: string; more: boolean }>()
defineEmits<{ compare: []; again: []; remove: []; more: []; add: [] }>()
</script>

<template>
  <div class="foot" :class="{ none: (placed.block.rest_after_s ?? undefined) === undefined }">
    <ValueCell
      class="rest"
      first
      :label="say.rest"
      :aside="say.after"
      unit="s"
      :value="placed.block.rest_after_s"
      :edit-path="[...placed.editPath, 'rest_after_s']"
      :path="`${placed.path}.rest_after_s`"
    />
    <span class="rule"></span>
    <span class="acts">
      <button type="button" class="link" :aria-expanded="more" @click="$emit('more')">
        {{ more ? say.fewerNumbers : say.moreNumbers }}<span class="visually-hidden">: {{ name }}</span>
      </button>
      <button v-if="placed.block.id" type="button" class="link" @click="$emit('compare')">
        {{ say.otherFormats }}<span class="visually-hidden">: {{ name }}</span>
      </button>
      <button type="button" class="link" @click="$emit('again')">
        {{ say.again }}<span class="visually-hidden">: {{ name }}</span>
      </button>
      <button v-if="placed.length > 1" type="button" class="link" @click="$emit('remove')">
        {{ say.remove }}<span class="visually-hidden">{{ say.ofBlock(placed.number + 1) }}</span>
      </button>
      <button type="button" class="link" @click="$emit('add')">
        {{ say.addABlockHere }}<span class="visually-hidden">{{ say.afterBlock(placed.number + 1) }}</span>
      </button>
    </span>
  </div>
</template>

<style scoped>
.foot {
  position: relative;
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 24px;
  font-size: 13px;
  color: var(--mute);
}
.foot::before {
  content: '';
  width: 100px;
}
.foot::before,
.rule {
  border-top: 1px solid var(--rule);
}
.rule {
  flex: 1;
}
.rest :deep(input) {
  font-weight: 600;
}
.acts {
  position: absolute;
  right: 0;
  top: 0;
  display: inline-flex;
  gap: 12px;
  padding-left: 10px;
  background: var(--paper);
}
.acts .link {
  font-size: 12.5px;
}
.acts,
.none .rest {
  opacity: 0;
}
/* At hand when one points at the block or tabs into it. */
:global(.block:hover > .foot .acts),
:global(.block:hover > .foot .rest),
:global(.block:focus-within > .foot .acts),
:global(.block:focus-within > .foot .rest) {
  opacity: 1;
}
/* A finger reads first: what can be done comes on a line of its own once the block is tapped. */
@media (hover: none) {
  .foot {
    flex-wrap: wrap;
  }
  .foot::before {
    width: 0;
  }
  .acts {
    position: static;
    display: none;
    flex-wrap: wrap;
    flex-basis: 100%;
    padding: 0;
  }
  :global(.block:focus-within > .foot .acts) {
    display: flex;
  }
}
</style>
