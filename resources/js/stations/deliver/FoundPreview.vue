<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'

/** What was found in a file, with the reason, and its first rows read that way: put right here before it is taken. */
const props = defineProps<{ receipt: Schemas['Receipt']; preview: NonNullable<Schemas['Receipt']['preview']>; isBusy: boolean }>()
const emit = defineEmits<{ correct: [delimiter: string]; take: []; discard: [] }>()

const delimiters = [
  { value: 'comma', label: 'comma  ,' },
  { value: 'semicolon', label: 'semicolon  ;' },
  { value: 'tab', label: 'tab' },
  { value: 'bar', label: 'bar  |' },
]
const cells = (row: readonly string[]): readonly string[] => props.preview.columns.map((_, position) => row[position] ?? '')
</script>

<template>
  <div class="found">
    <p>
      <b>{{ receipt.fileName }}</b>: {{ counted(preview.columns.length, 'column') }}, {{ preview.reasons.encoding }}, {{ preview.reasons.lineEnds }}.
    </p>
    <div class="correct">
      <label :for="`delimiter-${receipt.side}`">Cells are separated by</label>
      <el-select
        :id="`delimiter-${receipt.side}`"
        :model-value="preview.format.delimiter"
        size="small"
        style="inline-size: 130px"
        @update:model-value="emit('correct', $event)"
      >
        <el-option v-for="delimiter in delimiters" :key="delimiter.value" :value="delimiter.value" :label="delimiter.label" />
      </el-select>
      <span class="quiet">found {{ preview.reasons.delimiter }}</span>
    </div>
    <div class="rows" tabindex="0" role="region" :aria-label="`First rows of ${receipt.fileName}`">
      <table>
        <thead>
          <tr>
            <th v-for="(name, position) in preview.columns" :key="position" scope="col">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, number) in preview.rows" :key="number">
            <td v-for="(value, position) in cells(row)" :key="position"><CellValue :stretches="[{ text: value, differs: false }]" /></td>
          </tr>
        </tbody>
      </table>
      <p v-if="preview.rows.length === 0" class="quiet">
        There are no rows to show: the file holds a header only, or every record has another number of cells.
      </p>
    </div>
    <div class="actions">
      <el-button type="primary" :loading="isBusy" @click="emit('take')">Take this delivery</el-button>
      <el-button :disabled="isBusy" @click="emit('discard')">Discard the file</el-button>
    </div>
  </div>
</template>

<style scoped>
.found {
  display: grid;
  gap: 8px;
  min-inline-size: 0;
  font-size: 13px;
}
p {
  margin: 0;
}
.correct,
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.rows {
  overflow: auto;
  max-block-size: 260px;
  border: 1px solid var(--line);
}
table {
  border-collapse: collapse;
}
th {
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
  font-size: 12px;
  color: var(--ink-3);
}
th,
td {
  text-align: start;
  padding: 3px 8px;
  border-block-end: 1px solid var(--line-2);
  white-space: nowrap;
  max-inline-size: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
