<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'

import type { MethodSchool } from '@/api/types'
import { valueText } from '@/words/rows'
import { SCHOOL as say } from '@/words/texts/methods'

// Where coaches differ: what each side argues, and the same session in each.
const props = defineProps<{ school: MethodSchool; value: unknown; changes: boolean }>()
const emit = defineEmits<{ take: [value: unknown] }>()
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const known = computed(() => props.school.views.some((one) => same(one.value, props.value)))
</script>

<template>
  <section class="school" :aria-label="school.label">
    <h3>
      {{ school.label }} <small>{{ say.differ }}</small>
    </h3>
    <p v-if="!known" class="note-bar">{{ say.ofOwn }}</p>
    <div class="views">
      <div v-for="one in school.views" :key="one.label" class="view" :class="{ on: same(one.value, value) }">
        <p class="name">
          <b>{{ one.label }}</b>
          <small v-if="same(one.value, value)">{{ say.squads }}</small>
          <small v-else-if="same(one.value, school.default)">{{ say.default }}</small>
        </p>
        <p>{{ one.argues }}</p>
        <dl>
          <div v-for="line in one.lines" :key="line.label">
            <dt>{{ line.label }}</dt>
            <dd>{{ valueText(line.value, line.unit) }}</dd>
          </div>
        </dl>
        <ElButton v-if="changes && !same(one.value, value)" size="small" @click="emit('take', one.value)">{{
          say.take(one.label)
        }}</ElButton>
      </div>
    </div>
    <details>
      <summary>{{ say.sample }}: {{ school.title }}</summary>
      <pre>{{ school.text }}</pre>
    </details>
  </section>
</template>

<style scoped>
.school {
  border: 1px solid var(--rule);
  background: var(--sheet);
  padding: 8px 14px 10px;
  margin: 10px 0;
}
h3 {
  font-size: 17px;
}
small {
  font: 12.5px var(--text);
  color: var(--mute);
}
.views {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px 24px;
}
.view {
  border-top: 3px solid var(--rule);
  padding-top: 4px;
}
.view.on {
  border-top-color: var(--ink);
}
.name {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
p {
  margin: 3px 0;
}
dl {
  margin: 4px 0 8px;
}
dl div {
  display: flex;
  justify-content: space-between;
  border-bottom: 1px dotted var(--rule);
}
dd {
  margin: 0;
  font: 600 18px/1.3 var(--head);
}
summary {
  color: var(--act);
  cursor: pointer;
  min-height: 24px;
}
pre {
  font: inherit;
  white-space: pre-wrap;
  margin: 4px 0;
}
</style>
