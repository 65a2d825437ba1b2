<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, useTemplateRef, watch } from 'vue'

import type { Column, CompareRow } from '@/api/types'
import { saveFile } from '@/composables/useFiles'
import ChoiceField from '@/parts/ChoiceField.vue'
import { valueText } from '@/words/rows'
import { TRADE_OFF as say } from '@/words/texts/side-by-side'

import { pngOf, svgText } from './picture'
import PictureTable from './PictureTable.vue'
import { BOTTOM, LEFT, RIGHT, TOP, useMarks } from './useMarks'

const props = defineProps<{
  columns: readonly Column[]
  rows: readonly CompareRow[]
  frontier: readonly number[]
  marked: number
  /** So many of the columns stand in the table. */
  shown: number
  places: ReadonlyMap<number, number>
}>()
const axes = defineModel<[string, string]>('axes', { required: true })
const emit = defineEmits<{ mark: [column: number]; show: [key: string] }>()

const { wide, high, x, y, points, across, up, marks, frontierLine, beside } = useMarks(props, axes)
const choices = computed(() => props.rows.map((row) => ({ value: row.key, label: row.label })))
const better = (row: CompareRow | undefined): string =>
  ({ less: say.lessIsUsuallyWishedFor, more: say.moreIsUsuallyWishedFor, even: say.evenIsUsuallyWishedFor })[
    row?.sense ?? ''
  ] ?? ''
const told = (value: number, row: CompareRow | undefined): string =>
  valueText(value, row?.unit ?? '', !Number.isFinite(value))

const openedKey = ref('')
const opened = computed(() => marks.value.find((one) => one.column.key === openedKey.value) ?? null)
watch(axes, () => (openedKey.value = ''))
function open(number: number): void {
  const key = props.columns[number]?.key ?? ''
  openedKey.value = openedKey.value === key ? '' : key
}
function use(number: number): void {
  const column = props.columns[number]
  if (!column) return
  if (beside(number)) emit('mark', number)
  else emit('show', column.key)
}

const picture = useTemplateRef<SVGSVGElement>('picture')
async function save(kind: 'svg' | 'png'): Promise<void> {
  if (!picture.value) return
  saveFile(`trade-off.${kind}`, kind === 'svg' ? svgText(picture.value) : await pngOf(picture.value), 'image/svg+xml')
}
</script>

<template>
  <section class="trade" :aria-label="say.tradeOff">
    <h2>{{ say.tradeOff }}</h2>
    <p class="axes">
      <ChoiceField
        :model-value="axes[0]"
        :label="say.across"
        :said="say.across"
        :options="choices"
        @update:model-value="$event && (axes = [$event, axes[1]])"
      />
      <ChoiceField
        :model-value="axes[1]"
        :label="say.up"
        :said="say.up"
        :options="choices"
        @update:model-value="$event && (axes = [axes[0], $event])"
      />
      <template v-if="points.length > 1">
        <button type="button" class="link" @click="save('svg')">{{ say.svg }}</button>
        <button type="button" class="link" @click="save('png')">{{ say.png }}</button>
      </template>
    </p>
    <p v-if="points.length < 2" class="quiet">{{ say.twoColumnsWithBothFigures }}</p>
    <svg
      v-else
      ref="picture"
      :viewBox="`0 0 ${wide} ${high}`"
      role="group"
      :aria-label="say.against(y?.label, x?.label)"
    >
      <g v-for="value in across.ticks" :key="`x${value}`" aria-hidden="true">
        <path :d="`M${across.scale(value)} ${TOP}V${high - BOTTOM}`" class="grid" />
        <text :x="across.scale(value)" :y="high - BOTTOM + 16" text-anchor="middle" class="tick">
          {{ valueText(value, x?.unit ?? '') }}
        </text>
      </g>
      <g v-for="value in up.ticks" :key="`y${value}`" aria-hidden="true">
        <path :d="`M${LEFT} ${up.scale(value)}H${wide - RIGHT}`" class="grid" />
        <text :x="LEFT - 7" :y="up.scale(value) + 4" text-anchor="end" class="tick">
          {{ valueText(value, y?.unit ?? '') }}
        </text>
      </g>
      <path :d="`M${LEFT} ${TOP}V${high - BOTTOM}H${wide - RIGHT}`" class="axis" />
      <text :x="(LEFT + wide - RIGHT) / 2" :y="high - 8" text-anchor="middle" class="name">{{ x?.label }}</text>
      <text x="4" :y="TOP - 10" class="name">{{ y?.label }}</text>
      <path :d="frontierLine" class="frontier" />
      <g
        v-for="one in marks"
        :key="one.number"
        class="mark"
        tabindex="0"
        role="button"
        :aria-expanded="opened?.number === one.number"
        :aria-label="`${one.column.name}: ${x?.label} ${told(one.a, x)}, ${y?.label} ${told(one.b, y)}${frontier.includes(one.number) ? say.onTheFrontier : ''}`"
        @click="open(one.number)"
        @keydown.enter.prevent="open(one.number)"
        @keydown.space.prevent="open(one.number)"
      >
        <path
          v-if="one.label?.far"
          :d="`M${one.x} ${one.y}L${one.label.x + (one.label.x < one.x ? one.width : 0)} ${one.label.y}`"
          class="lead"
        />
        <rect v-if="one.column.key === 'plan'" :x="one.x - 5.5" :y="one.y - 5.5" width="11" height="11" class="base" />
        <circle
          v-else
          :cx="one.x"
          :cy="one.y"
          :r="beside(one.number) ? 5.5 : 4"
          :class="{ on: frontier.includes(one.number) }"
        />
        <circle v-if="one.number === marked" :cx="one.x" :cy="one.y" r="9.5" class="ring" />
        <text
          v-if="one.label"
          :x="one.label.x"
          :y="one.label.y + 4"
          :class="{ strong: one.number === marked || one.column.key === 'plan', faint: !beside(one.number) }"
        >
          {{ one.column.name }}
        </text>
      </g>
    </svg>
    <div v-if="opened" class="opened" role="status">
      <p>
        <b>{{ opened.column.name }}</b>
        <span v-if="places.get(opened.number)">{{ say.place(places.get(opened.number)) }}</span>
        · {{ x?.label.toLowerCase() }} {{ told(opened.a, x) }} · {{ y?.label.toLowerCase() }} {{ told(opened.b, y) }}
      </p>
      <p class="quiet">{{ opened.column.wall.join('; ') }}</p>
      <ElButton v-if="opened.column.key !== 'plan' && opened.column.key !== 'session'" @click="use(opened.number)">
        {{ beside(opened.number) ? say.markIt : say.showItBeside }}
      </ElButton>
    </div>
    <p class="quiet">
      {{ say.filledMarksJoinedByThe(x?.label.toLowerCase(), better(x), y?.label.toLowerCase(), better(y))
      }}<template v-if="columns[0]?.key === 'plan'">{{ say.theSquareThePlan }}</template
      >.
    </p>
    <PictureTable v-if="points.length > 1" :marks="marks" :x="x" :y="y" :frontier="frontier" />
  </section>
</template>

<style scoped src="./trade-off.css"></style>
