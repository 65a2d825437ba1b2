<script setup lang="ts">
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { computed, onMounted, reactive, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import type { MovementDef } from '@/api/types'
import { definitionOf, formOf, keyOfName } from '@/composables/movementForm'
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
const { patterns, positions, byKey, keyOf, nameOf, refresh } = useMovements()
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
const key = computed(() => keyOfName(form.name))

const names = { nameOf, keyOf }
/** In the short form several are parted by commas. */
const several = (text: string): string => text.replaceAll(',', ';')
function definition(): MovementDef | null {
  const first = form.second ? (form.share ?? 100) : 100
  const weights = [
    { pattern: form.pattern ?? '', share: first },
    { pattern: form.second, share: 100 - first },
  ]
  const { name, position, sides, met } = form
  const whole = {
    ...formOf(null, names),
    ...{ name, position, sides, met, weights },
    rep_is: form.repIs,
    pace_s: form.pace || null,
    speed_mps: form.speed || null,
    landings: form.landings || null,
    landing_grade: form.grade,
    kit: several(form.kit),
    aliases: several(form.aliases),
    contains: several(form.contains),
  }
  const made = definitionOf(whole, null, key.value, names)
  if (made.unknown.length) trouble.value = say.nobodyKnows(made.unknown.join(', '))
  return made.unknown.length ? null : made.definition
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
  if (!made) return
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
