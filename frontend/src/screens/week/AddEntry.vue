<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { PlanDetails, SessionName } from '@/api/types'
import { longDay } from '@/words/dates'
import { clock, whole } from '@/words/format'

const props = defineProps<{ day: string }>()
const emit = defineEmits<{ add: [body: PlanDetails & { session?: string; title?: string }]; close: [] }>()

const OTHER = 'other'
const sessions = shallowRef<readonly SessionName[]>([])
const what = ref('')
const title = ref('')
const minutes = ref(60)
const effort = ref(4)
const time = ref('')
const first = ref<HTMLSelectElement | null>(null)
onMounted(async () => {
  sessions.value = await api.sessionNames()
  first.value?.focus()
})
const ready = computed(() => what.value !== '' && (what.value !== OTHER || title.value.trim() !== ''))
function add(): void {
  if (!ready.value) return
  const when = { day: props.day, ...(time.value ? { time: time.value } : {}) }
  emit(
    'add',
    what.value === OTHER
      ? { ...when, title: title.value, minutes: minutes.value, effort: effort.value }
      : { ...when, session: what.value },
  )
}
</script>

<template>
  <form
    class="adding"
    :aria-label="`Put something on ${longDay(day)}`"
    @submit.prevent="add"
    @keydown.esc.stop="$emit('close')"
  >
    <label>
      <span class="visually-hidden">What</span>
      <select ref="first" v-model="what">
        <option value="">session …</option>
        <option v-for="one in sessions" :key="one.id" :value="one.id">
          {{ one.title }} ({{ clock(one.total_s) }}, {{ one.load === null ? '–' : whole(one.load) }})
        </option>
        <option :value="OTHER">other training</option>
      </select>
    </label>
    <template v-if="what === OTHER">
      <label
        ><span class="visually-hidden">Title</span><input v-model="title" placeholder="hike, match …" maxlength="200"
      /></label>
      <label>min <input v-model.number="minutes" type="number" min="1" max="1440" class="small" /></label>
      <label>effort <input v-model.number="effort" type="number" min="0" max="10" step="0.5" class="small" /></label>
    </template>
    <label>at <input v-model="time" type="time" /></label>
    <span class="acts">
      <ElButton type="primary" size="small" native-type="submit" :disabled="!ready">Put it there</ElButton>
      <button type="button" class="link" @click="$emit('close')">close</button>
    </span>
  </form>
</template>

<style scoped>
.adding {
  display: grid;
  gap: 4px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  padding: 6px;
  font-size: 13px;
}
select,
input {
  width: 100%;
}
.small,
input[type='time'] {
  width: auto;
  max-width: 90px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
}
</style>
