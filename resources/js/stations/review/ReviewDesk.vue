<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { isLeaving } from '@/composables/onTheWay'
import { useFirstFrame } from '@/composables/useFirstFrame'
import { usePaneSize } from '@/composables/usePaneSize'
import { usePeople } from '@/composables/usePeople'
import { usePageKeys } from '@/composables/useShortcuts'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import AgreementLine from '@/parts/AgreementLine.vue'
import BalanceLine from '@/parts/BalanceLine.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import OverlapBar from '@/parts/OverlapBar.vue'
import PaneDivider from '@/parts/PaneDivider.vue'
import StationHead from '@/parts/StationHead.vue'
import ActsDialog from '@/stations/review/ActsDialog.vue'
import CommentsPanel, { type CommentSubject } from '@/stations/review/CommentsPanel.vue'
import FilterBar from '@/stations/review/FilterBar.vue'
import FindingList from '@/stations/review/FindingList.vue'
import FindKey from '@/stations/review/FindKey.vue'
import ForgivenList from '@/stations/review/ForgivenList.vue'
import GroupHead from '@/stations/review/GroupHead.vue'
import PatternList from '@/stations/review/PatternList.vue'
import RecordPane from '@/stations/review/RecordPane.vue'
import RuleAllDialog from '@/stations/review/RuleAllDialog.vue'
import RulingPanel from '@/stations/review/RulingPanel.vue'
import { useBeside, useSaysWhy } from '@/stations/review/useBeside'
import { useDesk } from '@/stations/review/useDesk'
import { recordOfKey } from '@/stations/review/useForgiven'
import { isUnsaid, useFilter } from '@/stations/review/useFilter'
import { sequenceOf } from '@/stations/review/useFindings'
import { useOpened } from '@/stations/review/useOpened'
import { usePatternRule } from '@/stations/review/usePatternRule'
import { type Holds, useRulings, type Why } from '@/stations/review/useRulings'
import { useRulingOnMany } from '@/stations/review/useRulingOnMany'
import { useWhy } from '@/stations/review/useWhy'
import { useOrder } from '@/stations/review/useOrder'
import { useWorth } from '@/composables/useWorth'
import WeightPicture from '@/stations/review/WeightPicture.vue'
import WorthLine from '@/stations/review/WorthLine.vue'

const props = defineProps<{ tally: Schemas['Tally']; course: Schemas['Course'] }>()
const tally = computed(() => props.tally)
const { filter, set, choose, narrow, widen, forgiven, chooseForgiven } = useFilter()
const { order, setOrder } = useOrder()
const { worth, error: worthError } = useWorth(
  computed(() => props.tally.id),
  filter,
)
/** The list of what a rule let pass that is looked at. */
const pass = computed(() => props.tally.forgiven.find(({ number }) => number === forgiven.value))
const { acts, rule, undo, last } = useRulings(computed(() => props.tally.id))
const people = usePeople(() => props.course.migration.id)
/** To answer is to rule. */
const askable = computed(() => people.value.filter(({ mayRule }) => mayRule))

const list = ref<InstanceType<typeof FindingList> | null>(null)
const ticked = ref<ReadonlySet<number>>(new Set())
const total = computed(() => list.value?.total ?? null)
const { look, finding, record, rowSequence, cellSequence, pattern, standing, all, target } = useDesk(tally, filter, ticked, total)

const beside = useBeside(() => props.course.id)
const saysWhy = useSaysWhy(() => props.course.id)
const columns = computed(() => [
  ...new Set([...beside.value, ...(record.data.value?.fields.filter(({ role }) => role !== 'key').map(({ source, target }) => source ?? target ?? '') ?? [])]),
])

/** What is ruled is ruled on the newest tally. */
const isNewest = computed(() => props.course.tally === null || props.course.tally.id === props.tally.id)
const mayRule = computed(() => props.course.mayRule && isNewest.value && props.course.tally?.signed.isClosed !== true)
const { why, isPinned, waiting, recent, decide, confirm, cancel, said } = useWhy(
  () => props.course.id,
  (decision, onAll, reason) => (onAll ? ruleOnAll(decision, reason) : ruleOnTarget(decision, reason)),
)
/** Another finding is another question. */
watch([rowSequence, cellSequence, filter], cancel)
/** Whoever rules goes on in the list. */
function backToList(end: () => void): void {
  end()
  if (waiting.value === null) list.value?.focus()
}
const isShowingActs = ref(false)
function ruleOnTarget(decision: Schemas['Decision'], reason: Why): void {
  if (target.value === null || !mayRule.value) return
  rule.mutate({ ...target.value, ...reason, decision }, { onSuccess: () => (ticked.value = new Set()) })
}
function ruleOnAll(decision: Schemas['Decision'], reason: Why, holds: Holds = {}): void {
  if (all.value !== null) rule.mutate({ ...all.value.about, ...reason, ...holds, decision })
  isRulingOnAll.value = false
}
function ruleAsAsked(decision: Schemas['Decision'], reason: Why, holds: Holds): void {
  ruleOnAll(decision, reason, holds)
  said(reason.reason)
}
/** By a key or a button: nothing is decided about while nothing is looked at. */
function decideOnTarget(decision: Schemas['Decision']): void {
  if (target.value !== null && mayRule.value) decide(decision, false)
}
const {
  isAsking: isRulingOnAll,
  pending,
  ask,
  askOrRule: askOrRuleOnAll,
} = useRulingOnMany(
  all,
  () => mayRule.value,
  (decision) => decide(decision, true),
)
function showAct(act: Schemas['Ruling']): void {
  isShowingActs.value = false
  void set({ of: act.scope === 'row' || act.scope === 'class' || act.filter?.of === 'rows' ? 'rows' : 'cells', act: act.id })
}

const { makeRule, error: ruleError } = usePatternRule(
  () => props.course,
  () => pattern.value,
)

const subjects = computed<CommentSubject[]>(() => {
  const said: CommentSubject[] = []
  const about = target.value
  if (about !== null && about.scope !== 'selection' && about.scope !== 'filter') {
    if (about.scope === 'row' || about.scope === 'cell') said.push({ kind: about.scope, target: about.target, words: `this ${about.scope}` })
  }
  if (pattern.value !== undefined) said.push({ kind: 'pattern', target: String(pattern.value.number), words: 'this pattern' })
  else if (filter.value.class !== undefined) said.push({ kind: 'class', target: filter.value.class, words: 'this class' })
  return said
})

/** The list comes first. */
const isDrawn = useFirstFrame()
const patternsPane = usePaneSize('patterns', 240, 180, 420)
const recordPane = usePaneSize('record', 344, 240, 640)
/** On a low window the list has its room, until somebody asks for the chart. */
const pictured = localStorage.getItem('nine-tally:picture')
const isPictured = ref(pictured === null ? innerHeight >= 760 : pictured === 'on')
watch(isPictured, (on) => localStorage.setItem('nine-tally:picture', on ? 'on' : 'off'))
/** Who looks for a masked key would learn it from what is found. */
const areKeysMasked = computed(() => props.tally.keyColumns.some((column) => props.course.sensitive?.masked.includes(column) === true))
const findKey = ref<InstanceType<typeof FindKey> | null>(null)
const bar = ref<HTMLElement | null>(null)
/** A row that agrees is looked at until another finding is. */
const agreed = ref<Schemas['Record'] | null>(null)
watch(rowSequence, () => (agreed.value = null))
watch([filter, forgiven], () => (agreed.value = null))
const lookError = ref<Error | null>(null)
async function lookAtForgiven(key: string): Promise<void> {
  lookError.value = null
  try {
    agreed.value = await recordOfKey(props.tally.id, key)
  } catch (problem) {
    lookError.value = problem instanceof Error ? problem : new Error(String(problem))
  }
}
async function lookAtKey(sequence: number): Promise<void> {
  await set({ of: 'rows' })
  await nextTick()
  list.value?.goTo(sequence - 1)
}
/** Values that differ, or that one side has alone, in all columns; what went with its row is looked at where no other is. */
function lookAtKind(kind: 'differing' | 'lost' | 'added'): void {
  const cellClass = ({ differing: 'changed', lost: 'blanked', added: 'filled' } as const)[kind]
  const hasCells = props.tally.patterns.some((one) => one.class === cellClass)
  void choose(hasCells ? { of: 'cells', cellClass } : { class: kind === 'lost' ? 'missing' : 'extra' })
}
/** Missing rows and extra ones may be the same, with keys that differ. */
const hasBothAlone = computed(() => props.tally.rows.source.missing > 0 && props.tally.rows.target.extra > 0)
const route = useRoute()
// An address may name the finding that it is about, by its place in the list.
watch(total, (known) => {
  if (known === null || typeof route.query.at !== 'string') return
  const place = Number(route.query.at)
  if (Number.isInteger(place) && place >= 1 && place <= known) void nextTick(() => list.value?.goTo(place - 1))
})
const opened = computed(() => (finding.value === null ? null : sequenceOf(finding.value)))
// Whoever comes without a filter begins with what weighs most and is still open.
const largest = computed(() => [...props.tally.patterns].filter(({ standing: { open } }) => open > 0).sort((one, other) => other.cells - one.cells)[0])
const begun = isUnsaid(route.query) && largest.value !== undefined && !isLeaving(route.path) ? set({ pattern: largest.value.number }, true) : Promise.resolve()
useOpened(tally, filter, opened, (index) => list.value?.goTo(index), begun)
onMounted(() => {
  if (typeof route.query.row === 'string' && !areKeysMasked.value) findKey.value?.lookFor(route.query.row)
})
usePageKeys({
  '/': () => findKey.value?.focus(),
  f: () => bar.value?.querySelector<HTMLElement>('input')?.focus(),
})

/** Where the panes stand below each other, each is a press away. */
const PLACES = { Patterns: '.patterns', Findings: '.list', Record: '.side' } as const
const goOn = (place: string): void => desk.value?.querySelector(`.panes ${place}`)?.scrollIntoView({ block: 'start' })
const desk = ref<HTMLElement | null>(null)
const note = computed(
  () =>
    `tally ${props.tally.number}${props.tally.name === '' ? '' : ` (${props.tally.name})`}, ${moment(props.tally.finishedAt)}, plan ${props.tally.planVersion}`,
)
</script>

<template>
  <div ref="desk" class="desk" :data-tally="tally.id">
    <StationHead heading="What differs, and why" :words="['finding', 'pattern', 'family', 'act of ruling']" :note="note">
      <FindKey ref="findKey" :tally="tally.id" :columns="tally.keyColumns" :are-masked="areKeysMasked" @found="lookAtKey" @agreeing="agreed = $event" />
      <el-button :aria-pressed="isPictured" @click="isPictured = !isPictured">{{ isPictured ? 'Hide the chart' : 'Chart' }}</el-button>
      <el-button @click="isShowingActs = true">Rulings so far</el-button>
      <RouterLink class="button" :to="`/datasets/${course.id}/defects`">Defects</RouterLink>
      <el-button v-if="mayRule && !pass" type="primary" :disabled="all === null" @click="ask(null)"
        ><span>Rule on all <FigureValue v-if="all" name="findings/total" :of="all.findings" /></span
      ></el-button>
    </StationHead>
    <p v-if="!isNewest && course.tally" class="older" role="status">
      This is an older tally, as it was. What is decided is decided on the newest:
      <RouterLink :to="`/datasets/${course.id}/review`">open tally {{ course.tally.number }}</RouterLink>
    </p>
    <p v-else-if="course.tally?.signed.isClosed" class="older" role="status">
      This tally is signed ({{ course.tally.signed.state }}), so rulings on it are closed:
      <RouterLink :to="`/datasets/${course.id}/sign`">see who signed</RouterLink>
    </p>
    <AgreementLine
      v-if="tally.values"
      class="agreement"
      :values="tally.values"
      :of-arrived="tally.figures.ofArrived"
      :rows-arrived="tally.figures.rowsArrived"
      is-pressed
      @look="lookAtKind"
    >
      <FigureValue name="rows/source/prepared" :of="tally.rows.source.prepared" /> source rows against
      <FigureValue name="rows/target/prepared" :of="tally.rows.target.prepared" />:
    </AgreementLine>
    <div v-if="tally.findings === 0 && tally.forgiven.length === 0" class="empty">
      <h2>Nothing to explain</h2>
      <p>Every row met its counterpart and every compared cell is identical. The figures stand below and in the report.</p>
    </div>
    <template v-else>
      <nav class="way" aria-label="On this page">
        <button v-for="(place, name) in PLACES" :key="name" type="button" class="plain" @click="goOn(place)">{{ name }}</button>
      </nav>
      <WeightPicture v-if="isPictured" :tally="tally" :filter="filter" @choose="choose" />
      <div class="panes" :style="{ '--patterns': `${patternsPane.width.value}px`, '--record': `${recordPane.width.value}px` }">
        <PatternList
          :class="{ closed: patternsPane.isClosed.value }"
          :tally="tally"
          :filter="filter"
          :forgiven="pass?.number ?? null"
          @choose="choose"
          @choose-forgiven="chooseForgiven"
        >
          <RouterLink class="repeats" :to="`/datasets/${course.id}/repeats`">Which rows repeat, and how</RouterLink>
          <RouterLink class="repeats" :to="`/datasets/${course.id}/row-lists`">Which rows stand where</RouterLink>
          <RouterLink class="repeats" :to="`/datasets/${course.id}/near-values`">Values that may mean the same</RouterLink>
          <RouterLink v-if="hasBothAlone" class="repeats" :to="`/datasets/${course.id}/near-keys`">Missing and extra rows that may be the same</RouterLink>
        </PatternList>
        <PaneDivider :pane="patternsPane" label="Width of the patterns" side="before" />
        <div v-if="pass" class="list">
          <ErrorNote :error="lookError" />
          <ForgivenList :tally="tally" :pass="pass" @look="lookAtForgiven" />
        </div>
        <div v-else class="list">
          <GroupHead
            :tally="tally"
            :filter="filter"
            :pattern="pattern"
            :standing="standing"
            :total="total"
            :may-work="course.mayWork"
            :columns="columns"
            :beside="beside"
            :order="order"
            @make-rule="makeRule"
            @narrow="narrow"
          />
          <div ref="bar" class="room">
            <FilterBar
              v-if="isDrawn"
              v-model:beside="beside"
              v-model:says-why="saysWhy"
              :columns="columns"
              :tally="tally"
              :masked="course.sensitive?.masked ?? []"
              :filter="filter"
              :may-keep="course.mayRule"
              @narrow="narrow"
              @widen="widen"
              @set="set"
            />
          </div>
          <WorthLine :worth="worth" :error="worthError" :filter="filter" :order="order" @narrow="narrow" @widen="widen" @order="setOrder" />
          <ErrorNote :error="rule.error.value ?? undo.error.value ?? ruleError" />
          <p v-if="last" class="done" role="status">
            Ruled {{ last.decision }} on {{ counted(last.findings, 'finding') }}.
            <el-button link :loading="undo.isPending.value" @click="undo.mutate(last.id)">Undo</el-button>
          </p>
          <p v-if="ticked.size > 0" class="done" role="status">
            {{ counted(ticked.size, 'finding') }} chosen.
            <el-button link @click="ticked = new Set()">Choose none</el-button>
          </p>
          <FindingList
            ref="list"
            v-model:ticked="ticked"
            :tally="tally"
            :filter="filter"
            :beside="beside"
            :says-why="saysWhy"
            :order="order"
            :says-difference="worth.length > 0"
            @look="look"
            @rule="decideOnTarget"
            @rule-all="askOrRuleOnAll"
          >
            <template #none
              >Widen the filter, or <button type="button" class="plain" @click="set({ of: 'rows' })">look at all that does not agree</button>.</template
            >
          </FindingList>
        </div>
        <PaneDivider :pane="recordPane" label="Width of the record" side="after" />
        <div class="side" :class="{ closed: recordPane.isClosed.value }">
          <template v-if="isDrawn">
            <RecordPane
              :record="agreed ?? (pass ? undefined : record.data.value)"
              :error="record.error.value"
              :is-loading="record.isPending.value && rowSequence !== null"
              :course="course"
              :tally="tally.number"
              :tally-id="tally.id"
              :cell="target?.scope === 'cell' ? Number(target.target) : null"
              @look="cellSequence = $event"
              @narrow="narrow"
            />
            <CommentsPanel :may-write="course.mayComment" :tally="tally" :subjects="agreed === null ? subjects : []" :people="people" />
            <RulingPanel
              v-if="mayRule && !pass"
              v-model:why="why"
              v-model:pinned="isPinned"
              :waiting="waiting"
              :recent="recent"
              :target="agreed === null ? target : null"
              :chosen="ticked.size"
              :all="all?.words ?? null"
              :people="askable"
              :is-busy="rule.isPending.value"
              @decide="decideOnTarget"
              @confirm="backToList(confirm)"
              @cancel="backToList(cancel)"
            />
          </template>
        </div>
      </div>
    </template>
    <footer>
      <BalanceLine :rows="tally.rows" :chosen="filter.class ?? null" @choose="choose({ class: $event })" />
      <OverlapBar :rows="tally.rows" :width="260" />
    </footer>
    <template v-if="isDrawn">
      <RuleAllDialog
        v-if="all"
        v-model="isRulingOnAll"
        :tally="tally.id"
        :words="all.words"
        :pattern="all.about.scope === 'pattern' ? (pattern?.number ?? null) : null"
        :cells="pattern?.cells ?? 0"
        :findings="all.findings"
        :decision="pending"
        :why="why"
        :people="askable"
        @rule="ruleAsAsked"
      />
      <ActsDialog v-model="isShowingActs" :acts="acts.data.value?.items ?? []" :tally="tally" :may-rule="mayRule" @undo="undo.mutate($event)" @show="showAct" />
    </template>
  </div>
</template>

<style scoped>
.repeats {
  display: block;
  padding: 4px 14px 8px 44px;
  font-size: 13px;
  color: inherit;
}
.desk {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
}
.older {
  margin: 0;
  padding: 6px 16px;
  background: var(--warn);
  font-size: 13px;
}
.agreement {
  padding: 5px 16px;
  border-block-end: 1px solid var(--line);
}
.panes {
  flex: 1;
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
.room {
  min-block-size: 36px;
}
.closed {
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
  flex: 1;
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
.way {
  display: none;
}
@media (width < 1100px) {
  .panes {
    grid-template-columns: min(var(--patterns), 18vw) 1px minmax(0, 1fr) 1px min(var(--record), 29vw);
  }
}
@media (width < 900px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
  .way {
    display: flex;
    gap: 14px;
    position: sticky;
    inset-block-start: 0;
    z-index: 2;
    padding: 6px 16px;
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
    font-size: 13px;
    overflow-x: auto;
  }
  .way button {
    min-block-size: 24px;
    text-decoration: underline;
    white-space: nowrap;
  }
  .panes > :first-child {
    max-block-size: 45vh;
  }
  .closed {
    visibility: visible;
  }
  footer {
    flex-wrap: wrap;
  }
  .list {
    block-size: max(70vh, 380px);
  }
}
</style>
