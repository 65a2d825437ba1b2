<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { computed, onMounted, reactive, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import type { MovementDef } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { MOVEMENT_FORM as say } from '@/words/texts/bench'

import { useBench } from './bench'

const props = defineProps<{ words: string }>()
const emit = defineEmits<{ made: [key: string]; close: [] }>()

const { document, squad, edit } = useBench()
const { all, patterns, positions, byKey, refresh } = useMovements()
const { choicesOf } = useTables()
const sheet = useTemplateRef<HTMLFormElement>('sheet')
onMounted(() => sheet.value?.querySelector('input')?.focus())

const form = reactive({
  name: props.words.trim(),
  pattern: null as string | null,
  second: '',
  share: 100 as number | null,
  position: 'standing',
  sides: 'both',
  pace: 3 as number | null,
  speed: null as number | null,
  landings: null as number | null,
  grade: 'medium',
  contains: '',
  aliases: '',
  met: 6 as number | null,
  kit: '',
  repIs: '',
  forSquad: false,
})
const { trouble, attempt } = useAttempt()
const works = computed(() => patterns.value.map((one) => ({ value: one, label: one })))
const stands = computed(() => positions.value.map((one) => ({ value: one, label: one })))
const key = computed(() =>
  form.name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, ''),
)

const listed = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
function definition(): MovementDef {
  const share = form.second ? (form.share ?? 100) / 100 : 1
  const weights: Record<string, number> = { [form.pattern ?? '']: share }
  if (form.second) weights[form.second] = Math.round((1 - share) * 100) / 100
  const pace = form.pace ?? 0
  const kit = listed(form.kit)
  const aliases = listed(form.aliases)
  const inside = listed(form.contains).map((one) => {
    const [, count, name = ''] = /^(\d*)\s*x?\s*(.*)$/.exec(one) ?? []
    const known = all.value.find((m) => m.key === name || (m.name ?? '').toLowerCase() === name.toLowerCase())
    return { movement: known?.key ?? name, reps: Number(count) || 1 }
  })
  return {
    key: key.value,
    name: form.name.trim(),
    patterns: weights,
    position: form.position as MovementDef['position'],
    sides: form.sides as MovementDef['sides'],
    met: form.met || 5,
    ...(pace > 0 ? { pace_s: pace } : {}),
    ...(kit.length ? { kit } : {}),
    ...(form.repIs ? { rep_is: form.repIs } : {}),
    ...(form.speed ? { speed_mps: form.speed } : {}),
    ...(form.landings ? { landings: form.landings, landing_grade: form.grade as MovementDef['landing_grade'] } : {}),
    ...(aliases.length ? { aliases } : {}),
    ...(inside.length ? { contains: inside } : {}),
  }
}
async function define(): Promise<void> {
  trouble.value = ''
  if (!key.value || !form.pattern) {
    trouble.value = say.aNewMovementNeedsA
    return
  }
  if (byKey.value.has(key.value)) {
    trouble.value = say.thereIsOneAlready(key.value)
    return
  }
  const made = definition()
  await attempt(async () => {
    if (form.forSquad) {
      await api.importMovements('json', JSON.stringify([made]), squad.value)
      await refresh()
    } else {
      const own = document.value?.movements ?? []
      edit([{ op: 'set', path: ['movements'], value: [...own.filter((one) => one.key !== made.key), made] }])
    }
    emit('made', made.key)
  })
}
</script>

<template>
  <form
    ref="sheet"
    class="form"
    :aria-label="say.newMovement"
    @submit.prevent="define"
    @keydown.esc.stop="emit('close')"
  >
    <span class="field"
      ><span aria-hidden="true">{{ say.name }}</span
      ><ElInput v-model="form.name" :aria-label="say.name" size="small" autocomplete="off"
    /></span>
    <ChoiceField
      v-model="form.pattern"
      :label="say.mostlyWorks"
      :said="say.mostlyWorks"
      :placeholder="say.choose"
      :options="works"
    />
    <ChoiceField
      v-model="form.second"
      :label="say.and"
      :said="say.and"
      :options="[{ value: '', label: say.nothingElse }, ...works]"
    />
    <NumberField
      v-if="form.second"
      v-model="form.share"
      :label="say.shareOfTheFirst"
      :said="say.shareOfTheFirst"
      unit="%"
      :max="100"
    />
    <ChoiceField v-model="form.position" :label="say.position" :said="say.position" :options="stands" />
    <ChoiceField v-model="form.sides" :label="say.sides" :said="say.sides" :options="choicesOf('sides')" />
    <NumberField v-model="form.pace" :label="say.secondsARepEmptyNo" :said="say.secondsARepEmptyNo" :step="0.1" />
    <NumberField
      v-model="form.speed"
      :label="say.metresASecond"
      :said="say.metresASecond"
      placeholder="2"
      :step="0.1"
    />
    <NumberField v-model="form.landings" :label="say.landingsARep" :said="say.landingsARep" placeholder="0" />
    <ChoiceField
      v-if="(form.landings ?? 0) > 0"
      v-model="form.grade"
      :label="say.howHardALandingIs"
      :options="choicesOf('landing_grades')"
    />
    <span class="field"
      ><span aria-hidden="true">{{ say.holdsInOneRep }}</span
      ><ElInput
        v-model="form.contains"
        :aria-label="say.holdsInOneRep"
        size="small"
        autocomplete="off"
        :placeholder="say.pushUpSquatJump"
    /></span>
    <span class="field"
      ><span aria-hidden="true">{{ say.alsoCalled }}</span
      ><ElInput
        v-model="form.aliases"
        :aria-label="say.alsoCalled"
        size="small"
        autocomplete="off"
        :placeholder="say.none"
    /></span>
    <NumberField v-model="form.met" :label="say.energyCostInMet" :said="say.energyCostInMet" :step="0.1" />
    <span class="field"
      ><span aria-hidden="true">{{ say.kit }}</span
      ><ElInput v-model="form.kit" :aria-label="say.kit" size="small" autocomplete="off" :placeholder="say.none"
    /></span>
    <span class="field"
      ><span aria-hidden="true">{{ say.oneRepIs }}</span
      ><ElInput v-model="form.repIs" :aria-label="say.oneRepIs" size="small" autocomplete="off"
    /></span>
    <ElCheckbox v-model="form.forSquad">{{ say.keepItForTheWhole }}</ElCheckbox>
    <ElButton type="primary" size="small" native-type="submit">{{ say.defineIt }}</ElButton>
    <button type="button" class="link" @click="emit('close')">{{ say.back }}</button>
    <p v-if="trouble" class="why" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.form {
  margin-top: 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  font-size: 13px;
  color: var(--mute);
}
.field {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.field .el-input {
  width: 12em;
}
.why {
  flex-basis: 100%;
  margin: 0;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
}
</style>
