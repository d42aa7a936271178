<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** Two distributions on one axis: the source stands above the line, the target hangs below it, on the same scale. */
const props = defineProps<{ row: Schemas['ProfileRow'] }>()

const HALF = 18
const WIDTH = 100
const shareBlank = (column: Schemas['ColumnProfile'] | null): number => (column === null || column.values === 0 ? 0 : column.blank / column.values)
/** Blanks are in the picture themselves, before the values. */
const bins = computed(() => {
  const blank = { label: 'blank', source: shareBlank(props.row.source), target: shareBlank(props.row.target) }
  return blank.source + blank.target > 0 ? [blank, ...props.row.bins] : props.row.bins
})
const most = computed(() => Math.max(0.0001, ...bins.value.flatMap((bin) => [bin.source, bin.target])))
const bars = computed(() => {
  const width = WIDTH / Math.max(1, bins.value.length)
  return bins.value.map((bin, place) => {
    const up = (bin.source / most.value) * HALF
    const down = (bin.target / most.value) * HALF
    return {
      x: place * width + 0.3,
      width: Math.max(0.4, width - 0.6),
      up: up > 0 ? Math.max(0.7, up) : 0,
      down: down > 0 ? Math.max(0.7, down) : 0,
      title: bin.label,
      isBlank: bin.label === 'blank' && place === 0 && bins.value.length > props.row.bins.length,
      bin,
    }
  })
})
const share = (value: number): string => `${(value * 100).toFixed(1)} %`
const words = { value: 'by value', number: 'by size', day: 'by day', length: 'by length in characters', nothing: '' }
const name = computed(() => {
  const strongest = [...bins.value].sort((one, other) => Math.abs(other.source - other.target) - Math.abs(one.source - one.target))[0]
  return strongest === undefined
    ? 'no values'
    : `Values ${words[props.row.by]}. Furthest apart at ${strongest.label}: source ${share(strongest.source)}, target ${share(strongest.target)}`
})
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${2 * HALF + 1}`" preserveAspectRatio="none" role="img" :aria-label="name">
    <template v-for="bar in bars" :key="bar.x">
      <rect class="src" :class="{ blank: bar.isBlank }" :x="bar.x" :y="HALF - bar.up" :width="bar.width" :height="bar.up" />
      <rect class="tgt" :class="{ blank: bar.isBlank }" :x="bar.x" :y="HALF + 1" :width="bar.width" :height="bar.down" />
      <rect class="hit" :x="bar.x" y="0" :width="bar.width" :height="2 * HALF + 1">
        <title>{{ bar.title }}: source {{ share(bar.bin.source) }}, target {{ share(bar.bin.target) }}</title>
      </rect>
    </template>
    <line x1="0" :x2="WIDTH" :y1="HALF + 0.5" :y2="HALF + 0.5" />
  </svg>
</template>

<style scoped>
svg {
  inline-size: 100%;
  block-size: 37px;
  display: block;
}
.src {
  fill: var(--src);
}
.tgt {
  fill: var(--tgt);
}
.src.blank {
  fill: none;
  stroke: var(--src);
  stroke-width: 1;
  stroke-dasharray: 2 2;
  vector-effect: non-scaling-stroke;
}
.tgt.blank {
  fill: none;
  stroke: var(--tgt);
  stroke-width: 1;
  stroke-dasharray: 2 2;
  vector-effect: non-scaling-stroke;
}
.hit {
  fill: transparent;
}
line {
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
</style>
