<script setup lang="ts">
import { ElButton, ElCheckbox, ElOption, ElSelect } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import type { LogLine } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { usePeople } from '@/composables/useTables'
import { useAttempt } from '@/composables/useAttempt'
import { withRunsSent } from '@/screens/log/logApi'
import { shortDay } from '@/words/dates'
import { tenth, whole } from '@/words/format'
import { LOG_LINES, LOG_SCREEN as say } from '@/words/texts/log'

// What was planned, is over and not logged: ticked and logged in one step, as it was run or planned.
const props = defineProps<{ lines: readonly LogLine[] }>()
const { people } = usePeople(squadNow)
/** Who was at none of what is logged now. */
const away = ref<string[]>([])
const left = ref(new Set<string>())
const chosen = computed(() => props.lines.filter((one) => !left.value.has(one.id)))
function tick(id: string, on: unknown): void {
  const next = new Set(left.value)
  if (on) next.delete(id)
  else next.add(id)
  left.value = next
}
const { trouble, attempt } = useAttempt()
const busy = ref(false)
async function settle(): Promise<void> {
  busy.value = true
  await attempt(async () => {
    const entries = chosen.value.map((one) => one.id)
    await withRunsSent(entries)
    await api.settle(entries, away.value)
    away.value = []
    await Promise.all([askAgain(KEYS.log()), askAgain(KEYS.week()), askAgain(KEYS.season()), askAgain(KEYS.today())])
  })
  busy.value = false
}
</script>

<template>
  <section :aria-label="say.waits">
    <h2>{{ say.waits }}</h2>
    <p class="said">{{ say.how }}</p>
    <ul class="lines">
      <li v-for="one in lines" :key="one.id">
        <ElCheckbox
          :model-value="!left.has(one.id)"
          :aria-label="say.choose(one.title, shortDay(one.day))"
          @update:model-value="tick(one.id, $event)"
        />
        <span class="day">{{ shortDay(one.day) }}</span>
        <RouterLink :to="{ name: 'logged', params: { id: one.id } }">{{ one.title }}</RouterLink>
        <span class="said">{{ LOG_LINES.plannedFor(whole(one.planned_minutes), tenth(one.planned_effort)) }}</span>
        <span v-if="one.runs">{{ LOG_LINES.wasRun }}</span>
        <span v-if="one.person" class="said">{{ LOG_LINES.forOne(one.person) }}</span>
        <span v-else-if="one.group" class="said">{{ one.group }}</span>
        <span v-if="one.disputed" class="look">{{ LOG_LINES.disputed(one.disputed) }}</span>
      </li>
    </ul>
    <p v-if="people.length > 1" class="line">
      <span aria-hidden="true">{{ say.without }}</span>
      <ElSelect
        v-model="away"
        multiple
        filterable
        collapse-tags
        size="small"
        :aria-label="say.withoutWhom"
        :placeholder="say.allCame"
        class="away"
      >
        <ElOption v-for="one in people" :key="one.id" :value="one.id" :label="one.name" />
      </ElSelect>
    </p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <ElButton type="primary" :disabled="busy || chosen.length === 0" @click="settle">
      {{ chosen.length === 1 ? say.logOne : say.logThese(chosen.length) }}
    </ElButton>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.away {
  width: 260px;
}
.day {
  min-width: 4.6em;
}
.lines .said {
  margin: 0;
}
.look {
  color: var(--warn);
}
</style>
