<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { MovementDef } from '@/api/types'
import { useMovements } from '@/composables/useMovements'

import { SIDES, useBench } from './bench'

const props = defineProps<{ words: string }>()
const emit = defineEmits<{ made: [key: string]; close: [] }>()

const { document, squad, edit } = useBench()
const { all, patterns, positions, byKey, refresh } = useMovements()
const first = ref<HTMLInputElement | null>(null)
onMounted(() => first.value?.focus())

const form = reactive({
  name: props.words.trim(),
  pattern: '',
  second: '',
  share: 100,
  position: 'standing',
  sides: 'both',
  pace: '3',
  speed: '',
  landings: '',
  grade: 'medium',
  contains: '',
  aliases: '',
  met: '6',
  kit: '',
  repIs: '',
  forSquad: false,
})
const trouble = ref('')
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
  const share = form.second ? form.share / 100 : 1
  const weights: Record<string, number> = { [form.pattern]: share }
  if (form.second) weights[form.second] = Math.round((1 - share) * 100) / 100
  const pace = Number(form.pace)
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
    met: Number(form.met) || 5,
    ...(pace > 0 ? { pace_s: pace } : {}),
    ...(kit.length ? { kit } : {}),
    ...(form.repIs ? { rep_is: form.repIs } : {}),
    ...(Number(form.speed) > 0 ? { speed_mps: Number(form.speed) } : {}),
    ...(Number(form.landings) > 0
      ? { landings: Number(form.landings), landing_grade: form.grade as MovementDef['landing_grade'] }
      : {}),
    ...(aliases.length ? { aliases } : {}),
    ...(inside.length ? { contains: inside } : {}),
  }
}
async function define(): Promise<void> {
  trouble.value = ''
  if (!key.value || !form.pattern) {
    trouble.value = 'A new movement needs a name and what it mostly works.'
    return
  }
  if (byKey.value.has(key.value)) {
    trouble.value = `There is a movement ${key.value} already.`
    return
  }
  const made = definition()
  try {
    if (form.forSquad) {
      await api.importMovements('json', JSON.stringify([made]), squad.value)
      await refresh()
    } else {
      const own = document.value?.movements ?? []
      edit([{ op: 'set', place: ['movements'], value: [...own.filter((one) => one.key !== made.key), made] }])
    }
    emit('made', made.key)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    trouble.value = error.told
  }
}
</script>

<template>
  <form class="form" aria-label="New movement" @submit.prevent="define" @keydown.esc.stop="$emit('close')">
    <label>name <input ref="first" v-model="form.name" autocomplete="off" /></label>
    <label>
      mostly works
      <select v-model="form.pattern">
        <option value="" disabled>choose</option>
        <option v-for="one in patterns" :key="one" :value="one">{{ one }}</option>
      </select>
    </label>
    <label>
      and
      <select v-model="form.second">
        <option value="">nothing else</option>
        <option v-for="one in patterns" :key="one" :value="one">{{ one }}</option>
      </select>
    </label>
    <label v-if="form.second"
      >share of the first <input v-model.number="form.share" size="3" inputmode="numeric" /> %</label
    >
    <label>
      position
      <select v-model="form.position">
        <option v-for="one in positions" :key="one" :value="one">{{ one }}</option>
      </select>
    </label>
    <label>
      sides
      <select v-model="form.sides">
        <option v-for="(said, side) in SIDES" :key="side" :value="side">{{ said }}</option>
      </select>
    </label>
    <label>seconds a rep (empty: no reps) <input v-model="form.pace" size="4" inputmode="decimal" /></label>
    <label>metres a second <input v-model="form.speed" size="4" inputmode="decimal" placeholder="2" /></label>
    <label>
      landings a rep <input v-model="form.landings" size="3" inputmode="numeric" placeholder="0" />
      <select v-if="Number(form.landings) > 0" v-model="form.grade" aria-label="How hard a landing is">
        <option value="low">low</option>
        <option value="medium">medium</option>
        <option value="high">high</option>
      </select>
    </label>
    <label
      >holds in one rep <input v-model="form.contains" autocomplete="off" placeholder="2 push-up, 1 squat jump"
    /></label>
    <label>also called <input v-model="form.aliases" autocomplete="off" placeholder="none" /></label>
    <label>energy cost in MET <input v-model="form.met" size="4" inputmode="decimal" /></label>
    <label>kit <input v-model="form.kit" autocomplete="off" placeholder="none" /></label>
    <label>one rep is <input v-model="form.repIs" autocomplete="off" /></label>
    <label><input v-model="form.forSquad" type="checkbox" /> keep it for the whole squad</label>
    <button type="submit" class="link">Define it</button>
    <button type="button" class="link" @click="$emit('close')">back</button>
    <p v-if="trouble" class="why" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.form {
  margin-top: 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: baseline;
  font-size: 13px;
}
label {
  display: inline-flex;
  gap: 5px;
  align-items: baseline;
  color: var(--mute);
}
input:not([type='checkbox']),
select {
  font-weight: 600;
  color: var(--ink);
}
.why {
  flex-basis: 100%;
  margin: 0;
  border-left: 3px solid var(--warn);
  background: var(--warn-sheet);
  padding: 2px 8px;
}
</style>
