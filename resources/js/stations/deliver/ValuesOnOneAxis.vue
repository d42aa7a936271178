<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** Two distributions on one axis: the source stands above the line, the target hangs below it, on the same scale. */
const props = defineProps<{ row: Schemas['ProfileRow'] }>()

const HALF = 18
const WIDTH = 100
const most = computed(() => Math.max(0.0001, ...props.row.bins.flatMap((bin) => [bin.source, bin.target])))
const bars = computed(() => {
  const width = WIDTH / Math.max(1, props.row.bins.length)
  return props.row.bins.map((bin, place) => {
    const up = (bin.source / most.value) * HALF
    const down = (bin.target / most.value) * HALF
    return {
      x: place * width + 0.3,
      width: Math.max(0.4, width - 0.6),
      up: up > 0 ? Math.max(0.7, up) : 0,
      down: down > 0 ? Math.max(0.7, down) : 0,
      title: bin.label,
      bin,
    }
  })
})
const share = (value: number): string => `${(value * 100).toFixed(1)} %`
const words = { value: 'by value', number: 'by size', day: 'by day', length: 'by length in characters', nothing: '' }
const name = computed(() => {
  const strongest = [...props.row.bins].sort((one, other) => Math.abs(other.source - other.target) - Math.abs(one.source - one.target))[0]
  return strongest === undefined
    ? 'no values'
    : `Values ${words[props.row.by]}. Furthest apart at ${strongest.label}: source ${share(strongest.source)}, target ${share(strongest.target)}`
})
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${2 * HALF + 1}`" preserveAspectRatio="none" role="img" :aria-label="name">
    <template v-for="bar in bars" :key="bar.x">
      <rect class="src" :x="bar.x" :y="HALF - bar.up" :width="bar.width" :height="bar.up" />
      <rect class="tgt" :x="bar.x" :y="HALF + 1" :width="bar.width" :height="bar.down" />
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
.hit {
  fill: transparent;
}
line {
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
</style>
