<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import FigureValue from '@/parts/FigureValue.vue'
import { cellsName, rowsName } from '@/stations/review/figureNames'
import type { Filter, Subject } from '@/stations/review/filter'
import { type Bar, barsOf, heightOf, type Part } from '@/stations/review/weight'

/** Where the weight lies: what the source has alone above the line, what the target has alone below it, what both have otherwise across it. */
const props = defineProps<{ tally: Schemas['Tally']; filter: Filter }>()
const emit = defineEmits<{ choose: [subject: Subject] }>()

const bars = computed(() => barsOf(props.tally))
const heaviest = computed(() => Math.max(1, ...bars.value.flatMap((bar) => bar.parts.map((part) => part.findings))))
const WHOLE_ROWS = (['missing', 'repeated', 'extra'] as const).map(rowsName).join(' + ')
const sum = (bar: Bar): number => bar.parts.reduce((total, part) => total + part.findings, 0)
/** The column pair that is looked at, by itself or by one of its patterns. */
const pair = computed(() => props.filter.pair ?? props.tally.patterns.find((one) => one.number === props.filter.pattern)?.pair)
const cellClass = computed(() => props.filter.cellClass ?? props.tally.patterns.find((one) => one.number === props.filter.pattern)?.class)
const isBar = (bar: Bar): boolean => bar.id !== '' && pair.value === bar.id
const isChosen = (part: Part): boolean =>
  part.subject.class !== undefined
    ? props.filter.class === part.subject.class
    : pair.value === part.subject.pair && (cellClass.value === undefined || cellClass.value === part.subject.cellClass)
</script>

<template>
  <section class="picture" aria-label="Where the weight lies">
    <ol>
      <li v-for="bar in bars" :key="bar.id" :class="{ rows: bar.id === '', dim: pair !== undefined && !isBar(bar) }">
        <div class="axis">
          <button
            v-for="part in bar.parts"
            :key="part.words"
            type="button"
            :class="[part.at, { chosen: isChosen(part) }]"
            :aria-label="`${bar.name}: ${count(part.findings)} ${part.words}`"
            :aria-pressed="isChosen(part)"
            :title="`${bar.name}: ${count(part.findings)} ${part.words}`"
            @click="emit('choose', part.subject)"
          >
            <i :style="{ blockSize: `${heightOf(part.findings, heaviest)}%` }" />
          </button>
        </div>
        <button
          v-if="bar.id !== ''"
          type="button"
          class="plain name"
          :aria-label="`${bar.name}: all ${count(sum(bar))} cells`"
          :title="bar.name"
          @click="emit('choose', isBar(bar) ? {} : { pair: bar.id })"
        >
          {{ bar.name }}
        </button>
        <span v-else class="name">{{ bar.name }}</span>
        <span class="quiet figure"><FigureValue :name="bar.id === '' ? WHOLE_ROWS : cellsName(bar.name)" :of="sum(bar)" /></span>
      </li>
    </ol>
    <p class="legend quiet">
      <span class="src">above the line: only in the source</span> <span>on the line: different in both</span>
      <span class="tgt">below the line: only in the target</span>
    </p>
  </section>
</template>

<style scoped>
.picture {
  background: var(--sheet);
  border-block-end: 1px solid var(--line);
  padding: 6px 14px 4px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  gap: 2px;
  overflow-x: auto;
}
li {
  flex: 1 0 78px;
  max-inline-size: 132px;
  min-inline-size: 0;
  display: grid;
  grid-template-rows: 56px auto auto;
  font-size: 12px;
}
.rows {
  border-inline-end: 1px solid var(--line);
  margin-inline-end: 8px;
}
.dim i {
  opacity: 0.35;
}
.axis {
  position: relative;
  background: linear-gradient(var(--edge), var(--edge)) center / 100% 1px no-repeat;
}
.axis button {
  position: absolute;
  border: 0;
  padding: 0;
  background: none;
  inline-size: 33.3%;
  cursor: pointer;
}
i {
  position: absolute;
  inset-inline: 3px;
  min-block-size: 3px;
}
.above {
  inset-block: 0 50%;
  inset-inline-start: 0;
}
.above i {
  inset-block-end: 0;
  background: var(--src);
}
.below {
  inset-block: 50% 0;
  inset-inline-end: 0;
}
.below i {
  inset-block-start: 0;
  background: var(--tgt);
}
.across {
  inset-block: 0;
  inset-inline-start: 33.3%;
}
.across i {
  inset-block-start: 50%;
  transform: translateY(-50%);
  background: linear-gradient(var(--src) 50%, var(--tgt) 50%);
  opacity: 0.75;
}
.axis .chosen {
  background: var(--mark);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: center;
}
.figure {
  text-align: center;
}
.legend {
  margin: 0;
  font-size: 12px;
  display: flex;
  gap: 16px;
}
@media (width < 900px) {
  .picture {
    max-inline-size: 100vw;
  }
}
@media (height < 760px) {
  li {
    grid-template-rows: 34px auto auto;
  }
  .legend {
    display: none;
  }
}
</style>
