<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElCheckbox, ElEmpty, ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { queryClient } from '@/api/query'
import type { MovementDef } from '@/api/types'
import { plansHere, squadNow } from '@/composables/useAccount'
import { useMovements } from '@/composables/useMovements'
import ChoiceField from '@/parts/ChoiceField.vue'
import { MOVEMENTS_SCREEN as say } from '@/words/texts/movements'

import MovementEditor from './MovementEditor.vue'
import MovementFiles from './MovementFiles.vue'
import MovementPage from './MovementPage.vue'
import UnknownNames from './UnknownNames.vue'

// All movements of the squad: found by words and filters on one side, one of them in full on the other.
const route = useRoute()
const router = useRouter()
const { all, own, search, codeOf, kits, joints, positions, patterns, refresh } = useMovements()
const words = ref('')
const pattern = ref('')
const kit = ref('')
const position = ref('')
const spare = ref('')
const ownOnly = ref(false)
type Panel = 'page' | 'edit' | 'unknown' | 'files'
const panel = ref<Panel>('page')
const chosen = computed(() => (typeof route.query.one === 'string' ? route.query.one : ''))
/** What the editor starts from: a movement that is changed, one that is copied, or only a name. */
const start = ref<{ movement: MovementDef | null; changes: boolean; name: string }>({
  movement: null,
  changes: false,
  name: '',
})
const found = computed(() => {
  const narrowed = { pattern: pattern.value, kit: kit.value, position: position.value, spare: spare.value }
  const some = search(words.value, narrowed).filter((one) => !ownOnly.value || own.value.has(one.key))
  // What fits best first; where nothing is typed, by name.
  return words.value.trim() ? some : some.sort((a, b) => (a.name ?? a.key).localeCompare(b.name ?? b.key))
})
const { data: unknown } = useQuery(
  {
    queryKey: computed(() => KEYS.unknownMovements(squadNow.value)),
    queryFn: () => api.unknownMovements(squadNow.value),
    enabled: plansHere,
  },
  queryClient,
)
const choices = (list: readonly string[], none: string, label = (one: string): string => one) => [
  { value: '', label: none },
  ...list.map((value) => ({ value, label: label(value) })),
]
const kitChoices = computed(() => [
  { value: '', label: say.anyKit },
  { value: 'none', label: say.noKit },
  ...kits.value.map((value) => ({ value, label: value })),
])
async function show(key: string): Promise<void> {
  panel.value = 'page'
  await router.push({ query: { ...route.query, one: key || undefined } })
}
function edit(movement: MovementDef | null, changes: boolean, name = ''): void {
  start.value = { movement, changes, name }
  panel.value = 'edit'
}
async function changed(key: string): Promise<void> {
  await refresh()
  await show(key)
}
const toggle = (which: Panel): void => {
  panel.value = panel.value === which ? 'page' : which
}
/** On a phone one of the two is seen. */
const beside = computed(() => panel.value !== 'page' || chosen.value !== '')
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ say.movements }}</h1>
      <span v-if="all.length" class="said" role="status">{{ say.count(found.length, all.length) }}</span>
      <span class="grow"></span>
      <template v-if="plansHere">
        <ElButton v-if="unknown?.length" :aria-expanded="panel === 'unknown'" @click="toggle('unknown')">{{
          say.unknown(unknown.length)
        }}</ElButton>
        <ElButton :aria-expanded="panel === 'files'" @click="toggle('files')">{{ say.files }}</ElButton>
        <ElButton type="primary" @click="edit(null, false)">{{ say.define }}</ElButton>
      </template>
    </header>
    <div class="two" :class="{ beside }">
      <section class="found" :aria-label="say.list">
        <div class="filters">
          <ElInput v-model="words" :aria-label="say.find" :placeholder="say.findPlaceholder" maxlength="60" clearable />
          <ChoiceField v-model="pattern" :label="say.pattern" :options="choices(patterns, say.anyPattern)" />
          <ChoiceField v-model="kit" :label="say.kit" :options="kitChoices" />
          <ChoiceField v-model="position" :label="say.position" :options="choices(positions, say.anyPosition)" />
          <ChoiceField v-model="spare" :label="say.spares" :options="choices(joints, say.spareNothing, say.spare)" />
          <ElCheckbox v-model="ownOnly">{{ say.own }}</ElCheckbox>
        </div>
        <p v-if="all.length === 0" role="status" class="said none">{{ say.reading }}</p>
        <ElEmpty v-else-if="found.length === 0" class="none" :image-size="0" :description="say.none" />
        <ul v-else>
          <li v-for="one in found" :key="one.key">
            <button
              type="button"
              class="plain"
              :class="{ on: one.key === chosen }"
              :aria-current="one.key === chosen ? 'true' : undefined"
              @click="show(one.key)"
            >
              <span class="code" aria-hidden="true">{{ codeOf(one) }}</span>
              <span class="name">{{ one.name ?? one.key }}</span>
              <small>{{ own.has(one.key) ? say.isOwn : (one.kit ?? []).join(', ') }}</small>
            </button>
          </li>
        </ul>
      </section>
      <div class="one">
        <button v-if="beside" type="button" class="link back" @click="show('')">{{ say.toList }}</button>
        <!-- What a definition is checked against, and begun from, has to be there first. -->
        <p v-if="['edit', 'files'].includes(panel) && all.length === 0" role="status" class="said">{{ say.reading }}</p>
        <MovementEditor
          v-else-if="panel === 'edit'"
          :key="`${start.movement?.key}/${start.changes}/${start.name}`"
          :start="start"
          @kept="changed"
          @close="panel = 'page'"
        />
        <UnknownNames
          v-else-if="panel === 'unknown'"
          :names="unknown ?? []"
          @settled="refresh"
          @define="edit(null, false, $event)"
          @close="panel = 'page'"
        />
        <MovementFiles v-else-if="panel === 'files'" @taken="refresh" @close="panel = 'page'" />
        <MovementPage
          v-else-if="chosen"
          :movement="chosen"
          @show="show"
          @edit="(movement, changes) => edit(movement, changes)"
          @removed="changed('')"
        />
        <p v-else class="said">{{ say.chooseOne }}</p>
      </div>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped>
main {
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(280px, 380px) minmax(0, 1fr);
}
.found {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--rule);
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 10px 14px;
  border-bottom: 1px solid var(--rule);
}
ul {
  list-style: none;
  margin: 0;
  padding: 4px 0 30px;
  overflow: auto;
}
.none {
  margin: 0;
  padding: 14px;
}
li .plain {
  display: flex;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  text-align: left;
  padding: 4px 14px;
  min-height: 30px;
}
li .plain.on {
  background: var(--paper-2);
  box-shadow: inset 3px 0 var(--ink);
}
li .plain:hover {
  background: var(--paper-2);
}
.name {
  flex: 1;
}
small {
  color: var(--mute);
  font-size: 12.5px;
  text-align: right;
}
.one {
  overflow: auto;
  padding: 14px 20px 40px;
}
.back {
  display: none;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .found {
    border-right: 0;
  }
  .two.beside .found,
  .two:not(.beside) .one {
    display: none;
  }
  .one {
    padding: 10px 14px 40px;
  }
  .back {
    display: inline-block;
  }
}
</style>
