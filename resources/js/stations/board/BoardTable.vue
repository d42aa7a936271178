<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import { figure, type Said } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import OverlapBar from '@/parts/OverlapBar.vue'
import TotalsLine from '@/parts/TotalsLine.vue'
import AgreementCurve from '@/stations/board/AgreementCurve.vue'
import SigningLine from '@/stations/board/SigningLine.vue'
import SaidText from '@/parts/SaidText.vue'

defineProps<{ board: Schemas['Board']; datasets: Schemas['Board']['datasets'] }>()
type Tally = NonNullable<Schemas['Board']['datasets'][number]['tally']>
const station = (dataset: Schemas['Board']['datasets'][number]): string => (dataset.tally === null ? 'deliver' : 'review')
const standing = (tally: Tally): Said => {
  if (tally.findings === 0) return ['nothing to explain']
  const findings = figure('tally/findings', tally.findings)
  return tally.openFindings === 0 ? ['all ', findings, ' ruled'] : [figure('tally/openFindings', tally.openFindings), ' of ', findings, ' open']
}
</script>

<template>
  <div class="scroll">
    <table>
      <thead>
        <tr>
          <th scope="col">Dataset</th>
          <th scope="col" class="bar">{{ board.migration.sourceLabel }} over {{ board.migration.targetLabel.toLowerCase() }}</th>
          <th scope="col" class="number" title="Values right, of all values on either side">Agreement</th>
          <th scope="col" class="number">Rows arrived</th>
          <th scope="col">Findings</th>
          <th scope="col">Limits and signatures</th>
          <th scope="col">Tally</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="dataset in datasets" :key="dataset.id" :data-tally="dataset.tally?.id">
          <th scope="row">
            <RouterLink :to="`/datasets/${dataset.id}/${station(dataset)}`">{{ dataset.name }}</RouterLink>
            <span class="small">{{ dataset.keyColumns.length > 0 ? dataset.keyColumns.join(' + ') : dataset.isReference ? '' : 'no key yet' }}</span>
          </th>
          <template v-if="dataset.tally !== null">
            <td><OverlapBar :rows="dataset.tally.rows" captioned /></td>
            <td class="number strong">
              <FigureValue name="values/agreement" :of="dataset.tally.figures.agreement" />
              <AgreementCurve v-if="dataset.curve.length > 0" :curve="dataset.curve" />
            </td>
            <td class="number strong"><FigureValue name="rows_arrived" :of="dataset.tally.figures.rowsArrived" /></td>
            <td>
              <SaidText :said="standing(dataset.tally)" />
              <span v-if="dataset.tally.openGroups > 0" class="small"
                >in <FigureValue name="tally/openGroups" :of="dataset.tally.openGroups" /> {{ dataset.tally.openGroups === 1 ? 'pattern' : 'patterns' }}</span
              >
              <TotalsLine class="small" :tally="dataset.tally" :dataset="dataset.id" />
            </td>
            <td>
              <SigningLine v-if="dataset.signing" :signing="dataset.signing" :dataset="dataset.id" />
            </td>
            <td>no. {{ dataset.tally.number }}, {{ moment(dataset.tally.finishedAt) }}</td>
          </template>
          <td v-else-if="dataset.isReference" colspan="6" class="quiet">A reference: other datasets look up from it.</td>
          <td v-else colspan="6" class="quiet">
            Not tallied yet. {{ board.mayWork ? 'Open it to hand over both sides and choose the key.' : 'Both sides and a key are needed first.' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  position: relative;
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
  inline-size: 300px;
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
  white-space: nowrap;
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
