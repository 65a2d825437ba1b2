<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { ElButton } from 'element-plus'

import type { LinkTold } from '@/api/types'
import { moment } from '@/words/dates'
import { LINK_SHOWN as say } from '@/words/texts/parts'

// A link that is told this once: to be copied, or taken off the screen by a phone.
defineProps<{ link: LinkTold; /** It opens more than once: until when is told beside it. */ lasting?: boolean }>()
const { copy, copied } = useClipboard({ legacy: true })
</script>

<template>
  <div class="link-shown" role="status">
    <svg class="code" :viewBox="`0 0 ${link.qr.side} ${link.qr.side}`" role="img" :aria-label="say.qrCode">
      <rect :width="link.qr.side" :height="link.qr.side" fill="#fff" />
      <path :d="link.qr.path" fill="#000" shape-rendering="crispEdges" />
    </svg>
    <div>
      <p>{{ say.shownThisOnce }}</p>
      <p class="address">{{ link.address }}</p>
      <p>
        <ElButton type="primary" size="small" @click="copy(link.address)">{{
          copied ? say.copied : say.copy
        }}</ElButton>
        <span v-if="!lasting" class="said">{{ say.goodUntil(moment(link.expires_at)) }}</span>
      </p>
      <p v-if="link.sent === true" class="said">{{ say.sent }}</p>
      <p v-else-if="link.sent === false" class="note-bar">{{ say.notSent }}</p>
    </div>
  </div>
</template>

<style scoped>
.link-shown {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 10px 12px;
  margin: 8px 0;
}
.link-shown > div {
  flex: 1 1 260px;
  min-width: 0;
}
svg.code {
  width: 168px;
  height: 168px;
  border: 1px solid var(--rule);
  padding: 0;
}
p {
  margin: 0 0 6px;
}
.address {
  font-family: ui-monospace, monospace;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.said {
  color: var(--mute);
  margin-left: 10px;
}
</style>
