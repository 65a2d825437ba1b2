<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, onMounted, reactive, ref, useTemplateRef } from 'vue'

import { api } from '@/api/client'
import type { MovementDef, MovementTaken } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import { useTables } from '@/composables/useTables'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { MOVEMENT_EDITOR as say, MOVEMENT_FIELDS as FIELDS } from '@/words/texts/movements'

import { definitionOf, formOf, keyOfName, type MovementForm } from '@/composables/movementForm'
import MovementChanges from './MovementChanges.vue'

// A movement's whole definition. Nothing is taken before it is seen what it changes.
const props = defineProps<{ start: { movement: MovementDef | null; changes: boolean; name: string } }>()
const emit = defineEmits<{ kept: [key: string]; close: [] }>()
const { byKey, keyOf, nameOf, patterns, planes, positions, refresh, version } = useMovements()
const { choicesOf } = useTables()
const names = { nameOf, keyOf }
const before = props.start.movement
const form = reactive<MovementForm>(formOf(before, names))
if (!props.start.changes && before) form.name = say.copyOf(form.name)
if (props.start.name) form.name = props.start.name.replaceAll('-', ' ')
/** The version of the squad's movements that was looked at. */
let seen = ''
/** The fetch of what another coach changed; a preview waits for it. */
let newest: Promise<void> = Promise.resolve()
const key = computed(() =>
  props.start.changes && before ? before.key : props.start.name ? props.start.name : keyOfName(form.name),
)
const sheet = useTemplateRef<HTMLFormElement>('sheet')
onMounted(() => sheet.value?.querySelector('input')?.focus())
const works = computed(() => [
  { value: '', label: say.choose },
  ...patterns.value.map((value) => ({ value, label: value })),
])
const choices = (list: readonly string[]) => [
  { value: '', label: say.notSet },
  ...list.map((value) => ({ value, label: value })),
]
const YES = [
  { value: '', label: say.no },
  { value: 'yes', label: say.yes },
]
const LISTS = ['easier', 'harder', 'kit_swaps'] as const
const TEXTS = ['stresses', 'kit', 'relieves', 'cues', 'cautions'] as const
const shown = ref<MovementTaken[] | null>(null)
const { trouble, attempt } = useAttempt()
function definition(): MovementDef | null {
  const made = definitionOf(form, before, key.value, names)
  const sum = form.weights.reduce((all, one) => all + (one.pattern ? (one.share ?? 0) : 0), 0)
  if (!form.name.trim() || !key.value || sum === 0) trouble.value = say.needsName
  else if (Math.round(sum) !== 100) trouble.value = say.notOneHundred
  else if (made.unknown.length) trouble.value = say.nobodyKnows(made.unknown.join(', '))
  else if (!props.start.changes && byKey.value.has(key.value)) trouble.value = say.taken(key.value)
  else return made.definition
  return null
}
async function look(): Promise<void> {
  trouble.value = ''
  shown.value = null
  const made = definition()
  if (!made) return
  await newest
  seen = version.value
  await attempt(
    async () => void (shown.value = await api.previewMovements('json', JSON.stringify([made]), squadNow.value)),
  )
}
async function keep(): Promise<void> {
  const made = definition()
  if (!made) return
  const taken = await attempt(() =>
    api.importMovements('json', JSON.stringify([made]), squadNow.value, { replace: true, version: seen }),
  )
  if (taken) return emit('kept', made.key)
  // Others may have changed them meanwhile: what it changes now is to be seen first.
  shown.value = null
  newest = refresh()
}
</script>

<template>
  <form
    ref="sheet"
    :aria-label="start.changes ? say.change(nameOf(key)) : say.define"
    @submit.prevent="look"
    @input="shown = null"
    @keydown.esc.stop="emit('close')"
  >
    <h2>{{ start.changes ? say.change(nameOf(key)) : say.define }}</h2>
    <div class="fields">
      <label>{{ FIELDS.name }}<ElInput v-model="form.name" maxlength="120" /></label>
      <label
        >{{ FIELDS.aliases }}<ElInput v-model="form.aliases" :placeholder="say.semicolons" maxlength="1000"
      /></label>
      <p v-for="(weight, index) in form.weights" :key="index" class="line wide">
        <ChoiceField
          v-model="weight.pattern"
          :label="say.patternOf(index + 1)"
          :said="index === 0 ? FIELDS.patterns : undefined"
          :options="works"
          @update:model-value="shown = null"
        />
        <NumberField v-model="weight.share" :label="say.share" unit="%" :max="100" @change="shown = null" />
        <button
          v-if="index === form.weights.length - 1 && index < 4"
          type="button"
          class="link"
          @click="form.weights.push({ pattern: '', share: 0 })"
        >
          {{ say.addPattern }}
        </button>
      </p>
      <p class="line wide">
        <ChoiceField
          v-model="form.position"
          :label="FIELDS.position ?? ''"
          :said="FIELDS.position"
          :options="choices(positions)"
        />
        <ChoiceField
          v-model="form.sides"
          :label="FIELDS.sides ?? ''"
          :said="FIELDS.sides"
          :options="choicesOf('sides', say.notSet)"
        />
        <ChoiceField v-model="form.plane" :label="FIELDS.plane ?? ''" :said="FIELDS.plane" :options="choices(planes)" />
        <ChoiceField v-model="form.skilled" :label="FIELDS.skilled ?? ''" :said="FIELDS.skilled" :options="YES" />
      </p>
      <p class="line wide">
        <NumberField v-model="form.pace_s" :label="FIELDS.pace_s ?? ''" :said="FIELDS.pace_s" :step="0.1" />
        <NumberField v-model="form.speed_mps" :label="FIELDS.speed_mps ?? ''" :said="FIELDS.speed_mps" :step="0.1" />
        <NumberField v-model="form.met" :label="FIELDS.met ?? ''" :said="FIELDS.met" :step="0.1" />
        <NumberField v-model="form.landings" :label="FIELDS.landings ?? ''" :said="FIELDS.landings" />
        <ChoiceField
          v-if="(form.landings ?? 0) > 0"
          v-model="form.landing_grade"
          :label="FIELDS.landing_grade ?? ''"
          :said="FIELDS.landing_grade"
          :options="choicesOf('landing_grades', say.notSet)"
        />
      </p>
      <label>{{ FIELDS.met_source }}<ElInput v-model="form.met_source" maxlength="500" /></label>
      <label>{{ FIELDS.rep_is }}<ElInput v-model="form.rep_is" maxlength="500" /></label>
      <label
        >{{ FIELDS.contains }}<ElInput v-model="form.contains" :placeholder="say.containsHow" maxlength="1000"
      /></label>
      <label v-for="name in LISTS" :key="name"
        >{{ FIELDS[name] }}<ElInput v-model="form[name]" :placeholder="say.keys" maxlength="1000"
      /></label>
      <label v-for="name in TEXTS" :key="name"
        >{{ FIELDS[name] }}<ElInput v-model="form[name]" :placeholder="say.semicolons" maxlength="2000"
      /></label>
    </div>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <div v-if="shown" role="status"><MovementChanges :taken="shown" /></div>
    <p class="line">
      <ElButton v-if="shown" type="primary" @click="keep">{{ say.keep }}</ElButton>
      <ElButton v-else native-type="submit" type="primary">{{ say.look }}</ElButton>
      <button type="button" class="link" @click="emit('close')">{{ say.close }}</button>
    </p>
  </form>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px 24px;
}
.wide {
  grid-column: 1 / -1;
}
label {
  display: block;
  color: var(--mute);
  font-size: 13px;
}
@media (max-width: 900px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
