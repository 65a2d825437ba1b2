<script setup lang="ts">
import { ElCheckbox, ElPopover, ElSlider } from 'element-plus'
import { computed } from 'vue'

import type { CompareRow, NamedWish, Pick, Wish } from '@/api/types'
import ChoiceField from '@/parts/ChoiceField.vue'
import NumberField from '@/parts/NumberField.vue'
import { wishText } from '@/words/rows'
import { eachOf, signOf } from '@/words/units'
import { WISH_BAR as say } from '@/words/texts/side-by-side'

const props = defineProps<{
  named: readonly NamedWish[]
  rows: ReadonlyMap<string, CompareRow>
  pick: Pick | null
  marked: number
}>()
const wishes = defineModel<Wish[]>({ required: true })
const MOST_WISHES = 12
const choices = computed(() => props.named.map((one) => ({ value: one.key, label: one.label })))
function add(key: string | null | undefined): void {
  const one = props.named.find((each) => each.key === key)
  if (one) wishes.value = [...wishes.value, { ...one.wish }]
}
function change(index: number, part: Partial<Wish>): void {
  wishes.value = wishes.value.map((wish, at) => (at === index ? { ...wish, ...part } : wish))
}
const remove = (index: number): void => {
  wishes.value = wishes.value.filter((_, at) => at !== index)
}
const rowOf = (wish: Wish): CompareRow | undefined => props.rows.get(wish.row)
const isBound = (wish: Wish): boolean => wish.way === 'at-most' || wish.way === 'at-least'
// Times are typed in minutes, shares in hundredths; the wish itself is in the row's own unit.
const scale = (wish: Wish): number =>
  ({ s: 60, share: 0.01, split: 0.01, kg: eachOf('kg') })[rowOf(wish)?.unit ?? ''] ?? 1
const unit = (wish: Wish): string =>
  ({ s: 'min', share: '%', split: '%', kg: signOf('kg') })[rowOf(wish)?.unit ?? ''] ?? ''
const bound = (wish: Wish): number => Math.round(((wish.value ?? 0) / scale(wish)) * 100) / 100
const typed = (index: number, wish: Wish, value: number | null): void => {
  if (value !== null) change(index, { value: value * scale(wish) })
}
const WAYS: Record<Wish['way'], string> = {
  'at-most': say.atMost,
  'at-least': say.atLeast,
  low: say.low,
  high: say.high,
  even: say.even,
}
const weightText = (wish: Wish): string => (wish.hard ? say.must : say.weightOf(wish.weight))
const judged = computed(() => props.pick?.ranked.find((one) => one.column === props.marked)?.judged ?? [])
const hint = (index: number): string => {
  const one = judged.value.find((each) => each.wish === index)
  if (!one) return ''
  return one.met ? say.met : say.notMet
}
</script>

<template>
  <section class="wishes" :aria-label="say.whatMatters">
    <span class="head">{{ say.whatMatters }}</span>
    <ul>
      <li v-for="(wish, index) in wishes" :key="index">
        <span>{{ (rowOf(wish)?.label ?? wish.row).toLowerCase() }} {{ WAYS[wish.way] }}</span>
        <NumberField
          v-if="isBound(wish)"
          :model-value="bound(wish)"
          :label="say.bound(wishText(wish, rowOf(wish)))"
          :unit="unit(wish)"
          @change="typed(index, wish, $event)"
        />
        <ElPopover trigger="click" :width="240" placement="bottom">
          <template #reference>
            <button
              type="button"
              class="link"
              :aria-label="say.howMuchItMatters(wishText(wish, rowOf(wish)), weightText(wish))"
            >
              {{ weightText(wish) }}
            </button>
          </template>
          <ElCheckbox :model-value="wish.hard" @change="change(index, { hard: Boolean($event) })">{{
            say.mustBe
          }}</ElCheckbox>
          <ElSlider
            :model-value="wish.weight ?? 1"
            :min="1"
            :max="10"
            :disabled="wish.hard"
            :format-value-text="(value: number) => say.weightOf(value)"
            :aria-label="say.weight(wishText(wish, rowOf(wish)))"
            size="small"
            @change="change(index, { weight: Number($event) })"
          />
        </ElPopover>
        <small v-if="hint(index)" :class="{ unmet: hint(index) === 'not met' }">{{ hint(index) }}</small>
        <button
          type="button"
          class="plain drop"
          :aria-label="say.dropTheWish(wishText(wish, rowOf(wish)))"
          @click="remove(index)"
        >
          ×
        </button>
      </li>
      <li class="adding">
        <ChoiceField
          :model-value="null"
          :label="say.addAWish"
          :placeholder="wishes.length ? say.anotherWish : say.sayWhatMatters"
          :options="choices"
          :disabled="wishes.length >= MOST_WISHES"
          @update:model-value="add"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.wishes {
  display: flex;
  gap: 12px;
  align-items: baseline;
  padding: 6px 20px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
.head {
  white-space: nowrap;
}
ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  margin: 0;
  padding: 0;
}
li {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  border: 1px solid var(--rule);
  border-radius: 3px;
  padding: 1px 8px;
  background: var(--paper);
}
.adding {
  border: 0;
  background: none;
  padding: 1px 0;
}
small {
  color: var(--mute);
}
.unmet {
  color: var(--warn);
  font-weight: 600;
}
.drop {
  min-width: 24px;
  min-height: 24px;
  color: var(--mute);
}
@media (max-width: 600px) {
  .wishes,
  li {
    flex-wrap: wrap;
  }
}
@media print {
  .adding,
  .drop {
    display: none;
  }
}
</style>
