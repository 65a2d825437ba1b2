<script setup lang="ts">
import { computed } from 'vue'

import type { PlanEntry } from '@/api/types'
import { inkLevel } from '@/stave/scale'
import { tenth, whole } from '@/words/format'
import { ENTRY_CARD as say } from '@/words/texts/week'

const props = defineProps<{
  entry: PlanEntry
  hard: number
  proposed: boolean
  editable: boolean
  open: boolean
  whose: string
}>()
const emit = defineEmits<{ toggle: []; move: [days: number] }>()
const level = computed(() => inkLevel(props.entry.effort))
/** Alt and an arrow: a day earlier or later. */
function keys(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (by === undefined || !event.altKey || !props.editable) return
  event.preventDefault()
  emit('move', by)
}
</script>

<template>
  <article
    class="card"
    :class="{ skipped: entry.skipped, proposed, movable: editable }"
    :style="{ borderLeftColor: `var(--e${level})` }"
    :data-entry="entry.id"
    :aria-label="entry.title"
  >
    <button
      type="button"
      class="plain head"
      :aria-expanded="open"
      :disabled="!editable"
      aria-keyshortcuts="Alt+ArrowLeft Alt+ArrowRight"
      :title="editable ? say.dragItOrAltAnd : undefined"
      @click="emit('toggle')"
      @keydown="keys"
    >
      <b>{{ entry.title }}</b>
      <span>
        <template v-if="entry.time">{{ entry.time.slice(0, 5) }} · </template
        >{{ say.min(whole(entry.minutes), tenth(entry.effort)) }}
        <template v-if="entry.effort >= hard"> {{ say.hard }}</template>
      </span>
      <span v-if="entry.logged || entry.skipped || entry.locked || entry.changed || entry.group || whose" class="marks">
        {{
          [
            entry.logged ? say.logged : '',
            entry.skipped ? say.skipped : '',
            entry.locked ? say.locked : '',
            entry.changed ? say.changedForThisDay : '',
            entry.group?.name,
            whose,
          ]
            .filter(Boolean)
            .join(' · ')
        }}
      </span>
      <span v-if="entry.newer" class="newer">{{ say.newerVersionExists }}</span>
      <span v-if="proposed" class="newer">{{ say.inAProposal }}</span>
    </button>
  </article>
</template>

<style scoped>
.card {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-left: 5px solid;
  margin-bottom: 6px;
  font-size: 12.5px;
}
.proposed {
  border-style: dashed;
  border-color: var(--act);
  border-left-style: solid;
}
.head {
  display: block;
  width: 100%;
  text-align: left;
  padding: 5px 7px;
}
.head:disabled {
  color: inherit;
  cursor: default;
}
b {
  font: 600 14.5px/1.15 var(--head);
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  overflow: hidden;
}
.head span {
  display: block;
  color: var(--mute);
}
.head .newer {
  color: var(--warn);
}
.skipped b {
  text-decoration: line-through;
}
@media print {
  b {
    display: block;
    hyphens: auto;
  }
}
</style>
