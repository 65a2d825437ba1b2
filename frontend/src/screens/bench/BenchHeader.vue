<script setup lang="ts">
import { ElButton, ElTooltip } from 'element-plus'
import { computed } from 'vue'

import { TRIED_AGAIN, type SaveState } from '@/composables/useAutosave'
import MoreMenu from '@/parts/MoreMenu.vue'
import { clock } from '@/words/format'
import { savedText } from '@/words/saving'
import { BENCH_HEADER as say } from '@/words/texts/bench'

import { useBench } from './bench'
import ValueCell from './ValueCell.vue'

const props = defineProps<{ state: SaveState; unread: number; canUndo: boolean; canRedo: boolean; isNew: boolean }>()
const emit = defineEmits<{
  undo: []
  redo: []
  fit: []
  versions: []
  help: []
  card: []
  compare: []
  plan: []
  export: [kind: 'json' | 'txt']
}>()
const { document, figures } = useBench()

const saying = computed(() => {
  if (props.unread) return props.unread > 1 ? say.placesNotRead(props.unread) : say.onePlaceNotRead
  return props.isNew && props.state === 'saved' ? say.nothingToSaveYet : savedText(props.state)
})
const told = computed(() => {
  const total = figures.value?.timetable_s
  const over = figures.value?.over_told_s
  if (total === undefined || total === null) return ''
  if (over === null || over === undefined) return say.comesTo(clock(total))
  const rest = over > 0 ? say.overBy(clock(over)) : say.slack(clock(-over))
  return `${say.comesTo(clock(total))}, ${rest}`
})
const over = computed(() => (figures.value?.over_told_s ?? 0) > 0)
const deeds = computed(() => [
  { name: 'redo', does: say.redo, key: say.ctrlShiftZ, disabled: !props.canRedo },
  { name: 'plan', does: say.putOnADay, key: 'p', disabled: props.isNew },
  { name: 'versions', does: say.versions, key: 'v', disabled: props.isNew },
  { name: 'json', does: say.asASessionFileJson },
  { name: 'txt', does: say.asBoardTextWithAll },
  { name: 'help', does: say.keys, key: '?' },
])
const DOES: Record<string, () => void> = {
  redo: () => emit('redo'),
  plan: () => emit('plan'),
  versions: () => emit('versions'),
  json: () => emit('export', 'json'),
  txt: () => emit('export', 'txt'),
  help: () => emit('help'),
}
</script>

<template>
  <header v-if="document">
    <h1 class="title">
      <ValueCell
        :label="say.title"
        hide-label
        text
        :value="document.title"
        :edit-path="['title']"
        path="title"
        class="title-cell"
      />
    </h1>
    <span class="told">
      <ValueCell
        :label="say.told"
        as-clock
        :value="document.announced_s"
        :edit-path="['announced_s']"
        path="announced_s"
      />
    </span>
    <span class="told" :class="{ over }">{{ told }}</span>
    <span class="grow"></span>
    <span
      class="state"
      role="status"
      :class="{ attention: unread || state === 'refused' || TRIED_AGAIN.includes(state) }"
    >
      {{ saying }}
    </span>
    <ElTooltip :content="say.ctrlZ" :show-after="500"
      ><ElButton :disabled="!canUndo" @click="emit('undo')">{{ say.undo }}</ElButton></ElTooltip
    >
    <ElTooltip content="f" :show-after="500"
      ><ElButton @click="emit('fit')">{{ say.fitToTime }}</ElButton></ElTooltip
    >
    <ElTooltip content="o" :show-after="500"
      ><ElButton @click="emit('compare')">{{ say.sideBySide }}</ElButton></ElTooltip
    >
    <ElTooltip content="c" :show-after="500"
      ><ElButton @click="emit('card')">{{ say.card }}</ElButton></ElTooltip
    >
    <MoreMenu :label="say.moreForThisSession" :deeds="deeds" @choose="DOES[$event]?.()" />
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 20px;
  border-bottom: 1px solid var(--rule);
  min-width: 0;
}
.title {
  min-width: 120px;
  flex: 0 1 auto;
  overflow: hidden;
}
.title-cell {
  max-width: 100%;
}
.told,
.state {
  flex-shrink: 0;
}
.title-cell :deep(input) {
  font: 600 25px var(--head);
  border-bottom-color: transparent;
}
.title-cell :deep(input:hover) {
  border-bottom-color: var(--rule);
}
.told {
  color: var(--mute);
  white-space: nowrap;
}
.told.over {
  color: var(--warn);
  font-weight: 600;
}
.grow {
  flex: 1;
}
header :deep(.el-button) {
  margin-left: 0;
  padding-inline: 10px;
}
.state {
  color: var(--mute);
  font-size: 13px;
  white-space: nowrap;
}
.state.attention {
  color: var(--warn);
  font-weight: 600;
}
@media (max-width: 1100px) {
  header {
    flex-wrap: wrap;
    padding-block: 8px;
  }
}
</style>
