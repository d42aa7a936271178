<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { className } from '@/format/classes'
import { count } from '@/format/counts'
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
const most = computed(() => Math.max(1, ...classes.value.flatMap(({ rows }) => rows)))
const x = (place: number): number => EDGE + (place * (WIDTH - 2 * EDGE)) / Math.max(1, inOrder.value.length - 1)
const y = (rows: number): number => HEIGHT - EDGE - Math.sqrt(rows / most.value) * (HEIGHT - 2 * EDGE)
const points = (rows: readonly number[]): string => rows.map((some, place) => `${x(place)},${y(some)}`).join(' ')
const newPlans = computed(() =>
  inOrder.value.flatMap((tally, place) =>
    place > 0 && tally.planVersion !== inOrder.value[place - 1]?.planVersion ? [{ place, plan: tally.planVersion }] : [],
  ),
)
const sentence = computed(() => classes.value.map(({ rowClass, rows }) => `${className(rowClass)}: ${rows.map((some) => count(some)).join(', ')}`).join('. '))
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="`Rows of each class from tally to tally. ${sentence}.`" preserveAspectRatio="none">
      <line v-for="{ place, plan } in newPlans" :key="place" :x1="x(place)" :x2="x(place)" y1="0" :y2="HEIGHT" class="plan">
        <title>plan {{ plan }}</title>
      </line>
      <g v-for="{ rowClass, rows } in classes" :key="rowClass" :class="rowClass">
        <polyline :points="points(rows)" />
        <circle v-for="(some, place) in rows" :key="place" :cx="x(place)" :cy="y(some)" r="3">
          <title>tally {{ inOrder[place]?.number }}: {{ count(some) }} {{ className(rowClass).toLowerCase() }}</title>
        </circle>
      </g>
    </svg>
    <figcaption>
      <span v-for="{ rowClass, rows } in classes" :key="rowClass"
        ><i :class="rowClass" aria-hidden="true" /><RowMark :row-class="rowClass" silent /> {{ className(rowClass).toLowerCase() }}
        {{ count(rows[rows.length - 1] ?? 0) }}</span
      >
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
figcaption span {
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
