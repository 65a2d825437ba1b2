<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElDrawer, ElSkeleton } from 'element-plus'
import { computed, shallowRef } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { LASTING, queryClient, troubleOf } from '@/api/query'
import type { Difference, RevisionItem, SessionDoc } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { writeValue } from '@/words/values'
import { VERSIONS_PANEL as say } from '@/words/texts/bench'

const props = defineProps<{ session: string }>()
const emit = defineEmits<{ restore: [document: SessionDoc]; close: [] }>()

const { data, error } = useQuery(
  {
    queryKey: computed(() => KEYS.versions(props.session)),
    queryFn: ({ queryKey }) => api.revisions(String(queryKey[1])),
    gcTime: 0,
  },
  queryClient,
)
const versions = computed(() => data.value ?? null)
const notRead = troubleOf(error)
const { trouble, attempt } = useAttempt()
/** Versions of which it is shown what changed. */
const opened = shallowRef(new Map<number, readonly Difference[]>())
const show = (version: RevisionItem) =>
  attempt(async () => {
    const shown = opened.value.has(version.id)
    const found = shown
      ? []
      : (
          await queryClient.fetchQuery({
            queryKey: [...KEYS.versions(props.session), version.id],
            queryFn: () => api.differences(props.session, version.id),
            ...LASTING,
          })
        ).differences
    // Others may have been opened meanwhile.
    const next = new Map(opened.value)
    if (shown) next.delete(version.id)
    else next.set(version.id, found)
    opened.value = next
  })
const restore = (version: RevisionItem) =>
  attempt(async () => {
    emit('restore', (await api.revision(props.session, version.id)).document)
  })

const when = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const KINDS: Record<string, string> = {
  autosave: say.savedByItself,
  kept: say.kept,
  conflict: say.besideAnotherVersion,
}
const brief = (value: unknown): string => {
  const text =
    typeof value === 'object' && value !== null && !Array.isArray(value) && !('low' in value) ? '…' : writeValue(value)
  return text === '' ? say.nothing : text.slice(0, 60)
}
</script>

<template>
  <ElDrawer :model-value="true" :title="say.versions" size="min(520px, 94vw)" @close="emit('close')">
    <p v-if="trouble || notRead" class="note-bar" role="alert">{{ trouble || notRead }}</p>
    <div v-if="versions === null" role="status">
      <span class="visually-hidden">{{ say.fetchingTheVersions }}</span>
      <ElSkeleton v-if="!notRead" :rows="6" animated :throttle="200" />
    </div>
    <ul v-else>
      <li v-for="(version, index) in versions" :key="version.id">
        <b>{{ when(version.updated_at) }}</b> {{ version.author }}, {{ KINDS[version.kind] ?? version.kind }}
        <button
          v-if="version.parent !== null"
          type="button"
          class="link"
          :aria-expanded="opened.has(version.id)"
          @click="show(version)"
        >
          {{ say.whatChanged }}<span class="visually-hidden"> {{ when(version.updated_at) }}</span>
        </button>
        <button v-if="index > 0" type="button" class="link" @click="restore(version)">
          {{ say.bringItBack }}<span class="visually-hidden">: {{ when(version.updated_at) }}</span>
        </button>
        <ul v-if="opened.has(version.id)" class="changes">
          <li v-for="(one, at) in opened.get(version.id)" :key="at">
            {{ one.kind }} <b>{{ one.what }}</b>
            <template v-if="one.kind === 'changed'">: {{ brief(one.before) }} → {{ brief(one.after) }}</template>
            <small>{{ one.path }}</small>
          </li>
          <li v-if="opened.get(version.id)?.length === 0">{{ say.nothing }}</li>
        </ul>
      </li>
    </ul>
  </ElDrawer>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
.link {
  margin-left: 8px;
  font-size: 13px;
}
.changes {
  border-left: 2px solid var(--rule);
  padding-left: 10px;
  font-size: 13px;
}
small {
  color: var(--mute);
  margin-left: 8px;
}
</style>
