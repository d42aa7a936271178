<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { fileOf, useWorkbooks } from '@/composables/useWorkbooks'
import { count, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Workbooks of a dataset that are being written, or wait to be taken. */
const props = defineProps<{ dataset: number }>()
const { workbooks, putAway } = useWorkbooks(() => props.dataset)
const percent = ({ done, total }: Schemas['Workbook']): number => (total === 0 ? 0 : Math.min(100, Math.floor((done / total) * 100)))
function said(workbook: Schemas['Workbook']): string {
  if (workbook.rows === 0 && workbook.total === 0) return 'waits for a worker'
  return percent(workbook) === 100 ? `${count(workbook.rows)} rows written, being packed` : `${counted(workbook.rows, 'row')} written, ${percent(workbook)} %`
}
</script>

<template>
  <aside v-if="workbooks.length > 0" class="tray" aria-label="Workbooks">
    <ul>
      <li v-for="workbook in workbooks" :key="workbook.id">
        <b>{{ workbook.name }}</b>
        <template v-if="workbook.state === 'asked'">
          <div class="lane" role="progressbar" :aria-label="workbook.name" :aria-valuenow="percent(workbook)" aria-valuemin="0" aria-valuemax="100">
            <u :style="{ inlineSize: `${percent(workbook)}%` }" />
          </div>
          <span class="quiet">{{ said(workbook) }}</span>
        </template>
        <ErrorNote v-else-if="workbook.state === 'failed'" :error="new Error(workbook.problem ?? '')" />
        <span v-else class="quiet" role="status"
          >{{ counted(workbook.rows, 'row') }}, available for a day. <a :href="fileOf(workbook)" download>Download</a></span
        >
        <el-button link size="small" :aria-label="`${workbook.state === 'asked' ? 'Cancel' : 'Close'} ${workbook.name}`" @click="putAway.mutate(workbook.id)">{{
          workbook.state === 'asked' ? 'Cancel' : 'Close'
        }}</el-button>
      </li>
    </ul>
    <ErrorNote :error="putAway.error.value" />
  </aside>
</template>

<style scoped>
.tray {
  max-block-size: 40vh;
  overflow: auto;
  padding: 4px 12px;
  background: var(--sheet);
  border-block-start: 3px solid var(--ink);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  gap: 4px 12px;
  justify-items: start;
  padding-block: 8px;
  font-size: 12.5px;
}
li + li {
  border-block-start: 1px solid var(--line-2);
}
b {
  font-size: 13px;
  overflow-wrap: anywhere;
}
.lane {
  inline-size: 100%;
  block-size: 6px;
  background: var(--line-2);
}
.lane u {
  display: block;
  block-size: 100%;
  background: var(--ink);
  transition: inline-size 0.3s;
}
</style>
