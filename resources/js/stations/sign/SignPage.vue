<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useTally } from '@/composables/useTally'
import { figures } from '@/format/said'
import { moment } from '@/format/moments'
import AgreementLine from '@/parts/AgreementLine.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import StationHead from '@/parts/StationHead.vue'
import { useReport } from '@/stations/sign/useReport'

const props = defineProps<{ course: Schemas['Course'] }>()
const id = computed(() => props.course.tally?.id ?? 0)
const { data: tally, error, isPending, refetch } = useTally(id)
const report = useReport(id)
const csv = (of: 'rows' | 'cells', isForSpreadsheets = false): string =>
  `/api/v1/tallies/${id.value}/findings/taken?of=${of}${isForSpreadsheets ? '&for=spreadsheets' : ''}`
const groups = computed(() => (['expected', 'defect', 'ask', 'open'] as const).map((decision) => ({ decision, findings: tally.value?.rulings[decision] ?? 0 })))
</script>

<template>
  <main class="station">
    <StationHead heading="What stakeholders will read" :note="tally ? `tally ${tally.number} of ${course.name}, ${moment(tally.finishedAt)}` : ''">
      <template v-if="tally">
        <span class="take"
          >Findings as CSV: <a :href="csv('rows')" download>rows</a>, <a :href="csv('cells')" download>cells</a>; for spreadsheets, where a cell that begins
          like a formula is led by an apostrophe: <a :href="csv('rows', true)" download>rows</a>, <a :href="csv('cells', true)" download>cells</a></span
        >
        <el-button type="primary" :loading="report.isPrinting.value" @click="report.print()">{{
          report.isPrinting.value ? 'Printing the report' : 'Report as PDF'
        }}</el-button>
      </template>
    </StationHead>
    <p v-if="id === 0" class="empty">
      There is nothing to report before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="The report" @retry="refetch()">
      <div v-if="tally" class="panes" :data-tally="tally.id">
        <aside>
          <ErrorNote :error="report.error.value" />
          <div>
            <h2>Figures</h2>
            <AgreementLine v-if="tally.values" :values="tally.values" :of-arrived="tally.figures.ofArrived" :rows-arrived="tally.figures.rowsArrived" />
          </div>
          <div>
            <h2>Rulings</h2>
            <dl>
              <template v-for="group in groups" :key="group.decision">
                <dt>
                  {{ group.decision === 'open' ? 'Still open' : group.decision === 'ask' ? 'Asked' : group.decision === 'defect' ? 'Defects' : 'Expected' }}
                </dt>
                <dd :class="{ open: group.decision === 'open' && group.findings > 0 }">
                  <FigureValue :name="`tally/rulings/${group.decision}`" :of="group.findings" />
                </dd>
              </template>
            </dl>
            <p v-if="tally.openFindings > 0" class="quiet">
              <SaidText :said="figures('tally/openFindings', tally.openFindings, 'finding')" /> without a ruling.
              <RouterLink :to="`/datasets/${course.id}/review`">Rule on them in Review</RouterLink>.
            </p>
          </div>
          <p class="quiet">A report is kept as it was printed. A later ruling makes a new one.</p>
        </aside>
        <iframe :key="tally.openFindings" :src="`/api/v1/tallies/${tally.id}/report`" title="The report as its reader will see it" sandbox="" />
      </div>
    </LoadState>
  </main>
</template>

<style scoped>
.take {
  max-inline-size: 46ch;
  font-size: 12.5px;
  align-self: center;
}
.station {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-block-size: 0;
}
.panes {
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
  min-block-size: 0;
}
aside {
  padding: 14px 16px;
  display: grid;
  align-content: start;
  gap: 18px;
  border-inline-end: 1px solid var(--line);
  overflow: auto;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px 8px;
  margin: 8px 0 0;
  font-size: 13.5px;
}
dd {
  margin: 0;
  text-align: end;
  font-weight: 650;
}
.open {
  color: var(--fail);
}
p {
  margin: 8px 0 0;
  font-size: 13px;
}
.empty {
  padding: 16px;
}
iframe {
  border: 0;
  inline-size: 100%;
  block-size: 100%;
  min-block-size: 480px;
  background: #dfe5ea;
}
@media (width < 900px) {
  .panes {
    grid-template-columns: 1fr;
  }
}
</style>
