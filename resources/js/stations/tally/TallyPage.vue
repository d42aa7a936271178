<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import { useTally } from '@/composables/useTally'
import AgreementLine from '@/parts/AgreementLine.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import TotalsLine from '@/parts/TotalsLine.vue'
import ColumnFigures from '@/stations/tally/ColumnFigures.vue'
import StartRunDialog from '@/stations/tally/StartRunDialog.vue'
import RepeatsLine from '@/parts/RepeatsLine.vue'
import RunProgress from '@/stations/tally/RunProgress.vue'
import TallyHistory from '@/stations/tally/TallyHistory.vue'

const props = defineProps<{ course: Schemas['Course'] }>()
const queries = useQueryClient()
const run = computed(() => props.course.run)
const isRunning = computed(() => run.value !== null && !run.value.isOver)

const tallies = useQuery({
  queryKey: ['dataset', () => props.course.id, 'tallies'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/tallies', { params: { path: { dataset: props.course.id } } })),
})
/** The newest, whose figures stand in full below the history. */
const newest = useTally(computed(() => props.course.tally?.id ?? 0))
const refresh = () => queries.invalidateQueries({ queryKey: ['dataset'] })
watch(
  () => props.course.tally?.id,
  () => Promise.all([tallies.refetch(), queries.invalidateQueries({ queryKey: ['migration'] })]),
)

const start = useMutation({
  // After what was changed last at another station: the run is made of the draft as it is kept.
  scope: { id: 'plan-draft' },
  mutationFn: (terms: Schemas['StartRun']) => answer(api.POST('/datasets/{dataset}/runs', { params: { path: { dataset: props.course.id } }, body: terms })),
  onSuccess: () => {
    isChoosing.value = false
    return refresh()
  },
})
const isChoosing = ref(false)
const retry = useMutation({ mutationFn: (id: number) => answer(api.POST('/runs/{run}/retry', { params: { path: { run: id } } })), onSuccess: refresh })
const cancel = useMutation({ mutationFn: (id: number) => answer(api.POST('/runs/{run}/cancellation', { params: { path: { run: id } } })), onSuccess: refresh })

const onDelivery = useMutation({
  mutationFn: (runsOnDelivery: boolean) =>
    answer(api.PUT('/datasets/{dataset}/runs-on-delivery', { params: { path: { dataset: props.course.id } }, body: { runsOnDelivery } })),
  onSuccess: refresh,
})
const canStart = computed(() => props.course.source !== null && props.course.target !== null && props.course.keyColumns.length > 0)
const heading = computed(() => {
  if (isRunning.value) return 'Every row is being accounted for'
  if (run.value?.state === 'failed') return 'The last run failed'
  return props.course.tally === null ? 'Nothing has been tallied yet' : 'Every row is accounted for'
})
const named = computed(() => (newest.data.value?.name ? ` (${newest.data.value.name})` : ''))
const note = computed(() => {
  if (isRunning.value && run.value !== null) return `plan ${run.value.planVersion}, started ${moment(run.value.startedAt)} by ${run.value.startedBy}`
  return props.course.tally === null ? '' : `tally ${props.course.tally.number}${named.value}, ${moment(props.course.tally.finishedAt)}`
})
</script>

<template>
  <main class="station">
    <StationHead :heading="heading" :words="['tally', 'agreement', 'finding']" :note="note">
      <template v-if="course.mayWork">
        <el-button v-if="run && isRunning" :loading="cancel.isPending.value" @click="cancel.mutate(run.id)">Cancel this run</el-button>
        <el-button v-if="canStart && !isRunning" @click="isChoosing = true">Choose deliveries</el-button>
        <el-button v-if="canStart && !isRunning" type="primary" :loading="start.isPending.value" @click="start.mutate({})">
          <span
            >Tally <FigureValue name="course/source/delivered" :of="course.source?.delivered ?? 0" /> against
            <FigureValue name="course/target/delivered" :of="course.target?.delivered ?? 0" /> delivered rows</span
          >
        </el-button>
      </template>
    </StationHead>
    <div class="content">
      <ErrorNote :error="start.error.value ?? cancel.error.value ?? retry.error.value" />
      <RunProgress v-if="run && isRunning" :run="run" :course="course" />
      <p v-else-if="run?.state === 'failed'" class="notice" role="alert">
        {{ run.problem }}
        <el-button v-if="course.mayWork" size="small" :loading="retry.isPending.value" @click="retry.mutate(run.id)">Run it again as it was</el-button>
      </p>
      <p v-else-if="run?.state === 'cancelled'" class="notice" role="status">
        The last run was cancelled. Nothing of it was kept.
        <el-button v-if="course.mayWork" size="small" :loading="retry.isPending.value" @click="retry.mutate(run.id)">Run it again as it was</el-button>
      </p>
      <p v-if="!canStart" class="notice">Both sides and a key are needed first. <RouterLink :to="`/datasets/${course.id}/match`">Go to Match</RouterLink>.</p>
      <el-checkbox
        v-if="course.mayWork && canStart"
        class="itself"
        :model-value="course.runsOnDelivery"
        :disabled="onDelivery.isPending.value"
        @update:model-value="onDelivery.mutate($event === true)"
        >Run automatically when a new delivery arrives</el-checkbox
      >
      <LoadState :is-loading="tallies.isPending.value" :error="tallies.error.value" what="The history" @retry="tallies.refetch()">
        <div v-if="newest.data.value?.values" class="newest" :data-tally="newest.data.value.id">
          <AgreementLine
            :values="newest.data.value.values"
            :of-arrived="newest.data.value.figures.ofArrived"
            :rows-arrived="newest.data.value.figures.rowsArrived"
          />
          <RepeatsLine v-if="newest.data.value.repeats" :repeats="newest.data.value.repeats" />
        </div>
        <TallyHistory v-if="tallies.data.value" :tallies="tallies.data.value.items" :course="course" />
        <p v-if="newest.data.value && newest.data.value.totals.all > 0" class="totals">
          <TotalsLine :tally="newest.data.value" :dataset="course.id" />
        </p>
        <ColumnFigures v-if="newest.data.value && newest.data.value.columns.length > 0" :tally="newest.data.value" :dataset="course.id" />
      </LoadState>
    </div>
    <StartRunDialog v-if="isChoosing" :course="course" :is-starting="start.isPending.value" @close="isChoosing = false" @start="start.mutate($event)" />
    <footer v-if="isRunning">Nothing is shown in Review until the tally is whole and its sums add up.</footer>
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  background: var(--sheet);
  min-block-size: 0;
}
.content {
  overflow: auto;
}
.notice {
  margin: 14px 24px;
  padding: 8px 12px;
  background: var(--warn);
  max-inline-size: 76ch;
}
footer {
  border-block-start: 1px solid var(--line);
  padding: 13px 14px;
  font-size: 13px;
  color: var(--ink-2);
}
.newest {
  padding: 10px 24px 0;
}
.itself {
  margin-inline-start: 24px;
}
.totals {
  margin: 6px 24px;
  font-size: 13px;
}
</style>
