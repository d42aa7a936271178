<script setup lang="ts">
import { computed } from 'vue'
import { signed } from '@/format/amounts'
import { named } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import { useWorth } from '@/composables/useWorth'

/** What the differences of each column of numbers come to, net; each leads to its cells, the largest first. */
const props = defineProps<{ tally: number; dataset: number }>()
const { worth } = useWorth(
  computed(() => props.tally),
  computed(() => ({ of: 'cells' as const })),
)
const cells = (pair: string) => ({ path: `/datasets/${props.dataset}/review`, query: { tally: props.tally, of: 'cells', pair, order: 'largest' } })
</script>

<template>
  <section v-if="worth.length > 0" aria-label="What differences come to">
    <h2>What differences come to, net</h2>
    <RouterLink v-for="(column, place) in worth" :key="column.pair" :to="cells(column.pair)">
      <span>{{ column.source }}</span>
      <b><FigureValue :name="named('worth', place, 'worth')" :of="signed(column.worth.net)" /></b>
    </RouterLink>
  </section>
</template>

<style scoped>
h2 {
  font-size: 12px;
  color: var(--ink-3);
  padding: 14px 14px 6px;
  margin: 0;
}
a {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 6px 14px;
  border-block-end: 1px solid var(--line);
  font-size: 13px;
  text-decoration: none;
  overflow-wrap: anywhere;
}
a:hover {
  text-decoration: underline;
}
</style>
