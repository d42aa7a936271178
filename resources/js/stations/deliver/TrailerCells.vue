<script setup lang="ts">
import CellValue from '@/parts/CellValue.vue'
import type { TrailerMeaning } from '@/stations/deliver/useParts'

/** The last record of a file, and what each of its cells says of the others. */
const props = defineProps<{ trailer: { cells: readonly string[]; rows?: number | null }; columns: readonly string[]; meaning: TrailerMeaning }>()
const emit = defineEmits<{ change: [meaning: TrailerMeaning] }>()

const NOTHING = '#nothing'
const ROWS = '#rows'
const SUM = 'sum '
const said = (cell: number): string => {
  if (props.meaning.rows === cell) return ROWS
  const total = props.meaning.totals.find((one) => one.cell === cell)
  return total === undefined ? NOTHING : SUM + total.column
}
function choose(cell: number, what: string): void {
  const totals = props.meaning.totals.filter((one) => one.cell !== cell && SUM + one.column !== what)
  const rows = what === ROWS ? cell : props.meaning.rows === cell ? null : props.meaning.rows
  emit('change', { rows, totals: what.startsWith(SUM) ? [...totals, { column: what.slice(SUM.length), cell }] : totals })
}
</script>

<template>
  <table class="figures">
    <caption class="quiet">
      What the last record says
    </caption>
    <tbody>
      <tr v-for="(value, position) in trailer.cells" :key="position">
        <td><CellValue :stretches="[{ text: value, differs: false }]" /></td>
        <td>
          <el-select
            :model-value="said(position + 1)"
            size="small"
            filterable
            :aria-label="`What cell ${position + 1} of the last record says`"
            @update:model-value="choose(position + 1, $event)"
          >
            <el-option :value="NOTHING" label="nothing to check" />
            <el-option :value="ROWS" label="the number of rows" />
            <el-option v-for="name in columns" :key="name" :value="SUM + name" :label="`the sum of ${name}`" />
          </el-select>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
caption {
  text-align: start;
  font-size: 12px;
}
td {
  padding: 2px 8px 2px 0;
}
.el-select {
  inline-size: 220px;
}
</style>
