<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { className } from '@/format/classes'
import { count } from '@/format/counts'
import { named } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import RowMark from '@/parts/RowMark.vue'

/** How each row class grew or shrank from tally to tally, on a square-root scale, with a mark where the plan changed. */
const props = defineProps<{ tallies: readonly Schemas['Tally'][] }>()

const WIDTH = 560
const HEIGHT = 120
const EDGE = 8
const inOrder = computed(() => [...props.tallies].sort((a, b) => a.number - b.number))
const classes = computed(() =>
  (['changed', 'missing', 'extra', 'repeated'] as const).map((rowClass) => ({
    rowClass,
    rows: inOrder.value.map(({ rows }) => {
      if (rowClass === 'extra') return rows.target.extra
      if (rowClass === 'repeated') return rows.source.repeated + rows.target.repeated
      return rows.source[rowClass]
    }),
  })),
)
const latest = computed(() => inOrder.value[inOrder.value.length - 1])
const nameOf = (rowClass: 'changed' | 'missing' | 'extra' | 'repeated'): string =>
  rowClass === 'repeated' ? 'rows/source/repeated + rows/target/repeated' : named('rows', rowClass === 'extra' ? 'target' : 'source', rowClass)
const most = computed(() => Math.max(1, ...classes.value.flatMap(({ rows }) => rows)))
const x = (place: number): number => EDGE + (place * (WIDTH - 2 * EDGE)) / Math.max(1, inOrder.value.length - 1)
const y = (rows: number): number => HEIGHT - EDGE - Math.sqrt(rows / most.value) * (HEIGHT - 2 * EDGE)
const points = (rows: readonly number[]): string => rows.map((some, place) => `${x(place)},${y(some)}`).join(' ')
/** The agreement on a scale of its own, from the lowest of these tallies to all values right. */
const shares = computed(() => inOrder.value.map(({ values }) => (values === null || values.values === 0 ? null : values.right / values.values)))
const lowest = computed(() => Math.min(...shares.value.filter((share) => share !== null), 1))
const agreementAt = (share: number): number => (lowest.value === 1 ? EDGE : HEIGHT - EDGE - ((share - lowest.value) / (1 - lowest.value)) * (HEIGHT - 2 * EDGE))
const agreement = computed(() =>
  inOrder.value.flatMap((tally, place) => {
    const share = shares.value[place]
    return share === null || share === undefined ? [] : [{ x: x(place), y: agreementAt(share), number: tally.number, text: tally.figures.agreement }]
  }),
)
const newPlans = computed(() =>
  inOrder.value.flatMap((tally, place) =>
    place > 0 && tally.planVersion !== inOrder.value[place - 1]?.planVersion ? [{ place, plan: tally.planVersion }] : [],
  ),
)
const sentence = computed(() => classes.value.map(({ rowClass, rows }) => `${className(rowClass)}: ${rows.map((some) => count(some)).join(', ')}`).join('. '))
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      :aria-label="`Rows of each class and the agreement from tally to tally. ${sentence}. Agreement: ${agreement.map(({ text }) => text).join(', ')}.`"
      preserveAspectRatio="none"
    >
      <line v-for="{ place, plan } in newPlans" :key="place" :x1="x(place)" :x2="x(place)" y1="0" :y2="HEIGHT" class="plan">
        <title>plan {{ plan }}</title>
      </line>
      <g class="agreement">
        <polyline :points="agreement.map((one) => `${one.x},${one.y}`).join(' ')" />
        <circle v-for="one in agreement" :key="one.number" :cx="one.x" :cy="one.y" r="3">
          <title>tally {{ one.number }}: agreement {{ one.text }}</title>
        </circle>
      </g>
      <g v-for="{ rowClass, rows } in classes" :key="rowClass" :class="rowClass">
        <polyline :points="points(rows)" />
        <circle v-for="(some, place) in rows" :key="place" :cx="x(place)" :cy="y(some)" r="3">
          <title>tally {{ inOrder[place]?.number }}: {{ count(some) }} {{ className(rowClass).toLowerCase() }}</title>
        </circle>
      </g>
    </svg>
    <figcaption :data-tally="latest?.id">
      <span v-if="agreement.length > 0"
        ><i class="agreement" aria-hidden="true" />agreement, from {{ ' '
        }}<span :data-tally="inOrder[0]?.id"><FigureValue name="values/agreement" :of="agreement[0]?.text ?? ''" /></span>{{ ' ' }}to
        <FigureValue name="values/agreement" :of="latest?.figures.agreement ?? ''"
      /></span>
      <span v-for="{ rowClass, rows } in classes" :key="rowClass"
        ><i :class="rowClass" aria-hidden="true" /><RowMark :row-class="rowClass" silent /> {{ className(rowClass).toLowerCase() }}
        <FigureValue :name="nameOf(rowClass)" :of="rows[rows.length - 1] ?? 0"
      /></span>
      <span v-if="newPlans.length > 0" class="quiet">upright lines: another plan from here on</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 8px 0 4px;
  max-inline-size: 720px;
}
svg {
  inline-size: 100%;
  block-size: 120px;
  border-block-end: 1px solid var(--line);
  overflow: visible;
}
polyline {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
circle {
  fill: currentColor;
}
.plan {
  stroke: var(--ink-3);
  stroke-dasharray: 3 3;
  vector-effect: non-scaling-stroke;
}
.agreement {
  color: var(--ink-2);
}
.agreement polyline {
  stroke-width: 3;
  stroke-dasharray: 1 5;
  stroke-linecap: round;
}
.missing {
  color: var(--src);
}
.extra {
  color: var(--tgt);
}
.changed {
  color: var(--ink);
}
.repeated {
  color: var(--ink-3);
}
.repeated polyline {
  stroke-dasharray: 6 4;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-size: 12.5px;
  margin-block-start: 6px;
}
figcaption > span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
i {
  inline-size: 14px;
  block-size: 3px;
  background: currentColor;
}
</style>
