<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus'
import { computed } from 'vue'

import { FILE_WARNINGS as say } from '@/words/texts/bench'

import { useBench } from './bench'

// Keys of the session's file that change no figure: kept in it, and listed here.
const { figures } = useBench()
const warnings = computed(() => figures.value?.warnings ?? [])
const title = computed(() => (warnings.value.length === 1 ? say.oneKey : say.keys(warnings.value.length)))
</script>

<template>
  <ElCollapse v-if="warnings.length" class="warnings">
    <ElCollapseItem :title="title" name="warnings">
      <ul :aria-label="title">
        <li v-for="one in warnings" :key="one.path">
          <code>{{ one.path }}</code> {{ one.code === 'unknown' ? say.unknown : say.noMeaning }}
        </li>
      </ul>
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
  overflow-wrap: anywhere;
}
.warnings {
  margin-top: 8px;
}
</style>
