<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** How the agreement went over the newest tallies: the line above is all, the one below the least of them. */
const props = defineProps<{ curve: Schemas['Board']['datasets'][number]['curve'] }>()
const [WIDTH, HEIGHT, EDGE] = [92, 26, 3]
/** Less than this would make a mountain of one value. */
const LEAST_SPAN = 0.001
const points = computed(() => {
  const shares = props.curve.map(({ right, values }) => (values === 0 ? 1 : right / values))
  const span = Math.max(1 - Math.min(...shares), LEAST_SPAN)
  return shares.map((share, place) => ({
    x: EDGE + (place * (WIDTH - 2 * EDGE)) / Math.max(1, shares.length - 1),
    y: EDGE + ((1 - share) / span) * (HEIGHT - 2 * EDGE),
  }))
})
const last = computed(() => points.value.at(-1))
const words = computed(() => props.curve.map(({ number, agreement }) => `tally ${number}: ${agreement}`).join(', '))
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" :width="WIDTH" :height="HEIGHT" role="img" :aria-label="`Agreement over ${curve.length} tallies. ${words}`">
    <title>{{ words }}</title>
    <path :d="`M0 ${EDGE} H${WIDTH}`" stroke="var(--line)" />
    <polyline :points="points.map(({ x, y }) => `${x},${y}`).join(' ')" fill="none" stroke="var(--ink-3)" stroke-width="1.5" />
    <circle v-if="last" :cx="last.x" :cy="last.y" r="2.5" fill="var(--ink)" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  margin-inline-start: auto;
  margin-block-start: 4px;
}
</style>
