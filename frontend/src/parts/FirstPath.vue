<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'

import { useAttempt } from '@/composables/useAttempt'
import { STEPS, useFirstPath } from '@/composables/useFirstPath'
import { FIRST_PATH as say } from '@/words/texts/first-path'

import { tellDone } from './notices'

// Where one is on the first steps, over the foot of the screen; left at any moment.
const route = useRoute()
const { step, place, next, leave, did, takeAway } = useFirstPath()
const number = computed(() => (step.value ? STEPS.indexOf(step.value) + 1 : 0))
// Written is what stands on the Bench as a session of its own.
watch(
  () => [step.value, route.name, route.params.id],
  ([now, name, id]) => {
    if (now === 'write' && name === 'bench' && typeof id === 'string' && id !== 'new')
      did({ what: 'write', session: id })
  },
  { immediate: true },
)
const { trouble, attempt } = useAttempt()
async function away(): Promise<void> {
  if (await attempt(takeAway)) tellDone(say.taken)
}
</script>

<template>
  <aside v-if="step" class="path" :aria-label="say.heading">
    <div class="words" role="status">
      <span v-if="step !== 'done'" class="said">{{ say.step(number) }}</span>
      <b>{{ say.titles[step] }}</b>
      <p>{{ say.says[step] }}</p>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    </div>
    <div class="acts">
      <RouterLink v-if="step !== 'done'" v-slot="{ href, navigate }" :to="place" custom>
        <ElButton tag="a" :href="href" @click="navigate">{{ say.go }}</ElButton>
      </RouterLink>
      <ElButton v-if="step === 'look' || step === 'compare' || step === 'plan'" @click="next">{{ say.next }}</ElButton>
      <template v-if="step === 'done'">
        <ElButton type="primary" @click="leave">{{ say.keep }}</ElButton>
        <ElButton @click="away">{{ say.away }}</ElButton>
      </template>
      <button v-else type="button" class="link" @click="leave">{{ say.leave }}</button>
    </div>
  </aside>
</template>

<style scoped>
.path {
  position: fixed;
  z-index: 8;
  inset: auto 16px 12px 92px;
  max-width: 900px;
  margin: 0 auto;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: center;
  background: var(--sheet);
  border: 2px solid var(--ink);
  padding: 8px 14px;
}
.words {
  flex: 1 1 320px;
}
b {
  font: 600 19px/1.2 var(--head);
}
p {
  margin: 0;
}
.said {
  color: var(--mute);
  margin-right: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.acts .el-button + .el-button {
  margin-left: 0;
}
@media (max-width: 700px) {
  .path {
    inset: auto 6px 6px;
  }
}
@media print {
  .path {
    display: none;
  }
}
</style>
