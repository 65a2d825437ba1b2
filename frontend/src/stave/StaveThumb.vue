<script setup lang="ts">
import type { Thumbnail } from '@/api/types'

defineProps<{
  thumbnail: Thumbnail
  /** Seconds that the whole width stands for; the session's own length by default. */ span?: number
}>()
const ROW = 4
</script>

<template>
  <svg
    class="thumb"
    aria-hidden="true"
    preserveAspectRatio="none"
    :viewBox="`0 0 ${span ?? thumbnail.total_s} ${thumbnail.rows * ROW}`"
  >
    <rect
      v-for="(mark, index) in thumbnail.marks"
      :key="index"
      :x="mark[1]"
      :y="(mark[0] ?? 0) * ROW + 0.5"
      :width="mark[2]"
      :height="ROW - 1"
      :fill="`var(--e${mark[3]})`"
    />
  </svg>
</template>

<style scoped>
.thumb {
  width: 100%;
  height: 34px;
  background: var(--sheet);
  border-block: 1px solid var(--rule);
  display: block;
}
</style>
