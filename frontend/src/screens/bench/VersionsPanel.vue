<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { Difference, RevisionItem, SessionDoc } from '@/api/types'
import { useAttempt } from '@/composables/useAttempt'
import { writeValue } from '@/words/values'

const props = defineProps<{ session: string }>()
const emit = defineEmits<{ restore: [document: SessionDoc]; close: [] }>()

const versions = shallowRef<readonly RevisionItem[] | null>(null)
const changes = shallowRef(new Map<number, readonly Difference[]>())
const { trouble, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    versions.value = await api.revisions(props.session)
  }),
)
const show = (version: RevisionItem) =>
  attempt(async () => {
    const shown = changes.value.has(version.id)
    const found = shown ? [] : (await api.differences(props.session, version.id)).differences
    // Others may have been opened meanwhile.
    const next = new Map(changes.value)
    if (shown) next.delete(version.id)
    else next.set(version.id, found)
    changes.value = next
  })
const restore = (version: RevisionItem) =>
  attempt(async () => {
    emit('restore', (await api.revision(props.session, version.id)).document)
  })

const when = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const KINDS: Record<string, string> = { autosave: 'saved by itself', kept: 'kept', conflict: 'beside another version' }
const brief = (value: unknown): string => {
  const text =
    typeof value === 'object' && value !== null && !Array.isArray(value) && !('low' in value) ? '…' : writeValue(value)
  return text === '' ? 'nothing' : text.slice(0, 60)
}
</script>

<template>
  <section class="versions" aria-label="Versions">
    <h2>Versions</h2>
    <button type="button" class="link" @click="$emit('close')">close</button>
    <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
    <p v-if="versions === null" role="status">Fetching the versions …</p>
    <ul v-else>
      <li v-for="(version, index) in versions" :key="version.id">
        <b>{{ when(version.updated_at) }}</b> {{ version.author }}, {{ KINDS[version.kind] ?? version.kind }}
        <button
          v-if="version.parent !== null"
          type="button"
          class="link"
          :aria-expanded="changes.has(version.id)"
          @click="show(version)"
        >
          what changed<span class="visually-hidden"> {{ when(version.updated_at) }}</span>
        </button>
        <button v-if="index > 0" type="button" class="link" @click="restore(version)">
          bring it back<span class="visually-hidden">: {{ when(version.updated_at) }}</span>
        </button>
        <ul v-if="changes.has(version.id)" class="changes">
          <li v-for="(one, at) in changes.get(version.id)" :key="at">
            {{ one.kind }} <b>{{ one.what }}</b>
            <template v-if="one.kind === 'changed'">: {{ brief(one.before) }} → {{ brief(one.after) }}</template>
            <small>{{ one.path }}</small>
          </li>
          <li v-if="changes.get(version.id)?.length === 0">nothing</li>
        </ul>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.versions {
  padding: 8px 20px;
  background: var(--paper-2);
  border-bottom: 1px solid var(--rule);
  max-height: 300px;
  overflow: auto;
}
h2 {
  display: inline-block;
  font-size: 17px;
  margin-right: 14px;
}
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
