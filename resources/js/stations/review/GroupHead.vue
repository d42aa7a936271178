<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { useAskForWorkbook } from '@/composables/useWorkbooks'
import { count } from '@/format/counts'
import { nearDifference, type Stretch } from '@/format/difference'
import { figure, figures, joined, named, type Said } from '@/format/said'
import CellValue from '@/parts/CellValue.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import RepeatsLine from '@/parts/RepeatsLine.vue'
import SaidText from '@/parts/SaidText.vue'
import { type Filter, isOfCells, said, takenFrom, wholeOf } from '@/stations/review/filter'
import CountsByColumn from '@/stations/review/CountsByColumn.vue'
import PatternRulesDialog from '@/stations/review/PatternRulesDialog.vue'
import { type Order, ORDERS } from '@/stations/review/useOrder'
import type { RuleOfPattern } from '@/stations/review/ruleOfPattern'

const props = defineProps<{
  tally: Schemas['Tally']
  filter: Filter
  pattern: Schemas['Pattern'] | undefined
  standing: Schemas['Standing'] | null
  /** findings of the filter; null while they are counted */
  total: number | null
  mayWork: boolean
  /** of the rows */
  columns: readonly string[]
  /** columns that were added to the list */
  beside: readonly string[]
  order: Order | null
}>()
const emit = defineEmits<{ makeRule: [rule: RuleOfPattern]; narrow: [terms: Filter] }>()
const isMakingRule = ref(false)
const EXAMPLES = 3
const LONGEST = 24

const sentences: Record<Schemas['RowClass'], string> = {
  missing: 'In the source, and no row of the target has their key.',
  extra: 'In the target, and no row of the source has their key.',
  repeated: 'Share their key with another row on at least one side, and are compared with none.',
  unkeyed: 'Every cell of the key is blank, so there is nothing to meet by.',
  refused: 'Could not be read as rows. They are put right in a new delivery.',
  changed: 'Met their counterpart, and at least one compared cell differs.',
}
const sentence = computed(() => {
  if (isOfCells(props.filter)) return `Cells that differ, ${props.order === null ? 'in the order of the source' : ORDERS[props.order].toLowerCase()}.`
  return props.filter.class === undefined
    ? 'Every row that does not agree, in the order of the source; then those that only the target has.'
    : sentences[props.filter.class]
})
/** Examples stand in a sentence, so they are cut at both ends. */
function shorten(stretches: Stretch[]): Stretch[] {
  let room = LONGEST
  return stretches.flatMap((stretch) => {
    const text = room <= 0 ? '' : stretch.text.length > room ? `${stretch.text.slice(0, room)}…` : stretch.text
    room -= stretch.text.length
    return text === '' ? [] : [{ text, differs: stretch.differs }]
  })
}
const marked = (pair: Schemas['ValuePair']): { source: Stretch[]; target: Stretch[] } => {
  const near = nearDifference(pair.source, pair.target)
  return { source: shorten(near.source), target: shorten(near.target) }
}
const examples = computed(() => (props.pattern?.examples ?? []).slice(0, EXAMPLES).map(marked))

// Which values became which, each with its cells: asked for when somebody wants to see it.
const isListing = ref(false)
const isCounting = ref(false)
const countable = computed(() => [...new Set([...props.tally.keyColumns, ...props.columns])])
watch(
  () => props.pattern?.number,
  () => (isListing.value = false),
)
/** What the filter says beside the pattern. */
const termsBeside = computed<Filter>(() => Object.fromEntries(Object.entries(props.filter).filter(([term]) => term !== 'pattern' && term !== 'of')))
const pairs = useQuery({
  queryKey: ['tally', () => props.tally.id, 'value-pairs', () => props.pattern?.number, () => termsBeside.value],
  queryFn: ({ signal }) =>
    answer(
      api.GET('/tallies/{tally}/patterns/{number}/value-pairs', {
        params: { path: { tally: props.tally.id, number: props.pattern?.number ?? 0 }, query: termsBeside.value },
        signal,
      }),
    ),
  enabled: () => isListing.value && props.pattern !== undefined,
})
const take = (as: 'csv' | 'json-lines' | 'schema'): string => takenFrom(props.tally.id, props.filter, as, isOfCells(props.filter) ? props.beside : [])
const workbook = useAskForWorkbook(() =>
  answer(
    api.POST('/tallies/{tally}/findings/workbook', {
      params: { path: { tally: props.tally.id }, query: { ...said(props.filter), 'beside[]': isOfCells(props.filter) ? [...props.beside] : [] } },
    }),
  ),
)
const ruled = computed<Said>(() => {
  const { standing, total } = props
  if (standing === null) return total === null ? ['counting …'] : figures('findings/total', total, isOfCells(props.filter) ? 'cell' : 'row')
  const whole = wholeOf(props.filter)
  const within = whole?.scope === 'pattern' ? ['tally', 'patterns', whole.target] : ['tally', 'classes', whole?.target ?? '']
  const decisions = (['expected', 'defect', 'ask', 'open'] as const).filter((decision) => standing[decision] > 0)
  return joined(decisions.map((decision): Said => [figure(named(...within, 'standing', decision), standing[decision]), ` ${decision}`]))
})
</script>

<template>
  <div class="head">
    <p v-if="pattern" class="sentence">
      <b>{{ pattern.source }}</b>: <span data-sentence="patterns">{{ pattern.sentence }}</span>.
      <template v-for="(example, position) in examples" :key="position"
        ><template v-if="position > 0">, </template><CellValue :stretches="example.source" side="source" /> became
        <CellValue :stretches="example.target" side="target"
      /></template>
      <template v-if="pattern.examples.length > EXAMPLES"> and more</template><template v-if="examples.length > 0">.</template>
    </p>
    <p v-else>{{ sentence }}</p>
    <RepeatsLine v-if="filter.class === 'repeated' && tally.repeats" :repeats="tally.repeats" />
    <div class="acts">
      <span class="quiet" role="status"><SaidText :said="ruled" /></span>
      <el-button v-if="pattern" link size="small" :aria-expanded="isListing" @click="isListing = !isListing">{{
        isListing ? 'Hide the value pairs' : 'Which value became which'
      }}</el-button>
      <el-button link size="small" :aria-expanded="isCounting" @click="isCounting = !isCounting">{{
        isCounting ? 'Hide the counts' : 'Count by column'
      }}</el-button>
      <el-button v-if="pattern && mayWork" link size="small" @click="isMakingRule = true">Make a rule of it</el-button>
      <span class="quiet take"
        >Download these {{ isOfCells(filter) ? 'cells' : 'rows' }} as <a :href="take('csv')" download>CSV</a>,
        <a :href="take('json-lines')" download>JSON Lines</a> or
        <button type="button" class="plain as-link" :disabled="workbook.isPending.value" @click="workbook.mutate()">workbook</button>
        (<a :href="take('schema')" download>description of the columns</a>)</span
      >
    </div>
    <PatternRulesDialog
      v-if="isMakingRule && pattern"
      :tally="tally.id"
      :pattern="pattern"
      @close="isMakingRule = false"
      @make-rule="emit('makeRule', $event)"
    />
    <ErrorNote :error="workbook.error.value" />
    <CountsByColumn v-if="isCounting" :tally="tally" :filter="filter" :columns="countable" @narrow="emit('narrow', $event)" />
    <p v-if="isListing" class="pairs-head quiet"><span>source became target</span><span>cells</span></p>
    <ol v-if="isListing" class="pairs" aria-label="Value pairs">
      <li v-for="(pair, position) in pairs.data.value?.items" :key="position">
        <button type="button" class="plain" @click="emit('narrow', { source: pair.source, target: pair.target })">
          <CellValue :stretches="marked(pair).source" side="source" /> became <CellValue :stretches="marked(pair).target" side="target" />
        </button>
        <b><FigureValue name="value-pairs/items" :of="pair.cells" /></b>
      </li>
      <li v-if="pairs.isPending.value" class="quiet">counting …</li>
      <li v-if="pairs.data.value?.isMasked" class="quiet">the values of this column are masked for you</li>
      <li v-else-if="pairs.data.value && !pairs.data.value.isAll" class="quiet">the most frequent ones among {{ count(pairs.data.value.cellsRead) }} cells</li>
    </ol>
  </div>
</template>

<style scoped>
.head {
  padding: 8px 14px;
  background: #eef2f5;
  border-block-end: 1px solid var(--line);
  font-size: 13.5px;
  display: flex;
  gap: 4px 12px;
  flex-wrap: wrap;
  justify-content: space-between;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
p :deep(.cell) {
  white-space: pre-wrap;
}
.acts {
  flex: 1 0 100%;
  display: flex;
  gap: 2px 14px;
  flex-wrap: wrap;
  align-items: center;
}
.pairs-head {
  flex: 1 0 100%;
  display: flex;
  justify-content: space-between;
  font-size: 12px;
}
.pairs {
  flex: 1 0 100%;
  list-style: none;
  margin: 0;
  padding: 0;
  max-block-size: 180px;
  overflow: auto;
}
.pairs li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  max-inline-size: 460px;
}
.take {
  font-size: 12.5px;
}

/* On a low window the list has the room: the sentence is whole when it is pointed at, and with the record. */
@media (height < 760px) {
  .sentence:not(:hover) {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    overflow: hidden;
  }
}
</style>
