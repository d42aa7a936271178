<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import JoinedDraft from '@/parts/JoinedDraft.vue'
import StationHead from '@/parts/StationHead.vue'
import CombinationsDialog from '@/parts/CombinationsDialog.vue'
import DefaultsLine from '@/stations/match/DefaultsLine.vue'
import KeyAdvice from '@/stations/match/KeyAdvice.vue'
import KeyCard from '@/stations/match/KeyCard.vue'
import MeetingBand from '@/stations/match/MeetingBand.vue'
import PairList from '@/stations/match/PairList.vue'
import PairRules from '@/stations/match/PairRules.vue'
import PlanVersionsDialog from '@/stations/match/PlanVersionsDialog.vue'
import RepeatsCard from '@/stations/match/RepeatsCard.vue'
import SideForms from '@/parts/SideForms.vue'
import { useDraft } from '@/composables/useDraft'
import TrialCard from '@/stations/match/TrialCard.vue'
import { useAdvice } from '@/stations/match/useAdvice'
import { useTrial } from '@/stations/match/useTrial'

const props = defineProps<{ course: Schemas['Course'] }>()
const router = useRouter()
const queries = useQueryClient()
const {
  plan,
  draft,
  saving,
  joined,
  choose,
  dismiss,
  pair,
  pairAll,
  useKey,
  toggleKey,
  rule,
  readAs,
  forgiveInKey,
  fold,
  forgiveIn,
  flag,
  forgiveByDefault,
  declare,
  declareSide,
  repeat,
  replaced,
  undo,
  canUndo,
} = useDraft(() => props.course, { station: 'match' })

const start = useMutation({
  // After the last change: the run is made of the draft as it is kept.
  scope: { id: 'plan-draft' },
  mutationFn: () => answer(api.POST('/datasets/{dataset}/runs', { params: { path: { dataset: props.course.id } }, body: {} })),
  onSuccess: async () => {
    await queries.invalidateQueries({ queryKey: ['dataset'] })
    await router.push(`/datasets/${props.course.id}/tally`)
  },
})
const both = computed(() => props.course.source !== null && props.course.target !== null)
const note = computed(() => {
  if (saving.isPending.value) return 'draft, being saved'
  const version = plan.data.value?.version ?? null
  return version === null ? 'draft of plan 1, saved' : `draft after plan ${version}, saved`
})
const advice = useAdvice(
  () => props.course,
  () => draft.value,
  () => saving.isPending.value,
)
const trial = useTrial(
  () => props.course,
  () => draft.value,
  () => saving.isPending.value,
)
// A key may have been put into a draft that nobody has worked on yet, once all rows were looked at.
watch(
  () => advice.data.value?.draft ?? 0,
  (number) => {
    if (number > (plan.data.value?.number ?? 0)) void plan.refetch()
  },
)
const adviceChange = useMutation({
  mutationFn: async (isAgain: boolean): Promise<unknown> =>
    isAgain
      ? answer(api.POST('/datasets/{dataset}/advice', { params: { path: { dataset: props.course.id } } }))
      : answer(api.DELETE('/datasets/{dataset}/advice', { params: { path: { dataset: props.course.id } } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset', props.course.id, 'advice'] }),
})
const NO_FORMS: Schemas['Advice']['forms'] = { isWaiting: false, problem: null, forms: [], tokens: [] }
const labels = computed(() => ({ source: props.course.migration.sourceLabel, target: props.course.migration.targetLabel }))
const showsVersions = ref(false)
function onImported(imported: Schemas['Plan']): void {
  if (imported.draft !== null) replaced(imported.draft)
  showsVersions.value = false
}
const repeating = ref<Schemas['KeyColumn'][] | null>(null)
const chosen = ref<string | null>(null)
const chosenIsPaired = computed(() => [...(draft.value?.key ?? []), ...(draft.value?.columnPairs ?? [])].some((column) => column.source === chosen.value))
const problems = computed(() => plan.data.value?.problems ?? [])
/** Before the plan is here, and while nothing says which row is which, there is nothing to tally by. */
const mayTally = computed(() => (draft.value?.key.length ?? 0) > 0 && problems.value.length === 0 && !saving.isPending.value)
</script>

<template>
  <main class="station">
    <div>
      <StationHead heading="Which row is which, and what must be equal" :words="['plan', 'column pair', 'guess', 'crosswalk']" :note="both ? note : ''">
        <template v-if="course.mayWork && both">
          <el-button @click="showsVersions = true">Versions</el-button>
          <el-button :disabled="!canUndo" @click="undo">Undo the last change</el-button>
          <el-button type="primary" :loading="start.isPending.value" :disabled="!mayTally" @click="start.mutate()">
            <span
              >Tally <FigureValue name="course/source/delivered" :of="course.source?.delivered ?? 0" /> against
              <FigureValue name="course/target/delivered" :of="course.target?.delivered ?? 0" /> delivered rows</span
            >
          </el-button>
        </template>
      </StationHead>
      <JoinedDraft :joined="joined" @choose="choose" @dismiss="dismiss" />
    </div>
    <p v-if="!both" class="empty">
      Both sides must have delivered before rows can be matched. <RouterLink :to="`/datasets/${course.id}/deliver`">Deliver what is missing</RouterLink>.
    </p>
    <LoadState v-else :is-loading="plan.isPending.value" :error="plan.error.value" what="The plan" @retry="plan.refetch()">
      <MeetingBand
        v-if="draft && advice.data.value"
        :meeting="advice.data.value.meeting"
        :keys="advice.data.value.keys"
        :fold="advice.data.value.fold"
        :draft-key="draft.key"
        :labels="labels"
        :is-changing="saving.isPending.value || advice.isFetching.value"
        :may-work="course.mayWork"
        @forgive="forgiveInKey"
        @use="useKey"
        @fold="fold"
        @again="adviceChange.mutate(true)"
      />
      <div v-if="draft && plan.data.value" class="map">
        <PairList
          :plan="plan.data.value"
          :draft="draft"
          :proposals="advice.data.value?.pairs.proposals ?? []"
          :agreeing="trial.data.value?.result?.pairs ?? []"
          :forms="advice.data.value?.forms ?? NO_FORMS"
          :labels="labels"
          :may-work="course.mayWork"
          :chosen="chosen"
          @pair="pair"
          @read-as="readAs"
          @pair-all="pairAll"
          @toggle-key="toggleKey"
          @flag="flag"
          @choose="chosen = chosen === $event ? null : $event"
        />
        <aside>
          <ErrorNote :error="start.error.value ?? saving.error.value" />
          <div v-if="problems.length > 0" class="problems" role="status">
            <h2>Before this can be tallied</h2>
            <p v-for="problem in problems" :key="problem.pointer">{{ problem.detail }}</p>
          </div>
          <TrialCard v-if="trial.data.value && draft.key.length > 0" :trial="trial.data.value" :is-fetching="trial.isFetching.value" />
          <PairRules
            v-if="chosen !== null && chosenIsPaired"
            :key="chosen"
            :draft="draft"
            :source="chosen"
            :course="course"
            :may-work="course.mayWork"
            @rule="rule"
            @declare="declare"
            @forgive-in="forgiveIn"
            @flag="flag"
            @by-default="forgiveByDefault"
            @close="chosen = null"
          />
          <template v-else>
            <KeyCard :course="course" :draft-key="draft.key" />
            <KeyAdvice
              v-if="advice.data.value"
              :advice="advice.data.value.keys"
              :draft-key="draft.key"
              :may-work="course.mayWork"
              @use="useKey"
              @repeats="repeating = $event"
              @cancel="adviceChange.mutate(false)"
              @again="adviceChange.mutate(true)"
            />
            <RepeatsCard :plan="plan.data.value" :draft="draft" :course="course" :may-work="course.mayWork" @repeat="repeat" />
            <section class="writes" aria-label="How each side writes its values">
              <h2>How each side writes its values</h2>
              <DefaultsLine v-if="course.mayWork" :course="course" :defaults="plan.data.value.defaults" />
              <SideForms
                v-for="side in ['source', 'target'] as const"
                :key="side"
                :side="side"
                :label="side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel"
                kind="any"
                :reading="draft.sides?.[side] ?? {}"
                :may-work="course.mayWork"
                @declare="declareSide(side, $event)"
              />
            </section>
          </template>
        </aside>
      </div>
    </LoadState>
    <PlanVersionsDialog v-if="showsVersions" :course="course" @close="showsVersions = false" @imported="onImported" />
    <CombinationsDialog
      v-if="repeating !== null"
      :course="course"
      :preset="{ source: repeating.map(({ source }) => source), target: repeating.map(({ target }) => target) }"
      @close="repeating = null"
    />
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-block-size: 0;
}
.map {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  min-block-size: 0;
}
aside {
  border-inline-start: 1px solid var(--line);
  padding: 14px 16px;
  display: grid;
  align-content: start;
  gap: 14px;
  overflow: auto;
}
p {
  margin: 2px 0 0;
  font-size: 13px;
}
.empty {
  padding: 16px;
}
.writes {
  display: grid;
  gap: 10px;
}
.problems {
  background: var(--warn);
  padding: 8px 12px;
}
@media (width < 900px) {
  .map {
    grid-template-columns: 1fr;
  }
}
</style>
