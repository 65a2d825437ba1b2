<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { account, plansHere, squadNow, squadOwn } from '@/composables/useAccount'
import { useSignOut } from '@/composables/useSignOut'
import { SIDE_RAIL as say } from '@/words/texts/parts'

import ChoiceField from './ChoiceField.vue'
import HelpButton from './HelpButton.vue'

const route = useRoute()
const router = useRouter()

const squads = computed(() => (account.value?.squads ?? []).map((one) => ({ value: one.id, label: one.name })))
async function turnTo(id: number | null | undefined): Promise<void> {
  if (!id) return
  // Turned to on the way, after leaving: what is being written is saved then, and who is asked to stay stays.
  await router.push({ name: 'week', query: { squad: id } })
}
const leave = useSignOut()
</script>

<template>
  <nav class="rail" :aria-label="say.screens">
    <RouterLink to="/" class="name" :aria-current="route.path === '/' ? 'page' : undefined"
      >{{ say.fine }} <br />{{ say.tally }}</RouterLink
    >
    <RouterLink v-if="plansHere" to="/today" class="to" :class="{ on: route.path.startsWith('/today') }">{{
      say.floor
    }}</RouterLink>
    <RouterLink to="/week" class="to" :class="{ on: route.path.startsWith('/week') }">{{ say.week }}</RouterLink>
    <RouterLink to="/bench" class="to" :class="{ on: route.path.startsWith('/bench') }">{{ say.bench }}</RouterLink>
    <RouterLink to="/side-by-side" class="to" :class="{ on: route.path.startsWith('/side-by-side') }">{{
      say.sideBySide
    }}</RouterLink>
    <RouterLink v-if="squadNow" to="/log" class="to" :class="{ on: route.path.startsWith('/log') }">{{
      say.log
    }}</RouterLink>
    <RouterLink to="/movements" class="to" :class="{ on: route.path.startsWith('/movements') }">{{
      say.movements
    }}</RouterLink>
    <RouterLink v-if="squadNow" to="/methods" class="to" :class="{ on: route.path.startsWith('/methods') }">{{
      say.methods
    }}</RouterLink>
    <RouterLink v-if="plansHere" to="/people" class="to" :class="{ on: route.path.startsWith('/people') }">{{
      say.people
    }}</RouterLink>
    <RouterLink
      v-else-if="squadOwn?.person"
      :to="{ name: 'person', params: { id: squadOwn.person } }"
      class="to"
      :class="{ on: route.path.startsWith('/people') }"
      >{{ say.you }}</RouterLink
    >
    <RouterLink v-if="squadNow" to="/squad" class="to" :class="{ on: route.path.startsWith('/squad') }">{{
      say.squad
    }}</RouterLink>
    <span v-if="squads.length > 1" class="to squad">
      <span aria-hidden="true">{{ say.of }}</span>
      <ChoiceField :model-value="squadNow" :label="say.whichSquad" :options="squads" @update:model-value="turnTo" />
    </span>
    <RouterLink to="/account" class="to own" :class="{ on: route.path === '/account' }" :title="say.account"
      >{{ account?.name }}<span class="visually-hidden">: {{ say.account }}</span></RouterLink
    >
    <span class="to helping"><HelpButton /></span>
    <button type="button" class="plain to out" @click="leave">{{ say.signOut }}</button>
  </nav>
</template>

<style scoped>
.rail {
  border-right: 1px solid var(--rule);
  background: var(--paper-2);
  padding: 14px 0;
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-height: 0;
}
.name {
  font: 600 20px/1 var(--head);
  text-align: center;
  letter-spacing: 0.02em;
  margin: 0 0 12px;
  color: var(--ink);
  text-decoration: none;
}
.to {
  font-size: 12px;
  text-align: center;
  padding: 9px 2px;
  color: var(--mute);
  border-left: 3px solid transparent;
  text-decoration: none;
}
.to.on {
  color: var(--ink);
  border-color: var(--ink);
  background: var(--paper);
  font-weight: 600;
}
.squad {
  margin-top: auto;
}
.squad :deep(.el-select) {
  width: 68px !important;
}
.own {
  margin-top: auto;
  overflow-wrap: anywhere;
}
.squad + .own {
  margin-top: 0;
}
@media (max-width: 700px) {
  .rail {
    flex-direction: row;
    align-items: center;
    padding: 6px 10px;
    gap: 0 1px;
    border-right: 0;
    border-bottom: 1px solid var(--rule);
  }
  .name {
    margin: 0 4px 0 0;
    font-size: 18px;
  }
  .name br {
    display: none;
  }
  .rail {
    flex-wrap: wrap;
  }
  /* On the page of the account, which is a tap away. */
  .out {
    display: none;
  }
  .to {
    padding: 6px 3px;
    border-left-width: 2px;
  }
  .own {
    margin: 0 0 0 auto;
  }
}
</style>
