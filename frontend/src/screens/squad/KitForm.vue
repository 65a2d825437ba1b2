<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import { api } from '@/api/client'
import type { Settings } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useMovements } from '@/composables/useMovements'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { KIT_FORM as say } from '@/words/texts/squad'

// How many there are of each kit. What is typed is kept at once.
const props = defineProps<{ settings: Settings }>()
const emit = defineEmits<{ changed: [made: Settings] }>()
const { kits } = useMovements()
const OTHER = '…'
const kit = computed(() => Object.entries(props.settings.kit).sort(([a], [b]) => a.localeCompare(b)))
const free = computed(() => [
  ...kits.value.filter((one) => !(one in props.settings.kit)).map((one) => ({ value: one, label: one })),
  { value: OTHER, label: say.other },
])
const picked = ref<string | null>(null)
const typed = ref('')
const { trouble, attempt } = useAttempt()
const put = (made: Record<string, number>) =>
  attempt(async () => {
    emit('changed', await api.changeSettings(squadNow.value, { version: props.settings.version, kit: made }))
  })
const without = (name: string) =>
  put(Object.fromEntries(Object.entries(props.settings.kit).filter(([one]) => one !== name)))
async function add(): Promise<void> {
  const name = picked.value === OTHER ? typed.value.trim() : picked.value
  if (!name) return
  if (await put({ ...props.settings.kit, [name]: 1 })) {
    picked.value = null
    typed.value = ''
  }
}
</script>

<template>
  <section :aria-label="say.kit">
    <h2>{{ say.kit }}</h2>
    <p class="said">{{ say.why }}</p>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="!kit.length" class="said">{{ say.none }}</p>
    <ul class="kit">
      <li v-for="[name, count] in kit" :key="name">
        <NumberField
          v-if="settings.can_change"
          :model-value="count"
          :label="say.howMany(name)"
          :max="10000"
          @change="$event !== null && put({ ...settings.kit, [name]: $event })"
        />
        <b v-else>{{ count }}</b>
        <span>{{ name }}</span>
        <button v-if="settings.can_change" type="button" class="link" @click="without(name)">
          {{ say.remove }}<span class="visually-hidden"> {{ name }}</span>
        </button>
      </li>
    </ul>
    <form v-if="settings.can_change" class="line" @submit.prevent="add">
      <ChoiceField v-model="picked" :label="say.add" :placeholder="say.pick" :options="free" />
      <ElInput
        v-if="picked === OTHER"
        v-model="typed"
        :aria-label="say.other"
        :placeholder="say.other"
        maxlength="60"
        size="small"
        class="typed"
      />
      <ElButton native-type="submit" size="small" :disabled="!picked">{{ say.put }}</ElButton>
    </form>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
.kit {
  list-style: none;
  padding: 0;
  margin: 4px 0;
  columns: 2 220px;
}
.kit li {
  display: flex;
  gap: 8px;
  align-items: center;
  break-inside: avoid;
  min-height: 28px;
}
.kit li .link {
  margin-left: auto;
}
.typed {
  width: 14em;
}
</style>
