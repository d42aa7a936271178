<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { difference } from '@/format/difference'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'

/** A whole row of both sides next to each other, with what a rule let pass, and what stood there before any step. */
const props = defineProps<{ course: Schemas['Course']; row: Schemas['EyeCheckRow'] | undefined; error: Error | null; isLoading: boolean }>()

const record = computed(() => props.row?.record ?? null)
const labels = computed(() => ({ source: props.course.migration.sourceLabel, target: props.course.migration.targetLabel }))
type Side = 'source' | 'target'
/** What was delivered where a step altered it; nothing where it is the same, or a step made the column. */
function before(side: Side, field: Schemas['Field']): string | null {
  const delivered = props.row?.delivered[side]
  const name = field[side]
  const place = name === null || !delivered ? -1 : delivered.columns.indexOf(name)
  const cell = place < 0 ? undefined : delivered?.cells[place]
  return cell === undefined || cell === (side === 'source' ? field.sourceValue : field.targetValue) ? null : cell
}
const value = (side: Side, field: Schemas['Field']): string | null => (side === 'source' ? field.sourceValue : field.targetValue)
const stretches = (side: Side, field: Schemas['Field']) =>
  field.letPass === null ? [{ text: value(side, field) ?? '', differs: false }] : difference(field.sourceValue ?? '', field.targetValue ?? '')[side]
const whole = (text: string) => [{ text, differs: false }]
const place = (side: Side): string => {
  const delivered = props.row?.delivered[side]
  return delivered ? `${delivered.file}, line ${count(delivered.line)}` : ''
}
</script>

<template>
  <LoadState :is-loading="record === null && (isLoading || row?.isWaiting === true)" :error="error" what="The row">
    <p v-if="row?.problem" role="alert">{{ row.problem }}</p>
    <p v-else-if="record === null" class="quiet">The row of this key is not found on both sides any more.</p>
    <table v-else :aria-busy="isLoading">
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col" class="src">
            {{ labels.source }}<span class="quiet cell">{{ place('source') }}</span>
          </th>
          <th scope="col" class="tgt">
            {{ labels.target }}<span class="quiet cell">{{ place('target') }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in record.fields" :key="`${field.source} ${field.target}`" :class="{ rule: field.letPass !== null }">
          <th scope="row">
            {{ field.source ?? field.target
            }}<template v-if="field.source !== null && field.target !== null && field.source !== field.target"> → {{ field.target }}</template>
            <span v-if="field.role === 'not-compared'" class="quiet">not compared</span>
            <span v-if="field.letPass !== null" class="quiet" data-sentence="record">a rule lets pass: {{ field.letPass }}</span>
          </th>
          <td v-for="side in ['source', 'target'] as const" :key="side">
            <CellValue v-if="value(side, field) !== null" :stretches="stretches(side, field)" :side="side" />
            <span v-if="before(side, field) !== null" class="before quiet">delivered as <CellValue :stretches="whole(before(side, field) ?? '')" /></span>
          </td>
        </tr>
      </tbody>
    </table>
  </LoadState>
</template>

<style scoped>
table {
  border-collapse: collapse;
  inline-size: 100%;
  font-size: 13.5px;
  table-layout: fixed;
}
th,
td {
  text-align: start;
  vertical-align: top;
  padding: 6px 14px 6px 0;
  border-block-end: 1px solid var(--line-2);
  overflow-wrap: anywhere;
}
th[scope='row'],
thead th:first-child {
  inline-size: 28%;
  font-weight: 500;
}
th span {
  display: block;
  white-space: normal;
  font-size: 12px;
  font-weight: 400;
}
td :deep(.cell) {
  white-space: pre-wrap;
}
.before {
  display: block;
  font-size: 12px;
}
.rule {
  background: var(--mark);
}
</style>
