<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'
import { amount, isApart, signed } from '@/format/amounts'
import { figure, figures, joined, named, type Said } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import StationHead from '@/parts/StationHead.vue'
import { freshStepId } from '@/format/freshStepId'
import { withPeriod, type PeriodOfPair } from '@/stations/prove/periods'
import DeclaredTotals from '@/stations/prove/DeclaredTotals.vue'
import ProofEntry from '@/stations/prove/ProofEntry.vue'
import ProofPanes from '@/stations/prove/ProofPanes.vue'
import PublishedDialog from '@/stations/prove/PublishedDialog.vue'
import TotalGroups from '@/stations/prove/TotalGroups.vue'
import { isSame, nameOf } from '@/stations/prove/totals'
import TotalsDialog from '@/stations/prove/TotalsDialog.vue'
import { useTotals } from '@/stations/prove/useTotals'
import ValuesApart from '@/stations/prove/ValuesApart.vue'
import WayBetween from '@/stations/prove/WayBetween.vue'
import WorthOfColumns from '@/stations/prove/WorthOfColumns.vue'

/** Does it add up: figures that both sides must have in common, and the rows that make them differ. */
const props = defineProps<{ course: Schemas['Course'] }>()

const id = computed(() => props.course.tally?.id ?? 0)
const { data, error, isPending, refetch } = useTotals(() => id.value)
const { draft, plan, saving, setTotals } = useDraft(() => props.course)
const isChoosing = ref(false)
const isPublishing = ref(false)
function choose(totals: readonly Schemas['ControlTotal'][], periods: readonly PeriodOfPair[]): void {
  setTotals(totals, (of) => periods.reduce((next, period) => withPeriod(next, period, freshStepId), of))
}
const route = useRoute()
/** From the board or the tally one comes for a certain total. */
const chosen = ref<number | null>(Number(route.query.total ?? 0) || null)
const group = ref<Schemas['TotalGroup'] | null>(null)
const total = computed(() => data.value?.items.find(({ number }) => number === chosen.value) ?? data.value?.items[0])
watch(
  () => total.value?.number,
  () => (group.value = null),
)
/** Where the chosen total stands in the answer. */
const item = computed(() => named('proof', 'items', total.value === undefined ? 0 : (data.value?.items.indexOf(total.value) ?? 0)))
const waiting = computed(() => (draft.value?.totals ?? []).filter((one) => !(data.value?.items ?? []).some((item) => isSame(item.total, one))))
const columns = computed(() => ({
  source: (plan.data.value?.source?.columns ?? []).map(({ name }) => name),
  target: (plan.data.value?.target?.columns ?? []).map(({ name }) => name),
}))
const path = (one: Schemas['Total']): string => named('totals', one.number - 1)
/** Of how many rows it was taken, and what of them it could not take. */
const takenOf = (one: Schemas['Total']): Said => {
  const { source, target } = one.taken
  const unread = source.unread + target.unread
  const blanks = source.blanks + target.blanks
  const unvalued = (source.unvalued ?? 0) + (target.unvalued ?? 0)
  const sum = (what: 'unread' | 'blanks' | 'unvalued', value: number): Said => [
    figure(`${path(one)}/taken/source/${what} + ${path(one)}/taken/target/${what}`, value),
  ]
  return [
    `over ${one.basis}: `,
    figure(`${path(one)}/rows/source`, one.rows.source),
    ' in the source, ',
    figure(`${path(one)}/rows/target`, one.rows.target),
    ' in the target',
    ...(one.total.measure === 'rows' || one.total.measure === 'blanks' || blanks === 0 ? [] : [', ', ...sum('blanks', blanks), ' blank']),
    ...(unvalued === 0 ? [] : [', ', ...sum('unvalued', unvalued), ' without a unit value, which add nothing']),
    ...(unread === 0 ? [] : [', ', ...sum('unread', unread), one.total.measure === 'sum' ? ' not numbers' : ' not readable']),
  ]
}
/** What sets it apart from others of the same name. */
const aboutOf = (one: Schemas['Total']): string =>
  [...(one.by === '' ? [] : [`by ${one.by}`]), ...(one.total.over === 'matched' ? [`over ${one.basis}`] : [])].join(', ')
const isAgreed = (one: Schemas['Total']): boolean => !one.differs && !one.cancels && one.cancelling === 0
const where = computed(() => (group.value === null ? 'over all groups' : `in ${group.value.labels.join(' · ') || '(blank)'}`))
const nothingApart = { source: { count: 0, values: [] }, target: { count: 0, values: [] } }
const since = computed(() => total.value?.before)
/** What this tally did to each total, and to what differences come to, since the one before. */
const FEW_CHANGES = 4
const sinceSaid = computed<Said>(() => {
  const said = (change: Schemas['ProofChange'], name: string, before = ''): Said => [
    `${before}${change.words} `,
    figure(name, signed(change.before)),
    ' → ',
    figure(name, signed(change.now)),
    ...(isApart(change.closer) ? [' (', figure(name, amount(change.closer.replace('-', ''))), change.closer.startsWith('-') ? ' farther)' : ' closer)'] : []),
  ]
  const all = [
    ...(data.value?.since?.totals ?? []).map((change) => said(change, 'proof/since/totals')),
    ...(data.value?.since?.worth ?? []).map((change) => said(change, 'proof/since/worth', 'differences of ')),
  ]
  return joined([...all.slice(0, FEW_CHANGES), ...(all.length > FEW_CHANGES ? [['and more'] as Said] : [])], '; ')
})
const key = (side: 'source' | 'target') => ({
  path: `/datasets/${props.course.id}/review`,
  query: { tally: id.value, key: total.value?.keys[side][0], keyColumn: 1 },
})
</script>

<template>
  <main class="station">
    <StationHead heading="What adds up, and what does not" :words="['control total', 'share']" :note="course.tally ? `tally ${course.tally.number}` : ''">
      <RouterLink class="button" :to="`/datasets/${course.id}/prove/references`">References</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/prove/eye-check`">Eye check</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/prove/population`">What was compared</RouterLink>
      <el-button v-if="course.mayWork" type="primary" :disabled="draft === null" @click="isChoosing = true">Choose totals</el-button>
    </StationHead>
    <ErrorNote :error="saving.error.value" />
    <p v-if="id === 0" class="empty">
      Nothing can be proved before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="The totals" @retry="refetch()">
      <div v-if="data && data.items.length === 0" class="empty">
        <p>No total was taken with this tally: sums, counts and extremes that both sides must have in common, by group if you like.</p>
        <p v-if="waiting.length > 0">
          <SaidText :said="figures('plan/draft/totals/length', waiting.length, 'total')" /> of the plan will be taken with the next tally.
          <RouterLink :to="`/datasets/${course.id}/tally`">Tally again</RouterLink>.
        </p>
        <el-button v-else-if="course.mayWork" :disabled="draft === null" @click="isChoosing = true">Choose totals</el-button>
      </div>
      <p v-if="data?.since && sinceSaid.length > 0" class="since" :data-tally="id">Since tally {{ data.since.tally }}: <SaidText :said="sinceSaid" />.</p>
      <ProofPanes v-if="data && total && data.items.length > 0" :tally="id" list-label="Totals, those that differ first" is-headed :label="total.heading">
        <template #list>
          <ProofEntry
            v-for="one in data?.items"
            :key="one.number"
            :name="one.heading"
            :about="aboutOf(one)"
            :is-chosen="one === total"
            :is-agreed="isAgreed(one)"
            @choose="chosen = one.number"
          >
            <template v-if="one.isMasked">masked</template>
            <template v-else-if="one.difference === null">
              <FigureValue :name="path(one)" :of="amount(one.source)" /> and <FigureValue :name="path(one)" :of="amount(one.target)" />
            </template>
            <template v-else-if="one.differs"><FigureValue :name="path(one)" :of="signed(one.difference)" /></template>
            <template v-else-if="one.cancelling > 0 || one.cancels">{{ one.only ? 'as many, not the same' : 'agrees, cancels out' }}</template>
            <template v-else><FigureValue :name="path(one)" :of="amount(one.source)" /> agree</template>
          </ProofEntry>
          <WorthOfColumns :tally="id" :dataset="course.id" />
          <p v-if="waiting.length > 0" class="quiet waiting">
            Taken with the next tally: {{ waiting.map(nameOf).join('; ') }}. <RouterLink :to="`/datasets/${course.id}/tally`">Tally again</RouterLink>
          </p>
        </template>
        <h2>
          {{ total.heading }}<template v-if="total.by"> by {{ total.by }}</template>
        </h2>
        <p v-if="total.isMasked">This total is computed from sensitive values, which are masked for you.</p>
        <template v-else>
          <p class="quiet"><SaidText :said="takenOf(total)" /></p>
          <p v-if="since" class="quiet">
            In tally {{ since.tally }} the difference was <span :data-figure="`${item}/before`">{{ signed(since.difference) }}</span>.
          </p>
          <p v-if="total.tooManyGroups">There are more groups than <span data-ordinal>100,000</span>, so none is shown. Choose a coarser column.</p>
          <TotalGroups v-if="total.groups > 0" v-model="group" :tally="id" :total="total" :course="course" />
          <dl v-else-if="total.difference === null">
            <template v-for="side in ['source', 'target'] as const" :key="side">
              <dt :class="side === 'source' ? 'src' : 'tgt'">{{ side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel }}</dt>
              <dd>
                <FigureValue :name="path(total)" :of="amount(total[side])" />
                <template v-if="total.keys[side].length > 0"
                  >, first in the row <RouterLink :to="key(side)" class="cell">{{ total.keys[side].join(', ') }}</RouterLink></template
                >
              </dd>
            </template>
          </dl>
        </template>
        <template v-if="!total.isMasked && total.difference !== null" #aside>
          <ValuesApart v-if="(group ?? total).only" :only="(group ?? total).only ?? nothingApart" :name="path(total)" :where="where" :course="course" />
          <WayBetween
            v-else
            :of="group ?? total"
            :name="path(total)"
            :published-name="group === null ? item : 'proof-groups'"
            :where="where"
            :course="course"
            :tally="id"
          />
          <DeclaredTotals v-if="group === null && total.declared.length > 0" :said="total.declared" :name="item" :labels="course.migration" />
          <el-button v-if="group === null && course.mayWork" size="small" @click="isPublishing = true">Figures that others published</el-button>
          <el-button v-if="group !== null" size="small" @click="group = null">All groups</el-button>
        </template>
      </ProofPanes>
    </LoadState>
    <PublishedDialog v-if="isPublishing && total" :tally="id" :total="total" @close="isPublishing = false" />
    <TotalsDialog
      v-if="isChoosing && draft !== null"
      :draft="draft"
      :columns="columns"
      :course="course"
      :is-saving="saving.isPending.value"
      @update="choose"
      @close="isChoosing = false"
    />
  </main>
</template>

<style scoped>
.station {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
}
.since {
  margin: 0;
  padding: 6px 16px;
  font-size: 13px;
  background: var(--sheet);
  border-block-end: 1px solid var(--line);
  overflow-wrap: anywhere;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
}
dd {
  margin: 0;
}
.empty {
  padding: 16px;
}
</style>
