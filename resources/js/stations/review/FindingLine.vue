<script setup lang="ts">
import { computed } from 'vue'
import { relatively, signed } from '@/format/amounts'
import { className, decisionName } from '@/format/classes'
import { counted } from '@/format/counts'
import { nearDifference } from '@/format/difference'
import CellValue from '@/parts/CellValue.vue'
import RowMark from '@/parts/RowMark.vue'
import type { Finding } from '@/stations/review/useFindings'

const props = defineProps<{
  finding: Finding | undefined
  isChosen: boolean
  isTicked: boolean
  column: string | null
  place: number
  total: number
  saysWhy: boolean
  saysDifference: boolean
  /** no room for both values beside the key */
  isNarrow?: boolean
}>()
const emit = defineEmits<{ tick: [] }>()

const cell = computed(() => (props.finding?.kind === 'cell' ? props.finding.cell : undefined))
const row = computed(() => (props.finding?.kind === 'row' ? props.finding.row : undefined))
const marked = computed(() => (cell.value === undefined ? undefined : nearDifference(cell.value.source, cell.value.target)))
const decision = computed(() => cell.value?.decision ?? row.value?.decision ?? 'open')
/** Ruled on in a tally before, and other values or more of them since: that is why it is open. */
const isAgain = computed(() => (cell.value?.earlier ?? row.value?.earlier)?.isChanged === true && decision.value === 'open')
const standing = computed(() => {
  if (!isAgain.value) return decisionName(decision.value)
  return (cell.value?.earlier ?? row.value?.earlier)?.isBeyond === true ? 'More than ruled' : 'Changed since'
})
const needsRuling = computed(() => row.value?.class !== 'changed')
const detail = computed(() => {
  if (row.value === undefined) return ''
  // Which columns differ says more than how many.
  if (row.value.class === 'changed') return row.value.differingColumns.join(', ') || counted(row.value.differingCells, 'cell')
  return row.value.class === 'repeated' ? `${row.value.sourceRows} : ${row.value.targetRows}` : className(row.value.class)
})
</script>

<template>
  <div
    class="line"
    :class="{ chosen: isChosen, ticked: isTicked, narrow: isNarrow }"
    role="option"
    :aria-selected="isTicked"
    :aria-posinset="place"
    :aria-setsize="total"
  >
    <span class="tick" aria-hidden="true" @click.stop="emit('tick')"
      ><i>{{ isTicked ? '✓' : '' }}</i></span
    >
    <template v-if="cell && marked">
      <RowMark row-class="changed" />
      <span class="where"
        ><span class="cell key">{{ cell.key }}</span
        ><span v-if="column !== null" class="quiet column">{{ column }}</span></span
      >
      <span v-for="(value, position) in cell.beside" :key="position" class="cell value quiet">{{ value }}</span>
      <CellValue class="value" :stretches="marked.source" side="source" />
      <CellValue class="value" :stretches="marked.target" side="target" />
      <span v-if="saysDifference" class="where difference"
        ><template v-if="cell.difference !== null"
          ><span class="cell key">{{ signed(cell.difference) }}</span
          ><span v-if="cell.relativeDifference !== null && cell.relativeDifference !== 0" class="cell quiet column">{{
            relatively(cell.relativeDifference)
          }}</span></template
        ></span
      >
      <span class="tag" :class="decision">{{ standing }}</span>
    </template>
    <template v-else-if="row">
      <RowMark :row-class="row.class" :side="row.side" />
      <span class="cell key">{{ row.key ?? `line ${row.sourceLine ?? row.targetLine}` }}</span>
      <span v-for="(value, position) in row.beside" :key="position" class="cell value quiet">{{ value }}</span>
      <span class="cell value quiet" :class="{ src: row.side === 'source', tgt: row.side === 'target' }">{{ row.excerpt.replaceAll('\n', ' ⏎ ') }}</span>
      <span v-if="needsRuling" class="tag" :class="decision"
        >{{ standing }}<span class="unseen" data-figure="findings/items">, {{ detail }}</span></span
      >
      <span v-else class="quiet small" data-figure="findings/items" :title="detail">{{ detail }}</span>
    </template>
    <span v-else class="quiet">…</span>
    <template v-if="saysWhy && finding">
      <span class="value said" :title="finding.act?.reason">{{ finding.act?.reason }}</span>
      <span class="value said">{{ finding.act?.ticket }}</span>
      <span class="value said">{{ finding.act?.by }}</span>
    </template>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 8px;
  padding: 0 14px;
  block-size: 34px;
  align-items: center;
  border-block-end: 1px solid var(--line-2);
  background: var(--sheet);
  cursor: default;
}
.cell {
  min-inline-size: 0;
}
/* The key with its ruling, and below them both values, each as wide as the other. */
.narrow {
  grid-template-columns: 20px 26px minmax(0, 1fr) minmax(0, 1fr) auto;
  grid-template-rows: 26px 24px;
  gap: 0 8px;
  block-size: 52px;
}
.narrow > .tick,
.narrow > :nth-child(2) {
  grid-row: 1 / 3;
}
.narrow > .where:nth-child(3),
.narrow > .key {
  grid-area: 1 / 3 / 2 / 5;
}
.narrow > .where .column {
  display: inline;
}
.narrow > .tag,
.narrow > .small {
  grid-area: 1 / 5;
}
.narrow > .value {
  grid-row: 2;
}
.narrow > .value.src {
  grid-column: 3;
}
.narrow > .value.tgt {
  grid-column: 4 / 6;
}
.narrow > .value.quiet {
  grid-column: 3 / 6;
}
.narrow > .value.quiet:not(:last-of-type),
.narrow > .said,
.narrow > .difference {
  display: none;
}
.chosen {
  background: var(--mark);
  box-shadow: inset 3px 0 0 var(--mark-edge);
}
.ticked {
  background: var(--line-2);
}
.ticked.chosen {
  background: var(--mark);
}
.tick {
  align-self: stretch;
  display: grid;
  place-items: center;
  margin-inline: -12px -4px;
  cursor: pointer;
}
.tick i {
  font: 700 12px/14px var(--text);
  inline-size: 15px;
  block-size: 15px;
  text-align: center;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet);
}
.ticked .tick i {
  background: var(--night);
  border-color: var(--night);
  color: #fff;
}
.where {
  display: grid;
  min-inline-size: 0;
  line-height: 15px;
}

.difference {
  text-align: end;
}
.column {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.key {
  font-size: 12.5px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.value {
  overflow: hidden;
  text-overflow: ellipsis;
}
.said {
  font-size: 12px;
  white-space: nowrap;
}
.small {
  font-size: 12px;
}
.tag {
  font-size: 12px;
  border: 1px solid var(--edge);
  border-radius: 10px;
  padding: 1px 8px;
  color: var(--ink-2);
  justify-self: start;
  background: var(--sheet);
}
.tag.expected {
  border-color: var(--pass);
  color: var(--pass);
}
.tag.defect {
  border-color: var(--fail);
  color: var(--fail);
}
.tag.ask {
  border-style: dashed;
  color: var(--ink);
}
</style>
