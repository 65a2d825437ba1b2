<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import type { Body, Week } from '@/api/types'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { fullDate } from '@/words/dates'
import { whole } from '@/words/format'
import { PHASE_FORM as say } from '@/words/texts/week'

const props = defineProps<{ begins: string; phase: Week['phase'] | null }>()
const emit = defineEmits<{ add: [body: Omit<Body<'PhaseIn'>, 'squad'>]; drop: [id: number]; close: [] }>()
const { choicesOf } = useTables()
const kind = ref('build')
const weeks = ref<number | null>(4)
const low = ref<number | null>(1000)
const high = ref<number | null>(1150)
function add(): void {
  if (weeks.value === null || low.value === null || high.value === null) return
  emit('add', {
    begins: props.begins,
    weeks: weeks.value,
    kind: kind.value,
    load_low: low.value,
    load_high: high.value,
  })
}
</script>

<template>
  <form class="slip" :aria-label="say.phase" @submit.prevent="add" @keydown.esc.stop="emit('close')">
    <template v-if="phase">
      <span>
        {{
          say.weeksFromLoadToA(
            phase.kind,
            phase.weeks,
            fullDate(phase.begins),
            whole(phase.load_low),
            whole(phase.load_high),
          )
        }}
      </span>
      <button type="button" class="link" @click="emit('drop', phase.id)">{{ say.takeThePhaseAway }}</button>
    </template>
    <template v-else>
      <ChoiceField
        v-model="kind"
        :label="say.kindOfPhase"
        :said="say.from(fullDate(begins))"
        :options="choicesOf('phases')"
      />
      <NumberField v-model="weeks" :label="say.weeks" :said="say.weeks" :min="1" :max="52" />
      <NumberField v-model="low" :label="say.loadFrom" :said="say.loadFrom" />
      <NumberField v-model="high" :label="say.to" :said="say.to" />
      <ElButton type="primary" size="small" native-type="submit">{{ say.set }}</ElButton>
    </template>
    <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
  </form>
</template>

<style scoped src="@/styles/slip.css"></style>
