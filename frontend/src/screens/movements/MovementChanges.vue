<script setup lang="ts">
import type { MovementTaken } from '@/api/types'
import { MOVEMENT_CHANGES as say, MOVEMENT_FIELDS as FIELDS } from '@/words/texts/movements'

// What definitions would change before they are taken: field by field, and which sessions go by them.
defineProps<{ taken: readonly MovementTaken[] }>()
const MOST = 60
const touched = (one: MovementTaken): string => {
  const { sessions, planned, kept, logged } = one.use
  const titles = sessions.slice(0, 4).map((each) => `“${each.title}”`)
  const many = sessions.length === 1 ? say.oneSession : say.sessions(sessions.length)
  const which = sessions.length
    ? `${many}: ${titles.join(', ')}${sessions.length > titles.length ? say.others : ''}`
    : ''
  return [
    which ? say.touches(which) : say.touchesNone,
    planned ? say.follows(planned) : '',
    kept ? say.keeps(kept) : '',
    logged ? say.logged(logged) : '',
  ]
    .filter(Boolean)
    .join(' ')
}
</script>

<template>
  <ul class="changes">
    <li v-for="one in taken.slice(0, MOST)" :key="one.key">
      <b>{{ one.name }}</b> <small>{{ say[one.fate] }}</small>
      <template v-if="one.fate !== 'same'">
        <p v-for="each in one.changes" :key="each.field" class="field">
          {{
            one.fate === 'new'
              ? `${FIELDS[each.field]}: ${each.becomes}`
              : say.fromTo(FIELDS[each.field], each.was || say.nothing, each.becomes || say.nothing)
          }}
        </p>
        <p class="touches">{{ touched(one) }}</p>
      </template>
    </li>
  </ul>
</template>

<style scoped>
.changes {
  list-style: none;
  padding: 0;
  margin: 8px 0;
  max-height: 46vh;
  overflow: auto;
}
li {
  border-bottom: 1px solid var(--rule);
  padding: 5px 0;
}
small,
.touches {
  color: var(--mute);
}
p {
  margin: 1px 0 1px 14px;
  overflow-wrap: anywhere;
}
</style>
