<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** The columns of both sides next to each other, by name, with their first values. */
const props = defineProps<{ plan: Schemas['Plan']; course: Schemas['Course'] }>()

const rows = computed(() => {
  const source = props.plan.source?.columns ?? []
  const target = props.plan.target?.columns ?? []
  const pairs = new Map((props.plan.draft === null ? [] : [...props.plan.draft.key, ...props.plan.draft.columnPairs]).map((pair) => [pair.source, pair.target]))
  const partner = (name: string) => target.find((column) => column.name === (pairs.get(name) ?? name))
  const met = source.map((column) => ({ source: column, target: partner(column.name) }))
  const taken = new Set(met.map((row) => row.target?.name))
  return [...met, ...target.filter((column) => !taken.has(column.name)).map((column) => ({ source: undefined, target: column }))]
})
const values = (examples: readonly string[] | undefined): string => (examples ?? []).join('   ').replaceAll(/\r?\n/g, ' ⏎ ')
</script>

<template>
  <div>
    <table v-if="rows.length > 0">
      <thead>
        <tr>
          <th scope="col">source column</th>
          <th scope="col">first values</th>
          <th scope="col" class="number">first values</th>
          <th scope="col" class="number">target column</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, position) in rows" :key="position">
          <th scope="row">{{ row.source?.name ?? '' }}</th>
          <td>
            <span class="cell src">{{ values(row.source?.examples) }}</span>
          </td>
          <td class="number">
            <span class="cell tgt">{{ values(row.target?.examples) }}</span>
          </td>
          <th scope="row" class="number">{{ row.target?.name ?? '' }}</th>
        </tr>
      </tbody>
    </table>
    <p v-else class="empty quiet">The columns of both sides stand here, next to each other, as soon as a side has delivered.</p>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
  inline-size: 100%;
  table-layout: fixed;
  background: var(--sheet);
}
thead th {
  font-size: 12px;
  color: var(--ink-3);
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
}
th,
td {
  text-align: start;
  padding: 7px 16px;
  border-block-end: 1px solid var(--line-2);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
th {
  font-weight: 600;
}
th:first-child,
th:last-child {
  inline-size: 22%;
}
.number {
  text-align: end;
}
.empty {
  padding: 16px;
  margin: 0;
}
</style>
