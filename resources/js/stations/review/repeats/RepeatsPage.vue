<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { useDraft } from '@/composables/useDraft'
import { count, counted } from '@/format/counts'
import { ownOf } from '@/format/ownPolicies'
import { formCauses } from '@/format/rules'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import OwnPolicy from '@/stations/review/repeats/OwnPolicy.vue'
import RepeatGroupCard from '@/stations/review/repeats/RepeatGroupCard.vue'
import { kindOf, type Policy } from '@/stations/review/repeats/policies'
import {
  chanceWarning,
  columnOf,
  neighbours,
  partOf,
  partsOf,
  originSentence,
  patternName,
  proposedToLeaveOut,
  sideSentence,
  stakeSentence,
  warnings,
  type Choice,
  type Neighbour,
} from '@/stations/review/repeats/repeats'

/** Rows that share values, both sides next to each other: looked at before anything is taken away. */
const props = defineProps<{ course: Schemas['Course'] }>()
const SECOND = 1000
/** Groups that are listed in an order. */
const MOST = 60
const SIDES = ['source', 'target'] as const
const FORGIVABLE = formCauses.filter(({ cause }) => !['yes-no-form', 'blank-token'].includes(cause))
const ORDERS = [
  { id: 'oneSide', name: 'Repeat here, do not exist there' },
  { id: 'size', name: 'Largest groups' },
  { id: 'stake', name: 'Most at stake' },
  { id: 'differing', name: 'Most columns differ' },
] as const

/** None: the columns of the key. */
const columns = ref<string[]>([])
const forgives = ref<Schemas['FormCause'][]>([])
const except = ref<Record<Side, string[]>>({ source: [], target: [] })
const stake = ref('')
/** Parts of values that rows share too, by their ids. */
const parts = ref<string[]>([])
const isPrepared = ref(true)
const shown = ref<string>('')
const isAll = ref(false)

const asked = computed(() => ({
  columns: columns.value,
  forgives: forgives.value,
  except: except.value,
  stake: stake.value === '' ? null : stake.value,
  parts: parts.value.map(partOf),
  isPrepared: isPrepared.value,
}))
const { data, error, isPending, refetch } = useQuery({
  queryKey: [
    'dataset',
    () => props.course.id,
    'repeats',
    () => props.course.source?.id,
    () => props.course.target?.id,
    columns,
    forgives,
    except,
    stake,
    parts,
    isPrepared,
  ],
  queryFn: ({ signal }) =>
    answer(
      api.POST('/datasets/{dataset}/repeat-looks', {
        params: { path: { dataset: props.course.id } },
        body: asked.value,
        signal,
      }),
    ),
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND / 2 : false),
  placeholderData: keepPreviousData,
  retry: false,
})
const found = computed(() => data.value?.found ?? null)
const isWaiting = computed(() => data.value?.isWaiting === true)
const done = computed(() => (data.value === undefined || data.value.total === 0 ? 0 : Math.floor((100 * data.value.done) / data.value.total)))
const shared = computed<Record<Side, string[]>>(() => ({
  source: (data.value?.chosen ?? []).map(({ source }) => source),
  target: (data.value?.chosen ?? []).map(({ target }) => target),
}))
const label = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const other = (side: Side): Side => (side === 'source' ? 'target' : 'source')
const hasGroups = computed(() => found.value !== null && found.value.figures.source.groups + found.value.figures.target.groups > 0)
const orders = computed(() => ORDERS.filter(({ id }) => (found.value?.orders[id].length ?? 0) > 0))
const patterns = computed(() => (found.value?.patterns ?? []).map((pattern) => ({ ...pattern, id: `${pattern.side} ${JSON.stringify(pattern.columns)}` })))
/** What was looked at may be gone when something else is asked. */
watch([orders, patterns], () => {
  const known = [...orders.value.map(({ id }) => id as string), ...patterns.value.map(({ id }) => id)]
  if (!known.includes(shown.value)) shown.value = known[0] ?? ''
})
const groups = computed(() => {
  const order = orders.value.find(({ id }) => id === shown.value)
  const places = order !== undefined ? (found.value?.orders[order.id] ?? []) : (patterns.value.find(({ id }) => id === shown.value)?.largest ?? [])
  return places.flatMap((place) => {
    const group = found.value?.groups[place]
    return group === undefined ? [] : [{ place, group }]
  })
})
const ofPattern = computed(() => patterns.value.find(({ id }) => id === shown.value))
const proposed = computed(() =>
  SIDES.flatMap((side) => {
    const one = found.value === null ? null : proposedToLeaveOut(found.value, side, shared.value[side], except.value[side])
    const isOpen = (column: string): boolean => (found.value?.columns[side].includes(column) ?? false) && !except.value[side].includes(column)
    const technical = (data.value?.technical[side] ?? []).filter(({ column }) => column !== one?.column && isOpen(column))
    return [
      ...(one === null ? [] : [{ side, column: one.column, why: `${counted(one.groups, 'group')} differ in ${one.column} alone.` }]),
      ...(hasGroups.value ? technical.map(({ column, reason }) => ({ side, column, why: `${column} has ${reason}.` })) : []),
    ]
  }),
)
const leaveOut = (side: Side, column: string): void => {
  except.value = { ...except.value, [side]: [...except.value[side], column] }
}
const near = computed(() => (found.value === null || isWaiting.value ? [] : neighbours(found.value, data.value?.chosen ?? [])))
/** What one column more or less would give is told from the first rows. */
const isCut = computed(() =>
  SIDES.some((side) => found.value !== null && found.value.beside[side].rows < found.value.figures[side].rows - found.value.figures[side].blank),
)
/** One column more or less; a part of a value goes by itself. */
function lookBeside({ column, isMore }: Neighbour): void {
  const isPart = (name: string): boolean => parts.value.some((id) => columnOf(partOf(id)) === name)
  if (isPart(column)) parts.value = parts.value.filter((id) => columnOf(partOf(id)) !== column)
  else columns.value = [...shared.value.source.filter((name) => name !== column && !isPart(name)), ...(isMore ? [column] : [])]
}
const client = useQueryClient()
/** What was chosen last. */
const said = ref('')
const choosing = useMutation({
  mutationFn: (choice: Choice) =>
    answer(
      api.POST('/datasets/{dataset}/kept-rows', {
        params: { path: { dataset: props.course.id } },
        body: { except: except.value, stake: asked.value.stake, ...choice, seenDraft: data.value?.draft ?? 0 },
      }),
    ),
  onSuccess: (_, { row }) =>
    (said.value = row === null ? 'The choice is taken back.' : 'The row is kept by hand from the next tally on, as long as these rows are the same.'),
  onSettled: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
/** What is decided here is decided of rows that share the key as the plan has it. */
const mayChoose = computed(() => data.value?.mayChoose === true && props.course.mayWork && !choosing.isPending.value)
const { plan, draft, repeat, saving, undo, canUndo } = useDraft(() => props.course)
const policyOf = (side: Side): Policy => draft.value?.sides?.[side]?.repeats ?? { policy: 'set-aside' }
const hasSteps = computed(() => SIDES.some((side) => (draft.value?.sides?.[side]?.preparation ?? []).length > 0))
const partsToChoose = computed(() => partsOf((data.value?.pairs ?? []).map(({ source }) => ({ column: source, kind: looksLike('source', source) }))))
const looksLike = (side: Side, column: string): Schemas['Kind'] => kindOf(plan.data.value?.[side]?.columns.find(({ name }) => name === column)?.examples ?? [])
const choosable = computed<Record<Side, readonly string[]>>(() => ({
  source: (found.value?.columns.source ?? []).filter((name) => !shared.value.source.includes(name)),
  target: (found.value?.columns.target ?? []).filter((name) => !shared.value.target.includes(name)),
}))
</script>

<template>
  <main class="station">
    <StationHead heading="Which rows repeat, and how" :words="['group of repeats']" note="looked at, and left as they are">
      <RouterLink class="button" :to="`/datasets/${course.id}/repeats/policies`">What becomes of them</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <LoadState :is-loading="isPending" :error="error" what="The look at repeats" @retry="refetch()">
      <div class="asked">
        <label
          ><span>Rows that share</span>
          <el-select v-model="columns" multiple filterable class="many" aria-label="Rows that share" :placeholder="shared.source.join(', ') || 'the key'">
            <el-option v-for="pair in data?.pairs" :key="pair.source" :value="pair.source" :label="pair.source" /> </el-select
        ></label>
        <label
          ><span>and parts of values</span>
          <el-select v-model="parts" multiple filterable class="many" aria-label="Parts of values that rows share" placeholder="none">
            <el-option v-for="one in partsToChoose" :key="one.id" :value="one.id" :label="one.name" /> </el-select
        ></label>
        <label
          ><span>whatever differs in</span>
          <el-select v-model="forgives" multiple class="many" aria-label="Differences of form that are ignored" placeholder="nothing">
            <el-option v-for="known in FORGIVABLE" :key="known.cause" :value="known.cause" :label="known.name" /> </el-select
        ></label>
        <label v-for="side in SIDES" :key="side"
          ><span :class="side === 'source' ? 'src' : 'tgt'">copies of the {{ label(side).toLowerCase() }} may differ in</span>
          <el-select v-model="except[side]" multiple filterable class="many" :aria-label="`Copies of the ${label(side)} may differ in`" placeholder="nothing">
            <el-option v-for="name in choosable[side]" :key="name" :value="name" :label="name" /> </el-select
        ></label>
        <label
          ><span>what they add to</span>
          <el-select
            v-model="stake"
            filterable
            clearable
            class="many"
            aria-label="Column whose total the repeats add to"
            placeholder="no column"
            :value-on-clear="''"
          >
            <el-option v-for="pair in data?.pairs" :key="pair.source" :value="pair.source" :label="pair.source" /> </el-select
        ></label>
      </div>
      <p v-if="hasSteps" class="over">
        <el-checkbox :model-value="!isPrepared" size="small" @update:model-value="isPrepared = $event !== true"
          >rows as they were delivered, before any step</el-checkbox
        >
      </p>
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="isWaiting" class="quiet waits" role="status">
        <template v-if="data?.firstRows != null"
          >This is what the first {{ count(data.firstRows) }} rows of each side say. All of them are being looked at: {{ done }} % …</template
        >
        <template v-else>All rows of both sides are being looked at: {{ done }} % …</template>
      </p>
      <p v-if="found !== null && near.length > 0" class="near">
        <span class="quiet"
          >Rows beyond the first of a group, source and target<template v-if="isCut"> (of the first {{ count(found.beside.source.rows) }})</template>:</span
        >
        <button v-for="one in near" :key="`${one.isMore} ${one.column}`" type="button" class="plain" @click="lookBeside(one)">
          {{ one.isMore ? 'with' : 'without' }} {{ one.column }}
          <span class="quiet">{{ count(one.beyond.source) }} and {{ count(one.beyond.target) }}</span>
        </button>
      </p>
      <ErrorNote v-if="choosing.error.value" :error="choosing.error.value" />
      <p v-else-if="said !== ''" class="proposal" role="status">{{ said }}</p>
      <template v-if="found">
        <div class="sides">
          <section v-for="side in SIDES" :key="side" :aria-label="label(side)">
            <h2 :class="side === 'source' ? 'src' : 'tgt'">{{ label(side) }}</h2>
            <p>{{ sideSentence(found.figures[side]) }}</p>
            <p v-if="found.stakes && data?.stake">{{ stakeSentence(data.stake[side], found.stakes[side]) }}</p>
            <p v-if="chanceWarning(found.beside[side]) !== ''" class="warn">{{ chanceWarning(found.beside[side]) }}</p>
            <p v-for="warning in warnings(found.figures[side], label(other(side)))" :key="warning" class="warn">{{ warning }}</p>
            <ul v-if="found.origins[side].length > 0">
              <li v-for="(origin, place) in found.origins[side]" :key="place">{{ originSentence(origin, found.figures[side]) }}</li>
            </ul>
            <p v-for="one in proposed.filter((each) => each.side === side)" :key="one.column" class="proposal">
              {{ one.why }}
              <el-button size="small" @click="leaveOut(side, one.column)">Let copies differ in {{ one.column }}</el-button>
            </p>
          </section>
        </div>
        <p v-if="!hasGroups" class="quiet waits">No two rows of a side share these values: nothing repeats.</p>
        <div v-else class="panes">
          <nav class="patterns" aria-label="Groups of groups">
            <h3>Groups</h3>
            <button v-for="order in orders" :key="order.id" type="button" class="plain" :aria-pressed="shown === order.id" @click="shown = order.id">
              {{ order.name }}
            </button>
            <h3>By the columns in which their rows differ</h3>
            <button v-for="pattern in patterns" :key="pattern.id" type="button" class="plain" :aria-pressed="shown === pattern.id" @click="shown = pattern.id">
              <span
                ><span :class="pattern.side === 'source' ? 'src' : 'tgt'">{{ label(pattern.side) }}</span
                >: {{ patternName(pattern) }}</span
              >
              <span v-if="ownOf(policyOf(pattern.side), pattern.columns)" class="ruled">has a policy of its own</span>
              <span class="quiet"
                >{{ counted(pattern.groups, 'group') }}, {{ counted(pattern.rows, 'row') }}, {{ count(pattern.beyondFirst) }} beyond the first</span
              >
            </button>
          </nav>
          <section class="groups" aria-label="Groups of rows">
            <p class="quiet over">
              <template v-if="ofPattern && ofPattern.groups > groups.length"
                >The {{ groups.length }} largest of {{ counted(ofPattern.groups, 'group') }}.</template
              >
              <template v-else-if="ofPattern || groups.length < MOST">{{ counted(groups.length, 'group') }}.</template>
              <template v-else>The first {{ groups.length }} groups.</template>
              <el-checkbox v-model="isAll" size="small">all columns</el-checkbox>
              <RouterLink :to="{ path: `/datasets/${course.id}/row-lists`, query: { by: shared.source } }"
                >A line for each, with its first and last line and the lowest and highest of a column</RouterLink
              >
            </p>
            <div v-if="ofPattern && mayChoose && draft !== null" class="over">
              <OwnPolicy
                :policy="policyOf(ofPattern.side)"
                :differing="ofPattern.columns"
                :columns="found.columns[ofPattern.side]"
                :label="label(ofPattern.side)"
                :looks-like="(column) => looksLike(ofPattern?.side ?? 'source', column)"
                @change="repeat(ofPattern.side, $event)"
              />
              <ErrorNote v-if="saving.error.value" :error="saving.error.value" />
              <p v-else-if="canUndo" class="quiet" role="status">
                In the plan. It holds from the next tally on. <el-button size="small" @click="undo()">Undo</el-button>
              </p>
            </div>
            <RepeatGroupCard
              v-for="{ place, group } in groups"
              :key="place"
              :course="course"
              :group="group"
              :place="place"
              :columns="found.columns"
              :shared="shared"
              :pairs="data?.pairs ?? []"
              :is-all="isAll"
              :may-choose="mayChoose"
              @choose="choosing.mutate"
            />
          </section>
        </div>
      </template>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
<style scoped>
ul {
  margin: 0;
}
.sides {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  padding: 8px 16px;
  border-block-end: 1px solid var(--line);
  font-size: 13px;
}
.sides > section {
  flex: 1 1 380px;
  min-inline-size: 0;
  display: grid;
  gap: 4px;
  align-content: start;
}
.near {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: baseline;
  padding: 4px 16px;
  font-size: 12.5px;
  border-block-end: 1px solid var(--line);
}
.near button {
  min-block-size: 24px;
  text-decoration: underline;
}
.proposal {
  background: var(--mark);
  padding: 3px 8px;
}
.patterns {
  display: grid;
  padding: 10px 0;
  position: sticky;
  inset-block-start: 0;
}
h3 {
  margin: 0;
  font-size: 12px;
  color: var(--ink-2);
  padding: 6px 16px;
}
.patterns button {
  display: grid;
  gap: 1px;
  text-align: start;
  padding: 6px 16px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.patterns button[aria-pressed='true'] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
.patterns .quiet,
.ruled {
  font-size: 12px;
}
.groups {
  background: var(--sheet);
  border-inline-start: 1px solid var(--line);
  min-inline-size: 0;
}
@media (width < 900px) {
  .patterns {
    position: static;
  }
}
</style>
