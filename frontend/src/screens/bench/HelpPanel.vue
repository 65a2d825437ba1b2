<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { SHORTCUTS, singleKeys } from './shortcuts'

defineEmits<{ close: [] }>()
const closer = ref<HTMLButtonElement | null>(null)
onMounted(() => closer.value?.focus())
</script>

<template>
  <section class="help" role="dialog" aria-label="Keys" @keydown.esc.stop="$emit('close')">
    <h2>Keys</h2>
    <button ref="closer" type="button" class="link" @click="$emit('close')">close</button>
    <dl>
      <div v-for="one in SHORTCUTS" :key="one.keys">
        <dt>
          <kbd>{{ one.keys }}</kbd>
        </dt>
        <dd>{{ one.does }}</dd>
      </div>
    </dl>
    <label><input v-model="singleKeys" type="checkbox" /> single letters act when no field has the focus</label>
  </section>
</template>

<style scoped>
.help {
  padding: 10px 20px;
  background: var(--paper-2);
  border-bottom: 1px solid var(--rule);
}
h2 {
  display: inline-block;
  font-size: 17px;
  margin-right: 14px;
}
dl {
  columns: 3 240px;
  margin: 8px 0;
}
dl div {
  display: flex;
  gap: 10px;
  break-inside: avoid;
  padding: 1px 0;
}
dt {
  min-width: 110px;
}
dd {
  margin: 0;
}
kbd {
  font: 600 13px var(--head);
  border: 1px solid #b9b1a0;
  border-radius: 3px;
  padding: 0 5px;
  background: var(--sheet);
}
</style>
