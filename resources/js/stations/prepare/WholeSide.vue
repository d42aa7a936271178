<script setup lang="ts">
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { useAskForWorkbook } from '@/composables/useWorkbooks'
import { figures } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import SaidText from '@/parts/SaidText.vue'
import { useWholeRun } from '@/stations/prepare/usePreparation'

/** What can be done with all rows of a side, where its steps have been tried on a sample: run them, and take the rows away. */
const props = defineProps<{ side: Side; course: Schemas['Course']; trial: Schemas['PreparationTrial'] }>()

const run = useWholeRun(() => props.course, props.side)
const workbook = useAskForWorkbook(() =>
  answer(api.POST('/datasets/{dataset}/prepared-rows/workbook', { params: { path: { dataset: props.course.id }, query: { side: props.side } } })),
)
const take = (as: string): string => `/api/v1/datasets/${props.course.id}/prepared-rows?side=${props.side}&as=${as}`
</script>

<template>
  <p v-if="!trial.isWhole" class="quiet">
    Tried on <SaidText :said="figures(`preparation/${side}/sampleRows`, trial.sampleRows, 'row')" />
    {{ trial.isBeginning ? 'from the beginning' : 'drawn across the delivery' }}.
    <el-button v-if="course.mayWork" size="small" :loading="run.isPending.value" @click="run.mutate()"
      ><span>Run on all <FigureValue :name="`preparation/${side}/rows`" :of="trial.rows" /> rows</span></el-button
    >
  </p>
  <ErrorNote :error="run.error.value" />
  <p class="quiet">
    Download the prepared rows as <a :href="take('csv')" download>CSV</a>, <a :href="take('json-lines')" download>JSON Lines</a> or
    <button type="button" class="plain as-link" :disabled="workbook.isPending.value" @click="workbook.mutate()">workbook</button>.
  </p>
  <ErrorNote :error="workbook.error.value" />
</template>

<style scoped>
p {
  font-size: 12.5px;
  margin: 8px 0 0;
}
</style>
