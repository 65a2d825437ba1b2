<script setup lang="ts">
import type { Card } from '@/api/types'
import { clock, measured } from '@/words/format'
import { CARD_SHEET as say } from '@/words/texts/card'

// A session on paper, as it hangs on the wall of the hall.
defineProps<{ card: Card; paper: 'a4' | 'letter' }>()
const short = (k: Card['kit'][number]): string => (k.there !== null && k.there < k.count ? say.onlyThere(k.there) : '')
const kit = (one: Card): string =>
  one.kit.map((k) => `${k.count} × ${k.kit}${k.kg ? ` ${measured(k.kg, 'kg')}` : ''}${short(k)}`).join(', ')
const indent = (line: string): string => `${(line.length - line.trimStart().length - 2) * 0.55}em`
const OPTIONAL: Record<string, string> = { exit: say.orStopHere, skip: 'optional' }
</script>

<template>
  <article class="sheet" :class="paper">
    <h1>{{ card.title }}</h1>
    <p class="facts">
      <template v-if="card.announced_s !== null">{{ say.told(clock(card.announced_s)) }}</template>
      {{ say.comesTo(clock(card.timetable_s)) }}<template v-if="card.people">{{ say.people(card.people) }}</template>
    </p>
    <p v-if="card.kit.length" class="facts">
      <b>{{ say.putOut }}</b> {{ kit(card) }}
    </p>
    <p v-if="card.others.length" class="facts">
      <b>{{ say.otherwise }}</b>
      {{ card.others.map((one) => say.for(one.names.join(', '), one.option, one.movement)).join('; ') }}
    </p>
    <p v-for="note in card.notes" :key="note" class="facts">{{ note }}</p>
    <slot />
    <section v-for="(block, index) in card.blocks" :key="index" class="block">
      <ol class="clock" :aria-label="say.runningClockOf(block.title)">
        <li v-for="mark in block.marks" :key="mark.at_s">
          <b>{{ mark.about ? '~' : '' }}{{ clock(mark.at_s) }}</b> {{ mark.what }}
        </li>
      </ol>
      <div>
        <h2>
          <small>{{ block.part }}</small> {{ block.title }}
          <em v-if="block.optional">({{ OPTIONAL[block.optional] }})</em>
        </h2>
        <p class="says">{{ block.says }}</p>
        <p v-for="note in block.notes" :key="note" class="says">{{ note }}</p>
        <p v-for="(line, at) in block.lines" :key="at" class="line" :style="{ paddingLeft: indent(line) }">
          {{ line.trim() }}
        </p>
        <p v-if="block.calls.length" class="small">{{ say.call(block.calls.join('; ')) }}</p>
        <p v-if="block.rest_after_s > 0" class="small">{{ say.thenRest(clock(block.rest_after_s)) }}</p>
      </div>
      <div v-if="block.score" class="score">
        <span>{{ say.score }}</span>
      </div>
    </section>
    <footer>
      <p v-for="caution in card.cautions" :key="caution">{{ caution }}</p>
    </footer>
  </article>
</template>

<style scoped>
.sheet {
  background: #fff;
  border: 1px solid var(--rule);
  margin: 0 auto;
  padding: 12mm;
  font-size: 10.5pt;
  line-height: 1.3;
}
.a4 {
  width: 210mm;
  min-height: 297mm;
}
.letter {
  width: 216mm;
  min-height: 279mm;
}
h1 {
  font-size: 24pt;
  line-height: 1.1;
}
h2 {
  font-size: 14pt;
}
h2 small {
  font: 600 10pt var(--head);
  letter-spacing: 0.05em;
  color: var(--mute);
  margin-right: 8px;
}
h2 em {
  font: 500 11pt var(--head);
}
p {
  margin: 0;
}
.facts {
  margin-top: 2px;
}
.block {
  display: grid;
  grid-template-columns: 34mm minmax(0, 1fr) 26mm;
  gap: 3mm;
  border-top: 1px solid var(--ink);
  margin-top: 5px;
  padding-top: 3px;
  break-inside: avoid;
}
.clock {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 9.5pt;
}
.clock b {
  display: inline-block;
  min-width: 12mm;
  text-align: right;
}
.line {
  font-weight: 600;
  font-size: 11pt;
}
.says,
.small {
  font-size: 9.5pt;
}
.score {
  border: 1px solid var(--ink);
  height: 13mm;
  padding: 1px 4px;
  font-size: 8pt;
  color: var(--mute);
}
footer {
  border-top: 1px solid var(--ink);
  margin-top: 8px;
  padding-top: 3px;
  font-size: 8.5pt;
}
@media screen and (max-width: 900px) {
  .sheet {
    width: auto;
    min-height: 0;
    padding: 14px;
  }
  .block {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .sheet {
    border: 0;
    width: auto;
    min-height: 0;
    padding: 0;
    font-size: 9.5pt;
    line-height: 1.25;
  }
  .line {
    font-size: 10pt;
  }
  .says,
  .small,
  .clock {
    font-size: 8.8pt;
  }
  .block {
    margin-top: 3px;
  }
  /* As wide, and as much shorter as three lines. */
  .letter h1 {
    font-size: 20pt;
  }
  .letter .line {
    font-size: 9.5pt;
  }
  .letter :is(.says, .small, .clock, footer) {
    font-size: 8.2pt;
  }
}
</style>
