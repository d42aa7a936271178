<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { named } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'

/** What became of the values of each column pair: they add up, and each figure that needs an explanation leads to its cells. */
const props = defineProps<{ tally: Schemas['Tally']; dataset: number }>()

const name = (column: Schemas['ColumnFigures']): string => (column.source === column.target ? column.source : `${column.source} → ${column.target}`)
const cells = (column: Schemas['ColumnFigures']) => ({
  path: `/datasets/${props.dataset}/review`,
  query: { tally: props.tally.id, of: 'cells', pair: column.pair },
})
const hasPatterns = computed(() => new Set(props.tally.patterns.map(({ pair }) => pair)))
const isAltered = computed(() => props.tally.columns.some(({ altered }) => altered.source + altered.target > 0))
</script>

<template>
  <section class="columns" :aria-label="`Values of tally ${tally.number} by column`" :data-tally="tally.id">
    <h2>Values by column</h2>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">column</th>
            <th scope="col" class="number">agreement</th>
            <th scope="col" class="number">values</th>
            <th scope="col" class="number">right</th>
            <th scope="col" class="number">differing</th>
            <th scope="col" class="number">lost</th>
            <th scope="col" class="number">added</th>
            <th scope="col" class="number">blank on both</th>
            <th v-if="isAltered" scope="col" class="number">altered by steps</th>
            <th scope="col"><span class="unseen">cells</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="column in tally.columns" :key="column.pair">
            <th scope="row">{{ name(column) }}</th>
            <td class="number strong"><FigureValue :name="named('columns', column.source, 'values', 'agreement')" :of="column.values.agreement" /></td>
            <td class="number"><FigureValue :name="named('columns', column.source, 'values', 'values')" :of="column.values.values" /></td>
            <td class="number"><FigureValue :name="named('columns', column.source, 'values', 'right')" :of="column.values.right" /></td>
            <td class="number"><FigureValue :name="named('columns', column.source, 'values', 'differing')" :of="column.values.differing" /></td>
            <td class="number"><FigureValue :name="named('columns', column.source, 'values', 'lost')" :of="column.values.lost" /></td>
            <td class="number"><FigureValue :name="named('columns', column.source, 'values', 'added')" :of="column.values.added" /></td>
            <td class="number quiet"><FigureValue :name="named('columns', column.source, 'values', 'blank_on_both')" :of="column.values.blankOnBoth" /></td>
            <td v-if="isAltered" class="number quiet">
              <FigureValue :name="named('columns', column.source, 'altered', 'source')" :of="column.altered.source" /> and
              <FigureValue :name="named('columns', column.source, 'altered', 'target')" :of="column.altered.target" />
            </td>
            <td><RouterLink v-if="hasPatterns.has(column.pair)" :to="cells(column)" :aria-label="`Cells of ${name(column)} that differ`">cells</RouterLink></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet">
      Lost: blank in the target, or gone with a row that was not compared. Added: blank in the source, or come with such a row. Cells that are blank on both
      sides are in no percentage.
    </p>
  </section>
</template>

<style scoped>
.columns {
  padding: 4px 24px 16px;
}
.scroll {
  overflow-x: auto;
  position: relative;
}
table {
  border-collapse: collapse;
  margin-block-start: 4px;
}
th,
td {
  text-align: start;
  padding: 4px 18px 4px 0;
  border-block-end: 1px solid var(--line-2);
  font-size: 13px;
  font-weight: 400;
  overflow-wrap: anywhere;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
  white-space: nowrap;
}
.number {
  text-align: end;
  white-space: nowrap;
}
.strong {
  font-weight: 600;
}
p {
  font-size: 12.5px;
  margin: 6px 0 0;
}
</style>
