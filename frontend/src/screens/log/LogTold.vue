<script setup lang="ts">
import { computed } from 'vue'

import { api } from '@/api/client'
import type { LoggedPerson } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { hundredth, tenth } from '@/words/format'
import { LOG_TOLD as say } from '@/words/texts/log'

// What the log tells of people: estimates that were off three times running, with the pace that fits.
const props = defineProps<{ people: readonly LoggedPerson[] }>()
const emit = defineEmits<{ changed: [] }>()
const told = computed(() =>
  props.people.flatMap((one) => {
    if (!one.off) return []
    const factors = one.off.factors.map(hundredth).join(', ')
    const quicker = one.off.fits < one.pace.factor
    return [
      {
        person: one.person,
        fits: hundredth(one.off.fits),
        says: (quicker ? say.quicker : say.slower)(one.name, factors),
        usable: one.pace.source === 'squad' && one.pace.scores > 0,
      },
    ]
  }),
)
const far = computed(() =>
  props.people.flatMap((one) =>
    one.far && one.rated !== null && one.estimated !== null
      ? [{ person: one.person, says: say.far(one.name, tenth(one.rated), tenth(one.estimated)) }]
      : [],
  ),
)
const { trouble, attempt } = useAttempt()
const use = (person: string) =>
  attempt(async () => {
    await api.useLearned(person, 'yes')
    emit('changed')
  })
</script>

<template>
  <div v-for="one in told" :key="one.person" class="told">
    {{ one.says }} {{ say.fits(one.fits) }}
    <button v-if="one.usable" type="button" class="link" @click="use(one.person)">{{ say.use }}</button>
    <RouterLink :to="{ name: 'person-log', params: { id: one.person } }">{{ say.why }}</RouterLink>
  </div>
  <p v-for="one in far" :key="one.person" class="told asks">{{ one.says }}</p>
  <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
</template>

<style scoped>
.told {
  border-left: 3px solid var(--act);
  background: var(--el-color-primary-light-9);
  padding: 6px 12px;
  margin: 8px 0;
}
.asks {
  border-color: var(--warn);
  background: var(--warn-sheet);
}
.link {
  margin: 0 6px;
}
</style>
