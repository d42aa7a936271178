<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'
import OverlapBar from '@/parts/OverlapBar.vue'

defineProps<{ board: Schemas['Board'] }>()
type Tally = NonNullable<Schemas['Board']['datasets'][number]['tally']>
const station = (dataset: Schemas['Board']['datasets'][number]): string => (dataset.tally === null ? 'deliver' : 'review')
const standing = (tally: Tally): string =>
  tally.findings === 0
    ? 'nothing to explain'
    : tally.openFindings === 0
      ? `all ${count(tally.findings)} ruled`
      : `${count(tally.openFindings)} of ${count(tally.findings)} open`
</script>

<template>
  <div class="scroll">
    <table>
      <thead>
        <tr>
          <th scope="col">Dataset</th>
          <th scope="col" class="bar">{{ board.migration.sourceLabel }} over {{ board.migration.targetLabel.toLowerCase() }}</th>
          <th scope="col" class="number">Values right</th>
          <th scope="col" class="number">Rows arrived</th>
          <th scope="col" class="number">Open patterns</th>
          <th scope="col">Findings</th>
          <th scope="col">Tally</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="dataset in board.datasets" :key="dataset.id">
          <th scope="row">
            <RouterLink :to="`/datasets/${dataset.id}/${station(dataset)}`">{{ dataset.name }}</RouterLink>
            <span class="small">{{ dataset.keyColumns.length === 0 ? 'no key yet' : dataset.keyColumns.join(' + ') }}</span>
          </th>
          <template v-if="dataset.tally !== null">
            <td><OverlapBar :rows="dataset.tally.rows" captioned /></td>
            <td class="number strong">{{ dataset.tally.figures.cellsAgreeingOverall }}</td>
            <td class="number strong">{{ dataset.tally.figures.rowsArrived }}</td>
            <td class="number strong">{{ dataset.tally.openGroups === 0 ? 'none' : count(dataset.tally.openGroups) }}</td>
            <td>{{ standing(dataset.tally) }}</td>
            <td>no. {{ dataset.tally.number }}, {{ moment(dataset.tally.finishedAt) }}</td>
          </template>
          <td v-else colspan="6" class="quiet">Not tallied yet. Open it to hand over both sides and choose the key.</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  background: var(--sheet);
  border: 1px solid var(--line);
}
thead th {
  font-size: 12px;
  color: var(--ink-3);
  text-align: start;
  font-weight: 600;
  padding: 8px 12px;
  border-block-end: 1px solid var(--line);
}
thead th.number {
  text-align: end;
}
.bar {
  inline-size: 360px;
}
tbody th,
td {
  padding: 11px 12px;
  border-block-end: 1px solid var(--line-2);
  text-align: start;
  font-weight: 400;
}
tbody .number {
  text-align: end;
}
tbody th a {
  font-weight: 650;
}
.small {
  display: block;
  color: var(--ink-2);
  font-size: 12.5px;
}
.strong {
  font-weight: 600;
}
</style>
