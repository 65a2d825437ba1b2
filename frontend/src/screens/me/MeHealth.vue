<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'

import type { OwnEntry, OwnPage } from '@/api/types'
import type { OwnWord } from '@/own/useOwn'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { ME_HEALTH as say } from '@/words/texts/me'
import { NOTE_KINDS, SIDES } from '@/words/texts/notes'

// Health goes in, not out: once sent, what was written is on this page no more, and on this phone neither.
const props = defineProps<{ page: OwnPage; entry: OwnEntry; waits: boolean }>()
const emit = defineEmits<{ say: [word: OwnWord] }>()
const writing = ref(false)
const done = ref(false)
type Kind = NonNullable<Extract<OwnWord, { what: 'note' }>['kind']>
const kind = ref<Kind>('pain')
const place = ref('')
const side = ref<'' | 'left' | 'right' | 'both'>('')
const level = ref<number | null>(null)
const text = ref('')
/** Each kind of note about health has a caution. */
const kinds = computed(() =>
  Object.keys(props.page.note_cautions).map((value) => ({ value: value as Kind, label: NOTE_KINDS[value] ?? value })),
)
const sides = Object.entries(SIDES).map(([value, label]) => ({ value: value as typeof side.value, label }))
const caution = computed(() => props.page.note_cautions[kind.value] ?? '')
const empty = computed(() => !text.value.trim() && !place.value.trim() && kind.value !== 'dizziness')
function forget(): void {
  writing.value = false
  text.value = place.value = side.value = ''
  level.value = null
}
function send(): void {
  emit('say', {
    what: 'note',
    entry: props.entry.id,
    kind: kind.value,
    text: text.value,
    place: place.value,
    side: side.value,
    level: level.value,
  })
  forget()
  done.value = true
}
</script>

<template>
  <section>
    <h3>{{ say.heading }}</h3>
    <p v-if="done" role="status">{{ waits ? say.waits : say.sent }}</p>
    <p v-if="done" class="note-bar" role="alert">{{ caution }}</p>
    <template v-if="!writing">
      <p class="said">{{ page.health_why || say.only }}</p>
      <button type="button" class="tap" @click="writing = true">{{ say.write }}</button>
    </template>
    <form v-else class="form" @submit.prevent="send">
      <p class="said">{{ say.only }}</p>
      <ChoiceField v-model="kind" :label="say.what" :said="say.what" :options="kinds" boxed />
      <p class="note-bar">{{ caution }}</p>
      <label>
        {{ say.where }}
        <ElInput v-model="place" size="large" maxlength="40" />
      </label>
      <ChoiceField v-model="side" :label="say.side" :said="say.side" :options="sides" boxed />
      <NumberField v-model="level" :label="say.howMuch" :said="say.howMuch" :max="10" />
      <label>
        {{ say.more }}
        <ElInput v-model="text" type="textarea" :rows="3" maxlength="2000" />
      </label>
      <div class="two">
        <ElButton native-type="submit" type="primary" size="large" :disabled="empty">{{ say.send }}</ElButton>
        <ElButton size="large" @click="forget">{{ say.close }}</ElButton>
      </div>
    </form>
  </section>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.form label,
.form .two {
  width: 100%;
}
.form :deep(.el-button + .el-button) {
  margin-left: 0;
}
.form :deep(.el-select__wrapper),
.form :deep(.el-input-number) {
  min-height: 44px;
  font-size: 17px;
}
</style>
