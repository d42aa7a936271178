<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { fileOf, useWorkbooks } from '@/composables/useWorkbooks'
import { count, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Workbooks that are being written, or wait to be taken: they stay in sight wherever one goes. */
const { workbooks, putAway } = useWorkbooks((workbook) => {
  const link = document.createElement('a')
  link.href = fileOf(workbook)
  link.download = workbook.name
  link.click()
})
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
        <span v-else class="quiet" role="status">{{ counted(workbook.rows, 'row') }}, kept for a day. <a :href="fileOf(workbook)" download>Take it</a></span>
        <el-button
          link
          size="small"
          :aria-label="`${workbook.state === 'asked' ? 'Cancel' : 'Put away'} ${workbook.name}`"
          @click="putAway.mutate(workbook.id)"
          >{{ workbook.state === 'asked' ? 'Cancel' : 'Put away' }}</el-button
        >
      </li>
    </ul>
    <ErrorNote :error="putAway.error.value" />
  </aside>
</template>

<style scoped>
.tray {
  position: fixed;
  inset-block-end: 12px;
  inset-inline-end: 12px;
  z-index: 10;
  inline-size: min(360px, calc(100vw - 24px));
  max-block-size: 40vh;
  overflow: auto;
  padding: 4px 14px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-block-start: 3px solid var(--ink);
  box-shadow: 0 4px 16px rgb(0 0 0 / 12%);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: baseline;
  padding-block: 8px;
  font-size: 12.5px;
}
li + li {
  border-block-start: 1px solid var(--line-2);
}
b {
  grid-column: 1 / -1;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.lane {
  grid-column: 1 / -1;
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
