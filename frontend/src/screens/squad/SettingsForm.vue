<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { LASTING, queryClient } from '@/api/query'
import type { Settings } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { tellDone } from '@/parts/notices'
import { dayNames } from '@/words/dates'
import { SQUAD_SETTINGS as say } from '@/words/texts/squad'

const props = defineProps<{ settings: Settings }>()
const emit = defineEmits<{ changed: [made: Settings] }>()
const name = ref('')
const zone = ref('')
const begins = ref(0)
const adult = ref<number | null>(16)
const emergency = ref('')
const asks = ref(false)
const fresh = ref(false)
const why = ref('')
const months = ref<number | null>(12)
watch(
  () => props.settings,
  (now) => {
    name.value = now.name
    zone.value = now.time_zone
    begins.value = now.week_start
    adult.value = now.adult_from
    emergency.value = now.emergency
    asks.value = now.asks_health
    fresh.value = now.asks_freshness
    why.value = now.health_why
    months.value = now.notes_months
  },
  { immediate: true },
)
const { data } = useQuery(
  {
    queryKey: KEYS.timeZones(),
    queryFn: api.timeZones,
    enabled: computed(() => props.settings.can_change),
    ...LASTING,
  },
  queryClient,
)
const zones = computed(() => (data.value ?? [props.settings.time_zone]).map((one) => ({ value: one, label: one })))
const DAYS = dayNames().map((label, value) => ({ value, label }))
const { trouble, attempt } = useAttempt()
const save = () =>
  attempt(async () => {
    const made = await api.changeSettings(squadNow.value, {
      version: props.settings.version,
      name: name.value,
      time_zone: zone.value,
      week_start: begins.value,
      adult_from: adult.value,
      emergency: emergency.value,
      asks_health: asks.value,
      health_why: why.value,
      asks_freshness: fresh.value,
      notes_months: months.value,
    })
    emit('changed', made)
    tellDone(say.saved)
  })
</script>

<template>
  <section :aria-label="say.settings">
    <h2>{{ say.settings }}</h2>
    <form v-if="settings.can_change" @submit.prevent="save">
      <label for="squad-name">{{ say.name }}</label>
      <ElInput id="squad-name" v-model="name" maxlength="120" />
      <p class="line">
        <ChoiceField v-model="zone" :label="say.timeZone" :said="say.timeZone" :options="zones" />
      </p>
      <p class="line">
        <ChoiceField v-model="begins" :label="say.weekBegins" :said="say.weekBegins" :options="DAYS" />
      </p>
      <p class="line">
        <NumberField
          v-model="adult"
          :label="say.adultFrom"
          :said="say.adultFrom"
          :unit="say.years"
          :min="10"
          :max="21"
        />
      </p>
      <p class="said">{{ say.localRules }}</p>
      <label for="emergency">{{ say.emergency }}</label>
      <ElInput
        id="emergency"
        v-model="emergency"
        type="textarea"
        :rows="4"
        maxlength="2000"
        :placeholder="say.whoAndWhere"
      />
      <p>
        <ElCheckbox v-model="asks">{{ say.asksHealth }}</ElCheckbox>
      </p>
      <p>
        <ElCheckbox v-model="fresh">{{ say.asksFreshness }}</ElCheckbox>
      </p>
      <template v-if="asks || fresh">
        <label for="health-why">{{ say.healthWhy }}</label>
        <ElInput id="health-why" v-model="why" maxlength="200" />
        <p class="line">
          <NumberField
            v-model="months"
            :label="say.keptFor"
            :said="say.keptFor"
            :unit="say.months"
            :min="1"
            :max="36"
          />
        </p>
      </template>
      <p v-if="trouble" class="note-bar" role="alert">{{ trouble }}</p>
      <p>
        <ElButton native-type="submit" type="primary">{{ say.save }}</ElButton>
      </p>
    </form>
    <template v-else>
      <p class="said">{{ settings.time_zone }} · {{ say.weekBegins }} {{ DAYS[settings.week_start]?.label }}</p>
      <h3>{{ say.emergency }}</h3>
      <p class="emergency">{{ settings.emergency || say.noEmergency }}</p>
    </template>
  </section>
</template>

<style scoped src="@/styles/section.css"></style>
<style scoped>
label {
  display: block;
  font-weight: 600;
  margin-top: 6px;
}
.emergency {
  white-space: pre-line;
}
</style>
