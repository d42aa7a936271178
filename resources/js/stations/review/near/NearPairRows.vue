<script setup lang="ts">
import { ref } from 'vue'
import { count, counted } from '@/format/counts'
import { difference, type Stretch } from '@/format/difference'
import { excerpt } from '@/format/excerpt'
import CellValue from '@/parts/CellValue.vue'
import { type Column, type NearPair, scoreSaid } from '@/stations/review/near/nearKeys'

/** Two rows that are taken for one: both with what differs marked, why, and what is decided of them. */
defineProps<{
  pair: NearPair
  columns: readonly Column[]
  mayRule: boolean
  review: string
  isSample?: boolean
  /** whether rows that are alike are a finding: two that should not be */
  isAudit?: boolean
}>()
const emit = defineEmits<{ rule: [decision: 'confirmed' | 'refused' | 'open', pair: number[]]; find: [pair: NearPair] }>()
const isOpen = ref(false)
const place = ({ file, line }: NearPair['source']): string => `${file === null ? '' : `${file}, `}line ${count(line)}`
const marked = (source: string, target: string, side: 'source' | 'target'): readonly Stretch[] => {
  // Capitals make no difference to a likeness, so they are not marked.
  const stretches = difference(source.toLowerCase(), target.toLowerCase())[side]
  const own = side === 'source' ? source : target
  let at = 0
  return excerpt(
    own.length === own.toLowerCase().length
      ? stretches.map(({ text, differs }) => ({ text: own.slice(at, (at += text.length)), differs }))
      : difference(source, target)[side],
  )
}
const DECIDED = { confirmed: 'Confirmed', refused: 'Refused', open: '' } as const
</script>

<template>
  <tbody :class="pair.state">
    <tr>
      <td class="number" rowspan="2">
        <b data-ordinal>{{ scoreSaid(pair.score) }}</b>
        <span v-if="pair.hasRival" class="rival" title="Another candidate of either row is as good, or nearly: never confirmed together with others."
          >rival</span
        >
      </td>
      <td>
        <RouterLink :to="`${review}&finding=${pair.source.sequence}`" class="key">{{ pair.source.key }}</RouterLink>
        <span class="quiet place" data-ordinal>{{ place(pair.source) }}</span>
      </td>
      <td v-for="(column, at) in columns" :key="column.source">
        <CellValue :stretches="marked(pair.source.cells[at] ?? '', pair.target.cells[at] ?? '', 'source')" side="source" />
      </td>
      <td v-if="!isSample" rowspan="3" class="acts">
        <template v-if="isAudit">
          <b v-if="pair.ruled">{{ pair.ruled === 'ask' ? 'asked' : pair.ruled }}</b>
          <el-button v-if="mayRule" size="small" :type="pair.ruled ? undefined : 'primary'" @click="emit('find', pair)">{{
            pair.ruled ? 'Rule again …' : 'Rule on both …'
          }}</el-button>
        </template>
        <template v-else-if="pair.state === 'open'">
          <template v-if="mayRule">
            <el-button size="small" type="primary" @click="emit('rule', 'confirmed', pair.pair)">Confirm</el-button>
            <el-button size="small" @click="emit('rule', 'refused', pair.pair)">Refuse</el-button>
          </template>
        </template>
        <template v-else>
          <b>{{ DECIDED[pair.state] }}</b>
          <el-button v-if="mayRule" size="small" @click="emit('rule', 'open', pair.pair)">Take back</el-button>
        </template>
      </td>
    </tr>
    <tr>
      <td>
        <span class="key">{{ pair.target.key }}</span> <span class="quiet place" data-ordinal>{{ place(pair.target) }}</span>
      </td>
      <td v-for="(column, at) in columns" :key="column.source">
        <CellValue :stretches="marked(pair.source.cells[at] ?? '', pair.target.cells[at] ?? '', 'target')" side="target" />
      </td>
    </tr>
    <tr class="why">
      <td></td>
      <td :colspan="columns.length + 1">
        {{ pair.reason }}.
        <button v-if="pair.others.length > 0 && !isSample" type="button" class="plain as-link" :aria-expanded="isOpen" @click="isOpen = !isOpen">
          {{ isOpen ? 'Without' : 'See' }} {{ counted(pair.others.length, 'other candidate') }}
        </button>
      </td>
    </tr>
    <template v-if="isOpen">
      <tr v-for="other in pair.others" :key="other.target.sequence" class="other">
        <td class="number" data-ordinal>{{ scoreSaid(other.score) }}</td>
        <td>
          <span class="key">{{ other.target.key }}</span> <span class="quiet place" data-ordinal>{{ place(other.target) }}</span>
        </td>
        <td v-for="(column, at) in columns" :key="column.source">
          <CellValue :stretches="marked(pair.source.cells[at] ?? '', other.target.cells[at] ?? '', 'target')" side="target" />
        </td>
        <td class="acts">
          <el-button v-if="mayRule && !isAudit && other.state === 'open'" size="small" @click="emit('rule', 'confirmed', other.pair)"
            >Confirm this one</el-button
          >
          <b v-else>{{ DECIDED[other.state] }}</b>
        </td>
      </tr>
    </template>
  </tbody>
</template>

<style scoped>
tbody {
  border-block-start: 1px solid var(--line);
  background: var(--sheet);
}
td {
  padding: 2px 8px;
  vertical-align: top;
  border: 0;
}
tr:first-child td {
  padding-block-start: 7px;
}
.why td {
  padding-block-end: 7px;
  color: var(--ink-2);
  font-size: 12.5px;
}
.key {
}
.place {
  font-size: 12px;
  white-space: nowrap;
  margin-inline-start: 6px;
}
.rival {
  display: block;
  font-size: 12px;
  background: var(--warn);
  padding: 0 4px;
}
td:nth-child(2),
.acts {
  white-space: nowrap;
}
.why td:nth-child(2) {
  white-space: normal;
}
td :deep(.cell) {
  display: inline-block;
  inline-size: max-content;
  max-inline-size: 230px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.why td {
  white-space: normal;
}
.acts {
  position: sticky;
  inset-inline-end: 0;
  background: var(--sheet);
  text-align: end;
}
.acts > b,
.acts > .el-button.el-button {
  display: block;
  margin: 0 0 4px auto;
  font-weight: 600;
}
.confirmed,
.refused,
:is(.confirmed, .refused) .acts {
  background: var(--mark);
}
.other {
  background: var(--paper);
}
</style>
