<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElButton, ElEmpty, ElPagination, ElSkeleton } from 'element-plus'

import UndoBar from '@/parts/UndoBar.vue'
import { SESSION_LIST as say } from '@/words/texts/sessions'
import SessionCards from './SessionCards.vue'
import SessionFilters from './SessionFilters.vue'
import SessionTable from './SessionTable.vue'
import { useSessionList } from './useSessionList'

const phone = useMediaQuery('(max-width: 700px)')
const list = useSessionList()
const {
  items,
  asked,
  busy,
  total,
  size,
  page,
  trouble,
  clash,
  archived,
  words,
  tag,
  tags,
  rows,
  sortBy,
  downward,
  undoable,
} = list
const replaceThem = (): void => void clash.value?.()
</script>

<template>
  <main id="main" class="list">
    <SessionFilters
      v-model:words="words"
      v-model:tag="tag"
      v-model:archived="archived"
      :tags="tags"
      :rows="rows"
      @sort="list.sort"
      @take="list.take"
    />
    <p v-if="trouble" class="note-bar" role="alert">
      {{ trouble }}
      <ElButton v-if="clash" size="small" @click="replaceThem">{{ say.takeThoseOfTheFile }}</ElButton>
    </p>
    <UndoBar v-if="undoable" :change="undoable" @undone="list.undone" @dismiss="undoable = null" />
    <div v-if="items === null && !trouble" class="waiting" role="status">
      <span class="visually-hidden">{{ say.fetchingTheSessions }}</span>
      <ElSkeleton :rows="8" animated :throttle="200" />
    </div>
    <ElEmpty v-else-if="items?.length === 0 && asked" :image-size="0" :description="say.noSessionIsCalledOr" />
    <ElEmpty
      v-else-if="items?.length === 0"
      :image-size="0"
      :description="archived ? say.nothingIsPutAway : say.noSessionYetNewSession"
    />
    <!-- While others are fetched, these are still shown, and paled: they are not what was asked for. -->
    <div v-else-if="items" :aria-busy="busy" :class="{ busy }">
      <SessionCards
        v-if="phone"
        :items="items"
        :sort-by="sortBy"
        :archived="archived"
        @sort="list.sort"
        @duplicate="list.duplicate"
        @archive="list.archive"
      />
      <SessionTable
        v-else
        :items="items"
        :sort-by="sortBy"
        :downward="downward"
        :archived="archived"
        @sort="list.sort"
        @duplicate="list.duplicate"
        @archive="list.archive"
      />
      <ElPagination
        v-if="total > size"
        v-model:current-page="page"
        :total="total"
        :page-size="size"
        layout="prev, pager, next, total"
        :aria-label="say.pagesOfSessions"
      />
      <p class="foot">
        {{ say.workDensityAndEffortAre }}
      </p>
    </div>
  </main>
</template>

<style scoped>
.list {
  padding: 0 20px 30px;
  overflow: auto;
}
.waiting {
  padding: 20px 0;
}
.busy {
  opacity: 0.6;
}
.foot {
  color: var(--mute);
  font-size: 12.5px;
}
</style>
