<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { useDraft } from '@/composables/useDraft'
import { counted } from '@/format/counts'
import { kinds } from '@/format/rules'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import PoliciesBeside from '@/stations/review/repeats/PoliciesBeside.vue'
import PolicyTable from '@/stations/review/repeats/PolicyTable.vue'
import { candidates, kindOf, nameOfNow, withChosen, type Candidate, type Of, type Policies } from '@/stations/review/repeats/policies'

/** What each policy would do with all rows that share the key, before one of them is taken. */
const props = defineProps<{ course: Schemas['Course'] }>()
const SIDES = ['source', 'target'] as const
const { plan, draft, saving, repeat, undo, canUndo } = useDraft(() => props.course)

const of = ref<Of>('both')
/** The column that decides: of a pair by its source column, of one side by its own name. */
const column = ref('')
const kind = ref<Schemas['Kind'] | ''>('')
const except = ref<Record<Side, string[]>>({ source: [], target: [] })
const stake = ref('')
/** Policies that stand beside each other, by their ids. */
const chosen = ref<string[]>([])

const now = computed<Policies>(() => ({
  source: draft.value?.sides?.source?.repeats ?? { policy: 'set-aside' },
  target: draft.value?.sides?.target?.repeats ?? { policy: 'set-aside' },
}))
const inKey = (side: Side): string[] => (draft.value?.key ?? []).map((one) => one[side])
const label = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const labels = computed(() => ({ source: label('source'), target: label('target') }))
const shared = computed(() => ({ source: inKey('source'), target: inKey('target') }))
const columnsOf = (side: Side): string[] => (plan.data.value?.[side]?.columns ?? []).map(({ name }) => name).filter((name) => !inKey(side).includes(name))
const pairs = computed(() => draft.value?.columnPairs ?? [])
const choosable = computed(() => (of.value === 'both' ? pairs.value.map(({ source }) => source) : columnsOf(of.value)))
const pairOf = (name: string): { source: string; target: string; kind?: Schemas['Kind'] } | undefined =>
  pairs.value.find((one) => one[of.value === 'target' ? 'target' : 'source'] === name)
const proposedKind = computed(() => {
  const side = of.value === 'target' ? 'target' : 'source'
  return kindOf(plan.data.value?.[side]?.columns.find(({ name }) => name === column.value)?.examples ?? [])
})
const deciding = computed(() => {
  if (column.value === '' || !choosable.value.includes(column.value)) return null
  const pair = pairOf(column.value)
  return {
    source: pair?.source ?? column.value,
    target: pair?.target ?? column.value,
    kind: kind.value === '' ? (pair?.kind ?? proposedKind.value) : kind.value,
  }
})
const all = computed<Candidate[]>(() => [
  { id: 'now', name: nameOfNow(now.value), policies: now.value },
  ...candidates(now.value, of.value, deciding.value, except.value),
])
const isReady = computed(() => draft.value !== null && draft.value.key.length > 0)

function useTrial(policies: () => readonly Candidate[], isWanted: () => boolean) {
  return useQuery({
    queryKey: [
      'dataset',
      () => props.course.id,
      'policy-trials',
      () => props.course.source?.id,
      () => props.course.target?.id,
      computed(() => policies().map((one) => one.policies)),
      stake,
      () => draft.value,
    ],
    queryFn: ({ signal }) =>
      answer(
        api.POST('/datasets/{dataset}/policy-trials', {
          params: { path: { dataset: props.course.id } },
          body: { policies: policies().map((one) => one.policies), stake: stake.value === '' ? null : stake.value },
          signal,
        }),
      ),
    enabled: computed(() => isReady.value && isWanted() && !saving.isPending.value),
    refetchInterval: ({ state: { data: known } }) => (known?.isWaiting === true ? 500 : false),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
const { data, error, isPending, refetch } = useTrial(
  () => all.value,
  () => true,
)
const both = computed(() => {
  const [one, other] = chosen.value.flatMap((id) => all.value.filter((candidate) => candidate.id === id))
  return one === undefined || other === undefined ? null : ([one, other] as const)
})
const { data: beside } = useTrial(
  () => both.value ?? [],
  () => both.value !== null,
)
const found = computed(() => (data.value?.found?.tried.length === all.value.length ? data.value.found : null))
const done = (known: { done: number; total: number } | undefined): number =>
  known === undefined || known.total === 0 ? 0 : Math.floor((100 * known.done) / known.total)

const taken = ref('')
function take({ policies, name }: Candidate): void {
  taken.value = name
  chosen.value = []
  for (const side of SIDES) if (JSON.stringify(policies[side]) !== JSON.stringify(now.value[side])) repeat(side, policies[side])
}
function takeBack(): void {
  undo()
  if (!canUndo.value) taken.value = ''
}
</script>

<template>
  <main class="station">
    <StationHead
      heading="What becomes of rows that share the key"
      :words="['group of repeats']"
      note="tried on all of them; nothing changes until one is taken"
    >
      <RouterLink class="button" :to="`/datasets/${course.id}/repeats`">Which rows repeat, and how</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <p v-if="draft !== null && draft.key.length === 0" class="quiet waits">
      There is no key yet. <RouterLink :to="`/datasets/${course.id}/match`">Choose one in Match.</RouterLink>
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="The trial of policies" @retry="refetch()">
      <div class="asked">
        <label
          ><span>Tried for</span>
          <el-select v-model="of" aria-label="Sides that policies are tried for">
            <el-option value="both" label="both sides" />
            <el-option v-for="side in SIDES" :key="side" :value="side" :label="`the ${label(side).toLowerCase()}`" /> </el-select
        ></label>
        <label
          ><span>highest and lowest of</span>
          <el-select v-model="column" filterable clearable :value-on-clear="''" aria-label="Column that decides" placeholder="no column">
            <el-option v-for="name in choosable" :key="name" :value="name" :label="name" /> </el-select
        ></label>
        <label v-if="deciding !== null"
          ><span>read as</span>
          <el-select :model-value="deciding.kind" aria-label="Kind of the column that decides" @update:model-value="kind = $event">
            <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="known.name" /> </el-select
        ></label>
        <template v-for="side in SIDES" :key="side">
          <label v-if="of === 'both' || of === side"
            ><span :class="side === 'source' ? 'src' : 'tgt'">copies of the {{ label(side).toLowerCase() }} may differ in</span>
            <el-select v-model="except[side]" multiple filterable :aria-label="`Copies of the ${label(side)} may differ in`" placeholder="nothing">
              <el-option v-for="name in columnsOf(side)" :key="name" :value="name" :label="name" /> </el-select
          ></label>
        </template>
        <label
          ><span>what is left out of</span>
          <el-select v-model="stake" filterable clearable :value-on-clear="''" aria-label="Column of which is told what is left out" placeholder="no column">
            <el-option v-for="pair in pairs" :key="pair.source" :value="pair.source" :label="pair.source" /> </el-select
        ></label>
      </div>
      <ErrorNote v-if="saving.error.value" :error="saving.error.value" />
      <p v-if="taken !== ''" class="done" role="status">
        In the plan: {{ taken }}. It holds from the next tally on.
        <el-button v-if="canUndo" size="small" @click="takeBack">Undo</el-button>
        <RouterLink class="button" :to="`/datasets/${course.id}/tally`">Tally</RouterLink>
      </p>
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet waits" role="status">Policies are being tried on all rows that share the key: {{ done(data) }} % …</p>
      <template v-if="found">
        <p v-if="found.keys === 0" class="quiet waits">No two rows of a side share the key: nothing repeats, and no policy makes a difference.</p>
        <template v-else>
          <p class="said">
            {{ counted(found.keys, 'key stands', 'keys stand') }} more than once on a side, in {{ counted(found.tried[0]?.source.rows ?? 0, 'row') }} of the
            {{ label('source').toLowerCase() }} and {{ counted(found.tried[0]?.target.rows ?? 0, 'row') }} of the {{ label('target').toLowerCase() }}. The
            figures are of these rows. Choose two policies to see where they part.
            <template v-if="course.tally !== null"
              >What the latest tally did not keep or compare
              <RouterLink :to="`/datasets/${course.id}/review?tally=${course.tally.id}&of=rows&class=repeated`">stands in Review</RouterLink>, each with the row
              that was kept, and can be taken away there.</template
            >
          </p>
          <PolicyTable
            :candidates="all"
            :tried="found.tried"
            :chosen="chosen"
            :stake="stake === '' ? null : stake"
            :handmade="found.chosen"
            :may-work="course.mayWork"
            :is-busy="saving.isPending.value"
            @choose="chosen = withChosen(chosen, $event)"
            @take="take"
          />
          <p v-if="both !== null && beside?.isWaiting" class="quiet waits" role="status">Both are held beside each other: {{ done(beside) }} % …</p>
          <PoliciesBeside
            v-else-if="both !== null && beside?.found?.beside"
            :both="both"
            :found="beside.found.beside"
            :columns="beside.found.columns"
            :shared="shared"
            :labels="labels"
          />
        </template>
      </template>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
