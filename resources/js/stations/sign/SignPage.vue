<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { useTally } from '@/composables/useTally'
import { useAskForWorkbook } from '@/composables/useWorkbooks'
import { figures } from '@/format/said'
import { moment } from '@/format/moments'
import AgreementLine from '@/parts/AgreementLine.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import SignDialog from '@/parts/SignDialog.vue'
import StationHead from '@/parts/StationHead.vue'
import EvidencePacks from '@/stations/sign/EvidencePacks.vue'
import EndDialog from '@/stations/sign/EndDialog.vue'
import LimitLines from '@/stations/sign/LimitLines.vue'
import OwnWords from '@/stations/sign/OwnWords.vue'
import ReportLinks from '@/stations/sign/ReportLinks.vue'
import LimitsDialog from '@/stations/sign/LimitsDialog.vue'
import SignatureLines from '@/stations/sign/SignatureLines.vue'
import { useReport } from '@/stations/sign/useReport'
import { useSignOff } from '@/stations/sign/useSignOff'

/** Whether it is good enough, for whom, and the report beside it as its reader will see it. */
const props = defineProps<{ course: Schemas['Course'] }>()
const id = computed(() => props.course.tally?.id ?? 0)
const { data: tally, error, isPending, refetch } = useTally(id)
const report = useReport(id)
const workbook = useAskForWorkbook(() => answer(api.POST('/tallies/{tally}/report-workbook', { params: { path: { tally: id.value } } })))
const { signOff, end, waive, say, lookAgain } = useSignOff(() => id.value)
const state = computed(() => signOff.data.value)
const csv = (of: 'rows' | 'cells', isForSpreadsheets = false): string =>
  `/api/v1/tallies/${id.value}/findings/taken?of=${of}${isForSpreadsheets ? '&for=spreadsheets' : ''}`
const signed = (as: 'json' | 'csv'): string => `/api/v1/tallies/${id.value}/sign-off/taken?as=${as}`
const RULINGS = { expected: 'Expected', defect: 'Defects', ask: 'Asked', open: 'Still open' } as const
const groups = computed(() => (['expected', 'defect', 'ask', 'open'] as const).map((decision) => ({ decision, findings: tally.value?.rulings[decision] ?? 0 })))
const VERBS = { prepared: 'Sign: I have prepared it', checked: 'Sign: I have checked it', accepted: 'Sign: I accept it' } as const
/** What blocks the next signature stands out; what will block a later one is said too. Limits stand above with their figures already. */
const blocks = computed(() =>
  (state.value?.blocks ?? []).map((block) => ({ ...block, isNow: state.value?.next != null && block.for.includes(state.value.next) })),
)
const otherBlocks = computed(() => blocks.value.filter(({ code }) => code !== 'limit'))
const failing = computed(() => blocks.value.length - otherBlocks.value.length)
const mine = computed(() => state.value?.mine)
const isBlocked = computed(() => blocks.value.some(({ isNow }) => isNow))
const open = ref<'sign' | 'limits' | 'returned' | 'withdrawn' | null>(null)
const items = computed(() =>
  mine.value?.digest != null && mine.value.sentence !== null ? [{ tally: id.value, digest: mine.value.digest, sentence: mine.value.sentence }] : [],
)
const queries = useQueryClient()
const revision = computed(() => `${tally.value?.openFindings ?? 0} ${state.value?.state ?? ''} ${JSON.stringify([state.value?.limits, state.value?.texts])}`)
async function ended(act: 'returned' | 'withdrawn', reason: string): Promise<void> {
  await end.mutateAsync({ act, reason })
  open.value = null
  await queries.invalidateQueries({ queryKey: ['tally', id.value] })
}
</script>

<template>
  <main class="station">
    <StationHead
      heading="Is it good enough to go live?"
      :words="['limit', 'waiver']"
      :note="tally ? `tally ${tally.number} of ${course.name}, ${moment(tally.finishedAt)}` : ''"
    >
      <template v-if="tally">
        <el-button :loading="report.isPrinting.value" @click="report.print()">{{
          report.isPrinting.value ? 'Printing the report' : 'Report as PDF'
        }}</el-button>
        <el-button :loading="workbook.isPending.value" @click="workbook.mutate()">As a workbook</el-button>
        <el-button v-if="mine?.mayReturn" @click="open = 'returned'">Return it</el-button>
        <el-button v-if="mine?.mayWithdraw" @click="open = 'withdrawn'">{{ state?.state === 'accepted' ? 'Withdraw' : 'Withdraw the sign-off' }}</el-button>
        <el-button v-if="mine?.act" type="primary" :disabled="isBlocked" @click="open = 'sign'">{{ VERBS[mine.act] }}</el-button>
      </template>
    </StationHead>
    <p v-if="id === 0" class="empty">
      There is nothing to sign before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="The report" @retry="refetch()">
      <div v-if="tally" class="panes" :data-tally="tally.id">
        <aside>
          <ErrorNote :error="report.error.value ?? workbook.error.value ?? waive.error.value ?? end.error.value ?? say.error.value" />
          <LoadState :is-loading="signOff.isPending.value" :error="signOff.error.value" what="The limits and signatures" @retry="signOff.refetch()">
            <template v-if="state">
              <section aria-label="Limits">
                <h2>
                  Limits <button type="button" class="plain as-link" @click="open = 'limits'">{{ mine?.maySetLimits ? 'Set limits' : 'All limits' }}</button>
                </h2>
                <p v-if="state.limits.length === 0" class="quiet">
                  No limit counted for this tally, so nobody has said what is good enough.
                  {{ mine?.maySetLimits ? 'Set some, then tally again.' : 'A test manager sets them; they count from the next tally on.' }}
                </p>
                <template v-else>
                  <p class="verdict" data-figure="sign-off/verdict">{{ state.verdict }}</p>
                  <LimitLines
                    :limits="state.limits"
                    :may-waive="mine?.mayWaive === true && state.state !== 'accepted'"
                    :is-busy="waive.isPending.value"
                    @waive="waive.mutate($event)"
                  />
                </template>
                <p v-for="exception in state.exceptions" :key="exception.words" class="quiet" data-figure="sign-off/exceptions">
                  {{ exception.words }}; in the migration {{ exception.instead }}
                </p>
              </section>
              <section aria-label="Signatures">
                <h2>Signatures</h2>
                <p v-if="state.state === 'overtaken'" role="status">Somebody signs a newer tally; this one can be signed no further.</p>
                <p v-else-if="state.newerTally !== null" role="status">
                  Tally <span data-ordinal>{{ state.newerTally }}</span> is newer.
                </p>
                <SignatureLines :sign-off="state" :tally="id" />
                <p v-if="state.duties.maySignTwice || state.duties.mayAcceptOwn" class="quiet">
                  In this migration {{ state.duties.maySignTwice ? 'one person may give several signatures' : '' }}
                  {{ state.duties.maySignTwice && state.duties.mayAcceptOwn ? ' and ' : '' }}
                  {{ state.duties.mayAcceptOwn ? 'who ruled or made the plan may accept' : '' }}.
                </p>
              </section>
              <section v-if="blocks.length > 0 && state.next !== null" aria-label="What stands in the way">
                <h2>What stands in the way</h2>
                <ul class="blocks">
                  <li v-for="block in otherBlocks" :key="block.words" :class="{ now: block.isNow }">
                    <RouterLink :to="block.link" data-figure="sign-off/blocks">{{ block.words }}</RouterLink>
                  </li>
                  <li v-if="failing > 0" :class="{ now: state.next === 'accepted' }">
                    Limits fail, as they stand above: mend what is wrong and tally again, or have a data owner waive them. Until then nobody can accept.
                  </li>
                </ul>
              </section>
            </template>
          </LoadState>
          <OwnWords v-if="state && mine?.mayWrite" :texts="state.texts" :is-busy="say.isPending.value" @say="say.mutate($event)" />
          <EvidencePacks :tally="id" />
          <ReportLinks :tally="id" :may-sign="course.mayRule" />
          <section aria-label="Rulings">
            <h2>Rulings</h2>
            <dl>
              <template v-for="group in groups" :key="group.decision">
                <dt>{{ RULINGS[group.decision] }}</dt>
                <dd :class="{ fails: group.decision === 'open' && group.findings > 0 }">
                  <FigureValue :name="`tally/rulings/${group.decision}`" :of="group.findings" />
                </dd>
              </template>
            </dl>
            <p v-if="tally.openFindings > 0" class="quiet">
              <SaidText :said="figures('tally/openFindings', tally.openFindings, 'finding')" /> without a ruling.
              <RouterLink :to="`/datasets/${course.id}/review`">{{ course.mayRule ? 'Rule on them in Review' : 'See them in Review' }}</RouterLink>{{
                course.mayRule ? '.' : '; whoever rules there is an analyst, a test manager or a data owner.'
              }}
            </p>
          </section>
          <section aria-label="Figures">
            <h2>Figures</h2>
            <AgreementLine v-if="tally.values" :values="tally.values" :of-arrived="tally.figures.ofArrived" :rows-arrived="tally.figures.rowsArrived" />
          </section>
          <p class="quiet">
            <template v-if="(state?.signatures ?? []).length > 0">
              What was signed, in the same bytes whenever it is taken: <a :href="signed('json')" download>JSON</a>, <a :href="signed('csv')" download>CSV</a>.
            </template>
            Findings as CSV: <a :href="csv('rows')" download>rows</a>, <a :href="csv('cells')" download>cells</a>; for spreadsheets, where a cell that begins
            like a formula is led by an apostrophe: <a :href="csv('rows', true)" download>rows</a>, <a :href="csv('cells', true)" download>cells</a>. A report
            is kept as it was printed; a later ruling makes a new one.
          </p>
        </aside>
        <iframe
          v-if="state || signOff.error.value"
          :key="revision"
          :src="`/api/v1/tallies/${tally.id}/report`"
          title="The report as its reader will see it"
          sandbox=""
        />
      </div>
    </LoadState>
    <SignDialog
      v-if="open === 'sign' && items.length > 0"
      :migration="course.migration.id"
      :items="items"
      :needs-code="mine?.needsCode === true"
      figure="sign-off/mine"
      @close="open = null"
      @changed="lookAgain()"
    />
    <LimitsDialog v-if="open === 'limits'" :dataset="course.id" :migration="course.migration.id" @close="open = null" />
    <EndDialog
      v-if="open === 'returned' || open === 'withdrawn'"
      :act="open"
      :is-busy="end.isPending.value"
      :error="end.error.value"
      @end="ended"
      @close="open = null"
    />
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-block-size: 0;
}
.panes {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
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
section {
  min-inline-size: 0;
}
h2 {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  margin: 0;
}
h2 .plain {
  font-size: 13px;
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
.fails {
  color: var(--fail);
}
p {
  margin: 8px 0 0;
  font-size: 13px;
}
.verdict {
  font-weight: 650;
}
.verdict::first-letter {
  text-transform: uppercase;
}
.blocks {
  margin: 8px 0 0;
  padding-inline-start: 18px;
  display: grid;
  gap: 6px;
  font-size: 13px;
}
.blocks .now {
  color: var(--fail);
}
.blocks .quiet {
  display: block;
  font-size: 12.5px;
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
