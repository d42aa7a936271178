<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'
import OverlapBar from '@/parts/OverlapBar.vue'

defineProps<{ tallies: readonly Schemas['Tally'][]; course: Schemas['Course'] }>()
const open = (tally: Schemas['Tally']): string =>
  tally.openGroups === 0 ? 'none' : `${count(tally.openGroups)} ${tally.openGroups === 1 ? 'pattern' : 'patterns'}`
</script>

<template>
  <section class="history" aria-label="History">
    <h2>How the two sides came closer</h2>
    <p v-if="tallies.length === 0" class="quiet">Each run that ends well stands here, numbered, with its figures. None of them ever changes.</p>
    <div v-else class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">tally</th>
            <th scope="col">when</th>
            <th scope="col">{{ course.migration.sourceLabel.toLowerCase() }} over {{ course.migration.targetLabel.toLowerCase() }}</th>
            <th scope="col" class="number">cells agreeing</th>
            <th scope="col" class="number">rows arrived</th>
            <th scope="col">open</th>
            <th scope="col">made of</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="tally in tallies" :key="tally.id">
            <th scope="row">
              <RouterLink :to="{ path: `/datasets/${course.id}/review`, query: { tally: tally.id } }" :aria-label="`Review tally ${tally.number}`">{{
                tally.number
              }}</RouterLink>
            </th>
            <td>{{ moment(tally.finishedAt) }}</td>
            <td><OverlapBar :rows="tally.rows" :width="300" :height="18" captioned /></td>
            <td class="number strong">{{ tally.measures.cellsAgreeing }}</td>
            <td class="number strong">{{ tally.measures.rowsArrived }}</td>
            <td>{{ open(tally) }}</td>
            <td class="quiet">
              deliveries {{ tally.sourceDelivery }} and {{ tally.targetDelivery }}, plan {{ tally.planVersion }}<br />
              {{ tally.startedBy }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <ul v-if="(tallies[0]?.warnings.length ?? 0) > 0" class="warnings" aria-label="Warnings of the latest tally">
      <li v-for="warning in tallies[0]?.warnings" :key="warning">{{ warning }}</li>
    </ul>
  </section>
</template>

<style scoped>
.history {
  padding: 14px 24px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  margin-block-start: 8px;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
th,
td {
  text-align: start;
  padding: 7px 12px 7px 0;
  border-block-end: 1px solid var(--line-2);
  font-size: 13px;
}
.number {
  text-align: end;
}
.strong {
  font-weight: 600;
}
.warnings {
  margin: 14px 0 0;
  padding: 8px 12px 8px 28px;
  background: var(--warn);
  font-size: 13px;
  max-inline-size: 96ch;
}
</style>
