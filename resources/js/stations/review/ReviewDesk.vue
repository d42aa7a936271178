<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'
import { usePaneSize } from '@/composables/usePaneSize'
import { usePageKeys } from '@/composables/useShortcuts'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import BalanceLine from '@/parts/BalanceLine.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import OverlapBar from '@/parts/OverlapBar.vue'
import PaneDivider from '@/parts/PaneDivider.vue'
import StationHead from '@/parts/StationHead.vue'
import ActsDialog from '@/stations/review/ActsDialog.vue'
import FindingList from '@/stations/review/FindingList.vue'
import FindKey from '@/stations/review/FindKey.vue'
import GroupHead from '@/stations/review/GroupHead.vue'
import KeysDialog from '@/stations/review/KeysDialog.vue'
import PatternList from '@/stations/review/PatternList.vue'
import RecordPane from '@/stations/review/RecordPane.vue'
import RuleAllDialog from '@/stations/review/RuleAllDialog.vue'
import type { RuleOfPattern } from '@/stations/review/ruleOfPattern'
import RulingPanel from '@/stations/review/RulingPanel.vue'
import { type Choice, type Finding, sequenceOfRow } from '@/stations/review/useFindings'
import { type Target, useRulings } from '@/stations/review/useRulings'

const props = defineProps<{ tally: Schemas['Tally']; course: Schemas['Course'] }>()
const route = useRoute()
const router = useRouter()
const id = computed(() => props.tally.id)
const { acts, rule, undo, last } = useRulings(id)

/** A pattern becomes a rule of the draft; Match then shows on its trial what that would change. */
const plan = useDraft(() => props.course)
function makeRule(rule: RuleOfPattern): void {
  const source = pattern.value?.source
  const pair = plan.draft.value?.columnPairs.find((column) => column.source === source)
  if (source === undefined || pair === undefined) return
  const stop = watch(
    () => plan.saving.isPending.value,
    (isSaving) => {
      if (isSaving) return
      stop()
      if (plan.saving.error.value === null) void router.push(`/datasets/${props.course.id}/match`)
    },
  )
  plan.rule(source, rule.apply(pair))
}

// What is looked at stands in the address, so that it can be shared.
const choice = computed<Choice>(() => {
  if (route.query.pattern !== undefined) return { kind: 'cells', pattern: Number(route.query.pattern) }
  return { kind: 'rows', rowClass: (route.query.class as Schemas['RowClass'] | undefined) ?? null }
})
const choose = (query: Record<string, string | number>) =>
  router.replace({ query: { ...(route.query.tally === undefined ? {} : { tally: route.query.tally }), ...query } })

const finding = ref<Finding | null>(null)
const rowSequence = ref<number | null>(null)
const cellSequence = ref<number | null>(null)
/** Null while the finding under the cursor is still on its way: until then there is nothing to rule on. */
function look(found: Finding | null): void {
  finding.value = found
  if (found === null) return
  const isSameRow = rowSequence.value === sequenceOfRow(found)
  rowSequence.value = sequenceOfRow(found)
  if (found.kind === 'cell') cellSequence.value = found.cell.sequence
  else if (!isSameRow) cellSequence.value = null
}
watch(choice, () => {
  finding.value = null
  rowSequence.value = null
})

const {
  data: record,
  error: recordError,
  isPending: recordIsLoading,
} = useQuery({
  queryKey: ['tally', id, 'record', rowSequence],
  queryFn: ({ signal }) =>
    answer(api.GET('/tallies/{tally}/records/{sequence}', { params: { path: { tally: id.value, sequence: rowSequence.value ?? 0 } }, signal })),
  enabled: () => rowSequence.value !== null,
})

const pattern = computed(() =>
  choice.value.kind === 'cells' ? props.tally.patterns.find((one) => choice.value.kind === 'cells' && one.number === choice.value.pattern) : undefined,
)
const group = computed<(Target & { standing: Schemas['Standing'] }) | null>(() => {
  if (pattern.value !== undefined) return { scope: 'pattern', target: String(pattern.value.number), standing: pattern.value.standing }
  const rowClass = choice.value.kind === 'rows' ? choice.value.rowClass : null
  const found = props.tally.classes.find((one) => one.class === rowClass)
  return found === undefined ? null : { scope: 'class', target: found.class, standing: found.standing }
})

/** The finding that a ruling is about: the cell that is looked at, the first that differs, or the row. */
const target = computed<Target | null>(() => {
  if (finding.value === null) return null
  if (finding.value.kind === 'row' && finding.value.row.class !== 'changed') return { scope: 'row', target: String(finding.value.row.sequence) }
  if (cellSequence.value !== null) return { scope: 'cell', target: String(cellSequence.value) }
  // The cells of a changed row come with its record.
  if (record.value === undefined || record.value.sequence !== rowSequence.value) return null
  const cell = record.value.fields.find((field) => field.finding !== null)?.finding?.sequence
  return cell === undefined ? null : { scope: 'cell', target: String(cell) }
})

const reason = ref('')
const isRulingOnAll = ref(false)
const isShowingActs = ref(false)
const isShowingKeys = ref(false)
const ASK_ABOVE = 100
const pending = ref<Schemas['Decision'] | null>(null)

function ruleOnOne(decision: Schemas['Decision']): void {
  if (target.value !== null && props.course.mayRule) {
    rule.mutate({ ...target.value, decision, reason: reason.value })
  }
}
function ruleOnAll(decision: Schemas['Decision'], why: string = reason.value): void {
  if (group.value !== null) {
    rule.mutate({ scope: group.value.scope, target: group.value.target, decision, reason: why })
  }
  isRulingOnAll.value = false
}
function askOrRuleOnAll(decision: Schemas['Decision']): void {
  if (group.value === null || !props.course.mayRule) return
  if (group.value.standing.findings > ASK_ABOVE) {
    pending.value = decision
    isRulingOnAll.value = true
  } else {
    ruleOnAll(decision)
  }
}
function openAll(): void {
  pending.value = null
  isRulingOnAll.value = true
}

const patternsPane = usePaneSize('patterns', 262, 180, 420)
const recordPane = usePaneSize('record', 372, 240, 640)
const list = ref<InstanceType<typeof FindingList> | null>(null)
const findKey = ref<InstanceType<typeof FindKey> | null>(null)
async function lookAtKey(sequence: number): Promise<void> {
  await choose({})
  await nextTick()
  list.value?.goTo(sequence - 1)
}
usePageKeys({ '/': () => findKey.value?.focus(), '?': () => (isShowingKeys.value = true) })

const note = computed(() => `tally ${props.tally.number}, ${moment(props.tally.finishedAt)}, plan ${props.tally.planVersion}`)
const undoError = computed(() => rule.error.value ?? undo.error.value)
</script>

<template>
  <div class="desk">
    <StationHead heading="What differs, and why" :note="note">
      <FindKey ref="findKey" :tally="tally.id" :columns="tally.keyColumns" @found="lookAtKey" />
      <el-button @click="isShowingActs = true">Rulings so far</el-button>
      <el-button v-if="group && course.mayRule" type="primary" @click="openAll">Rule on all {{ count(group.standing.findings) }}</el-button>
    </StationHead>
    <div v-if="tally.findings === 0" class="empty">
      <h2>Nothing to explain</h2>
      <p>Every row met its counterpart and every compared cell is identical. The figures stand below and in the report.</p>
    </div>
    <div v-else class="panes" :style="{ '--patterns': `${patternsPane.width.value}px`, '--record': `${recordPane.width.value}px` }">
      <PatternList :class="{ folded: patternsPane.isFolded.value }" :tally="tally" :choice="choice" @choose="choose" />
      <PaneDivider :pane="patternsPane" label="Width of the patterns" side="before" />
      <div class="list">
        <GroupHead :tally="tally" :choice="choice" :pattern="pattern" :standing="group?.standing ?? null" :may-work="course.mayWork" @make-rule="makeRule" />
        <ErrorNote :error="undoError ?? plan.saving.error.value" />
        <p v-if="last" class="done" role="status">
          Ruled {{ last.decision }} on {{ counted(last.findings, 'finding') }}.
          <el-button link :loading="undo.isPending.value" @click="undo.mutate(last.id)">Undo</el-button>
        </p>
        <FindingList ref="list" :tally="tally" :choice="choice" @look="look" @rule="ruleOnOne" @rule-all="askOrRuleOnAll" />
      </div>
      <PaneDivider :pane="recordPane" label="Width of the record" side="after" />
      <div class="side" :class="{ folded: recordPane.isFolded.value }">
        <RecordPane
          :record="record"
          :error="recordError"
          :is-loading="recordIsLoading && rowSequence !== null"
          :course="course"
          :cell="target?.scope === 'cell' ? Number(target.target) : null"
          @look="cellSequence = $event"
        />
        <RulingPanel v-if="course.mayRule" v-model:reason="reason" :target="target" :group="group" :is-busy="rule.isPending.value" @rule="ruleOnOne" />
      </div>
    </div>
    <footer>
      <BalanceLine :rows="tally.rows" :chosen="choice.kind === 'rows' ? choice.rowClass : null" @choose="choose({ class: $event })" />
      <OverlapBar :rows="tally.rows" :width="260" />
    </footer>
    <RuleAllDialog v-if="group" v-model="isRulingOnAll" :group="group" :decision="pending" :reason="reason" @rule="ruleOnAll" />
    <ActsDialog v-model="isShowingActs" :acts="acts.data.value?.items ?? []" :tally="tally" :may-rule="course.mayRule" @undo="undo.mutate($event)" />
    <KeysDialog v-model="isShowingKeys" />
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-block-size: 0;
}
.panes {
  display: grid;
  grid-template-columns: var(--patterns) 1px minmax(0, 1fr) 1px var(--record);
  min-block-size: 0;
}
.list,
.side {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
}
.list {
  background: var(--floor);
}
.folded {
  overflow: hidden;
  visibility: hidden;
}
.done {
  margin: 0;
  padding: 4px 14px;
  background: var(--mark);
  font-size: 13px;
}
.empty {
  padding: 24px;
}
footer {
  border-block-start: 1px solid var(--line);
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 14px;
  padding: 3px 14px;
  min-block-size: 46px;
}
@media (width < 1100px) {
  .panes {
    grid-template-columns: min(var(--patterns), 22vw) 1px minmax(0, 1fr) 1px min(var(--record), 33vw);
  }
}
@media (width < 900px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    min-block-size: 60vh;
  }
  .folded {
    visibility: visible;
  }
  footer {
    flex-wrap: wrap;
  }
  .list {
    block-size: 60vh;
  }
}
</style>
