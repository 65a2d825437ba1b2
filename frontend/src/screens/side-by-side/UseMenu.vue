<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref, useId, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'
import type { Column, SessionDoc } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import type { Edit } from '@/composables/edits'
import { handOver } from '@/composables/usePending'
import { USE_MENU as say } from '@/words/texts/side-by-side'

const props = defineProps<{
  column: Column | null
  session: { id: string; document: SessionDoc; title: string } | null
  source: readonly number[]
  squad: number
}>()
const router = useRouter()
const id = useId()
const { trouble, attempt } = useAttempt()
const said = ref('')
const naming = ref<'session' | 'shape' | null>(null)
const name = ref('')
/** The kept shape of the same name, once it was told that it would be replaced. */
const replacing = ref<number | null>(null)
watch(name, () => (replacing.value = null))
// The same one figured anew is no other: a name that is being typed stays.
watch(
  () => `${props.column?.key} ${props.column?.name}`,
  () => {
    said.value = ''
    naming.value = null
  },
)

/** The Bench makes the edits, so that they stand there as one step of undo. */
const put = (how: 'replace' | 'insert') =>
  attempt(async () => {
    const { column, session } = props
    if (!column || !session) return
    const { edits } = await api.useRecast({
      document: session.document,
      source: [...props.source],
      entries: column.entries,
      how,
    })
    handOver(session.id, edits as Edit[])
    await router.push({ name: 'bench', params: { id: session.id } })
  })
function ask(what: 'session' | 'shape'): void {
  naming.value = what
  name.value =
    what === 'shape'
      ? (props.column?.name ?? '')
      : `${props.column?.name ?? ''}${props.session ? say.from(props.session.title) : ''}`
}
const keep = () =>
  attempt(async () => {
    const { column } = props
    if (!column?.document || !name.value.trim()) return
    if (naming.value === 'shape') {
      const there = (await api.shapes(props.squad)).find((one) => one.name === name.value.trim())
      if (there && replacing.value !== there.id) {
        // Another of that name is replaced only once that was said.
        replacing.value = there.id
        return
      }
      const shape = { name: name.value, key: column.format, params: column.params }
      await api.keepShape({ ...shape, squad: props.squad, replaces: there?.id ?? null })
      await askAgain(KEYS.shapes(props.squad))
      said.value = say.keptAsTheShape(name.value.trim())
      naming.value = null
      return
    }
    // A session of its own has a warm-up and a cool-down to come: what is missing is to be said again.
    const document: Record<string, unknown> = { ...column.document, title: name.value }
    delete document['stands_alone']
    const made = await api.createSession(document as unknown as SessionDoc, props.squad)
    await router.push({ name: 'bench', params: { id: made.id } })
  })
</script>

<template>
  <div class="use" role="group" :aria-label="say.useTheMarkedOne">
    <template v-if="column && !naming">
      <span class="what">{{ say.use(column.name) }}</span>
      <ElButton v-if="session" type="primary" @click="put('replace')">{{ say.replace }}</ElButton>
      <ElButton v-if="session" @click="put('insert')">{{ say.insertAfter }}</ElButton>
      <ElButton @click="ask('session')">{{ say.newSession }}</ElButton>
      <ElButton v-if="column.key !== 'session'" @click="ask('shape')">{{ say.keepTheShape }}</ElButton>
    </template>
    <form v-else-if="naming" @submit.prevent="keep" @keydown.esc.stop="naming = null">
      <label :for="id">{{ naming === 'shape' ? say.nameOfTheShape : say.titleOfTheSession }}</label>
      <ElInput :id="id" v-model="name" class="name" :maxlength="naming === 'shape' ? 80 : 400" required />
      <span v-if="replacing" role="status">{{ say.thereIsAShapeOf }}</span>
      <ElButton type="primary" native-type="submit">{{ replacing ? say.replaceIt : say.keep }}</ElButton>
      <button type="button" class="link" @click="naming = null">{{ say.leaveIt }}</button>
    </form>
    <span v-if="trouble" class="trouble" role="alert">{{ trouble }}</span>
    <span v-else-if="said" role="status">{{ said }}</span>
  </div>
</template>

<style scoped>
.use,
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.use :deep(.el-button + .el-button) {
  margin-left: 0;
}
.what {
  color: var(--mute);
}
.name {
  width: 260px;
}
.trouble {
  color: var(--warn);
  font-weight: 600;
}
@media print {
  .use {
    display: none;
  }
}
</style>
