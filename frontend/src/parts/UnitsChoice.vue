<script setup lang="ts">
import { ElRadio, ElRadioGroup } from 'element-plus'

import { UNITS_CHOICE as say } from '@/words/texts/parts'
import type { Units } from '@/words/units'

// What masses and distances are told in, of the account or on this device.
defineProps<{ units: Units }>()
const emit = defineEmits<{ choose: [units: Units] }>()
</script>

<template>
  <ElRadioGroup :model-value="units" :aria-label="say.label" @change="emit('choose', $event as Units)">
    <ElRadio v-for="(label, key) in say.systems" :key="key" :value="key">{{ label }}</ElRadio>
  </ElRadioGroup>
</template>

<style scoped>
.el-radio-group {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
}
.el-radio {
  margin-right: 0;
}
</style>
