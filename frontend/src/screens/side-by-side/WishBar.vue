<script setup lang="ts">
import { computed, ref, useId } from 'vue'

import type { CompareRow, NamedWish, Pick, Wish } from '@/api/types'
import { wishText } from '@/words/rows'

const props = defineProps<{
  named: readonly NamedWish[]
  rows: ReadonlyMap<string, CompareRow>
  pick: Pick | null
  marked: number
}>()
const wishes = defineModel<Wish[]>({ required: true })
const id = useId()
const chosen = ref('')

function add(): void {
  const one = props.named.find((each) => each.key === chosen.value)
  if (one) wishes.value = [...wishes.value, { ...one.wish }]
  chosen.value = ''
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
const scale = (wish: Wish): number => ({ s: 60, share: 0.01, split: 0.01 })[rowOf(wish)?.unit ?? ''] ?? 1
const unit = (wish: Wish): string => ({ s: 'min', share: '%', split: '%', kg: 'kg' })[rowOf(wish)?.unit ?? ''] ?? ''
function typed(index: number, wish: Wish, event: Event): void {
  const value = Number((event.target as HTMLInputElement).value)
  if (Number.isFinite(value) && value >= 0) change(index, { value: value * scale(wish) })
}
const judged = computed(() => props.pick?.ranked.find((one) => one.column === props.marked)?.judged ?? [])
const hint = (index: number): string => {
  const one = judged.value.find((each) => each.wish === index)
  if (!one) return ''
  return one.met ? 'met' : 'not met'
}
</script>

<template>
  <section class="wishes" aria-label="What matters">
    <span class="head">What matters</span>
    <ul>
      <li v-for="(wish, index) in wishes" :key="index">
        <span :title="wishText(wish, rowOf(wish))"
          >{{ (rowOf(wish)?.label ?? wish.row).toLowerCase() }}
          {{ { 'at-most': 'at most', 'at-least': 'at least', low: 'low', high: 'high', even: 'even' }[wish.way] }}</span
        >
        <label v-if="isBound(wish)">
          <span class="visually-hidden">{{ wishText(wish, rowOf(wish)) }}: bound</span>
          <input
            type="number"
            min="0"
            step="any"
            :value="Math.round(((wish.value ?? 0) / scale(wish)) * 100) / 100"
            @change="typed(index, wish, $event)"
          />{{ unit(wish) }}
        </label>
        <label>
          <span class="visually-hidden">{{ wishText(wish, rowOf(wish)) }}: how much it matters</span>
          <select
            :value="wish.hard ? 'hard' : String(wish.weight)"
            @change="
              (event) =>
                ((word) => change(index, word === 'hard' ? { hard: true } : { hard: false, weight: Number(word) }))(
                  (event.target as HTMLSelectElement).value,
                )
            "
          >
            <option value="hard">must</option>
            <option v-for="weight in [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]" :key="weight" :value="String(weight)">
              weight {{ weight }}
            </option>
          </select>
        </label>
        <small v-if="hint(index)" :class="{ unmet: hint(index) === 'not met' }">{{ hint(index) }}</small>
        <button
          type="button"
          class="plain drop"
          :aria-label="`Drop the wish ${wishText(wish, rowOf(wish))}`"
          @click="remove(index)"
        >
          ×
        </button>
      </li>
      <li class="adding">
        <label :for="id" class="visually-hidden">Add a wish</label>
        <select :id="id" v-model="chosen" :disabled="wishes.length >= 12" @change="add">
          <option value="">{{ wishes.length ? 'another wish …' : 'say what matters …' }}</option>
          <option v-for="one in named" :key="one.key" :value="one.key">{{ one.label }}</option>
        </select>
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
  align-items: baseline;
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
input {
  width: 52px;
  text-align: right;
}
small {
  color: var(--mute);
}
.unmet {
  color: var(--warn);
  font-weight: 600;
}
.drop {
  padding: 0 3px;
  color: var(--mute);
}
@media print {
  .adding,
  .drop {
    display: none;
  }
}
</style>
