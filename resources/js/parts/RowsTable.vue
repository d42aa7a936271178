<script setup lang="ts">
import { count } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'

/** Rows of one side as they were delivered, each with its line, and with its file's number where there are several. */
defineProps<{ columns: readonly string[]; rows: readonly { part: number; line: number; cells: readonly string[] }[]; side: 'source' | 'target' | undefined }>()
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <table class="figures">
    <thead>
      <tr>
        <th scope="col" class="number">line</th>
        <th v-for="(name, place) in columns" :key="place" scope="col">{{ name }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, number) in rows" :key="number">
        <td class="number" data-ordinal>{{ row.part > 1 ? `${row.part}: ` : '' }}{{ count(row.line) }}</td>
        <td v-for="(cell, place) in row.cells" :key="place"><CellValue :stretches="whole(cell)" :side="side" /></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
th,
.number {
  white-space: nowrap;
}
</style>
