<script setup lang="ts">
import { computed } from 'vue'
import { className, decisionName } from '@/format/classes'
import { counted } from '@/format/counts'
import { nearDifference } from '@/format/difference'
import CellValue from '@/parts/CellValue.vue'
import RowMark from '@/parts/RowMark.vue'
import type { Finding } from '@/stations/review/useFindings'

const props = defineProps<{ finding: Finding | undefined; isChosen: boolean; place: number; total: number }>()

const cell = computed(() => (props.finding?.kind === 'cell' ? props.finding.cell : undefined))
const row = computed(() => (props.finding?.kind === 'row' ? props.finding.row : undefined))
const marked = computed(() => (cell.value === undefined ? undefined : nearDifference(cell.value.source, cell.value.target)))
const decision = computed(() => cell.value?.decision ?? row.value?.decision ?? 'open')
/** Ruled on in a tally before, and other values since: that is why it is open. */
const isChangedSince = computed(() => (cell.value?.earlier ?? row.value?.earlier)?.isChanged === true && decision.value === 'open')
const needsRuling = computed(() => row.value?.class !== 'changed')
const detail = computed(() => {
  if (row.value === undefined) return ''
  if (row.value.class === 'changed') return counted(row.value.differingCells, 'cell')
  return row.value.class === 'repeated' ? `${row.value.sourceRows} : ${row.value.targetRows}` : className(row.value.class)
})
</script>

<template>
  <div
    class="line"
    :class="{ two: finding?.kind === 'cell', chosen: isChosen }"
    role="option"
    :aria-selected="isChosen"
    :aria-posinset="place"
    :aria-setsize="total"
  >
    <template v-if="cell && marked">
      <RowMark row-class="changed" />
      <span class="cell key">{{ cell.key }}</span>
      <CellValue class="value" :stretches="marked.source" side="source" />
      <CellValue class="value" :stretches="marked.target" side="target" />
      <span class="tag" :class="decision">{{ isChangedSince ? 'Changed since' : decisionName(decision) }}</span>
    </template>
    <template v-else-if="row">
      <RowMark :row-class="row.class" :side="row.side" />
      <span class="cell key">{{ row.key ?? `line ${row.sourceLine ?? row.targetLine}` }}</span>
      <span class="cell value quiet" :class="{ src: row.side === 'source', tgt: row.side === 'target' }">{{ row.excerpt.replaceAll('\n', ' ⏎ ') }}</span>
      <span v-if="needsRuling" class="tag" :class="decision"
        >{{ isChangedSince ? 'Changed since' : decisionName(decision) }}<span class="unseen">, {{ detail }}</span></span
      >
      <span v-else class="quiet small">{{ detail }}</span>
    </template>
    <span v-else class="quiet">…</span>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  gap: 10px;
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
.line {
  grid-template-columns: 30px 128px minmax(0, 1fr) 84px;
}
.two {
  grid-template-columns: 30px 128px minmax(0, 1fr) minmax(0, 1fr) 84px;
}
.chosen {
  background: var(--mark);
  box-shadow: inset 3px 0 0 var(--mark-edge);
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
