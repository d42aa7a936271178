<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { askedOf, isSame, isSide, type Prepared } from '@/composables/triedSteps'
import { useDraft } from '@/composables/useDraft'
import { figure, type Said } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import JoinedDraft from '@/parts/JoinedDraft.vue'
import StationHead from '@/parts/StationHead.vue'
import ParametersCard from '@/stations/prepare/ParametersCard.vue'
import ReferenceCard from '@/stations/prepare/ReferenceCard.vue'
import PreparationLedger from '@/stations/prepare/PreparationLedger.vue'
import SideStream from '@/stations/prepare/SideStream.vue'
import StepEditor from '@/stations/prepare/StepEditor.vue'
import { useTrial } from '@/stations/prepare/usePreparation'
import { useSteps } from '@/stations/prepare/useSteps'

const props = defineProps<{ course: Schemas['Course'] }>()
const {
  plan,
  draft,
  saving,
  joined,
  choose: settle,
  dismiss,
  prepareSide,
  prepareReference,
  undo,
  canUndo,
  redo,
  canRedo,
} = useDraft(() => props.course, { station: 'prepare' })

/** The reference whose steps are worked on, in the place of both sides. */
const opened = ref<string | null>(null)
const chosen = ref<{ of: Prepared; id: string } | null>(null)
const chosenOf = (of: Prepared): string | null => (chosen.value !== null && isSame(chosen.value.of, of) ? chosen.value.id : null)
const choose = (of: Prepared, id: string | null): void => {
  chosen.value = id === null ? null : { of, id }
}
const ofReference = computed<Prepared | null>(() => (opened.value === null ? null : { reference: opened.value }))
const trialOf = (of: () => Prepared | null) =>
  useTrial(
    () => props.course,
    of,
    () => draft.value,
    () => {
      const asked = of()
      return asked === null ? null : chosenOf(asked)
    },
  )
const trials = { source: trialOf(() => 'source'), target: trialOf(() => 'target'), reference: trialOf(() => ofReference.value) }
/** What is shown, each as a stream. */
const streams = computed(() =>
  ofReference.value !== null
    ? [{ of: ofReference.value, side: 'reference' as const, label: `Reference ${opened.value}`, trial: trials.reference }]
    : (['source', 'target'] as const).map((side) => ({ of: side, side, label: labelOf(side), trial: trials[side] })),
)
function open(reference: string | null): void {
  opened.value = reference
  chosen.value = null
}
const { stepsOf, add, change, move, remove, copy } = useSteps(() => draft.value, { prepareSide, prepareReference }, choose)
const both = computed(() => props.course.source !== null && props.course.target !== null)
/** A sample's rows are no figure to go on with. */
const onward = computed<Said>(() => {
  const { source, target } = { source: trials.source.data.value, target: trials.target.data.value }
  return source?.isWhole === true && target?.isWhole === true
    ? ['Match ', figure('rows/source/prepared', source.readyRows), ' with ', figure('rows/target/prepared', target.readyRows), ' prepared rows']
    : ['Go on to Match']
})
const most = computed(() => Math.max(1, ...streams.value.flatMap(({ trial }) => [trial.data.value?.rows ?? 0, trial.data.value?.readyRows ?? 0])))
const looked = computed(() => {
  const { value } = chosen
  const step = value === null ? undefined : stepsOf(value.of).find(({ id }) => id === value.id)
  const stream = streams.value.find(({ of }) => value !== null && isSame(of, value.of))
  return value === null || step === undefined || stream === undefined ? null : { ...stream, step }
})
/** The columns that come into the step that is looked at. */
const columnsBefore = computed(() => {
  if (looked.value === null) return []
  const trial = looked.value.trial.data.value
  const place = trial?.steps.findIndex(({ id }) => id === looked.value?.step.id) ?? -1
  return place > 0 ? (trial?.steps[place - 1]?.columns ?? []) : (trial?.columns ?? [])
})

/** References that steps of either side, or of another reference, look up from. */
const references = computed(() => {
  const named = new Set<string>()
  const look = (of: Prepared): void => {
    for (const { reference, kind } of stepsOf(of)) {
      // What a dataset matched is prepared where it is tallied.
      if (kind === 'as-matched' || reference === undefined || reference === '' || named.has(reference)) continue
      named.add(reference)
      look({ reference })
    }
  }
  look('source')
  look('target')
  return [...named]
})
/** Names that conditions of either side, or of a reference, ask for. */
const parameters = computed(() => {
  const found = new Set<string>()
  const look = (condition: Schemas['Condition'] | undefined): void => {
    if (condition?.parameter !== undefined) found.add(condition.parameter)
    for (const part of condition?.all ?? condition?.any ?? []) look(part)
  }
  const prepared: Prepared[] = ['source', 'target', ...references.value.map((reference) => ({ reference }))]
  for (const of of prepared) for (const step of stepsOf(of)) look(step.condition)
  return [...found]
})
const labelOf = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
</script>

<template>
  <main class="station">
    <div>
      <StationHead
        :words="['step', 'reference']"
        :heading="opened === null ? 'What each side must become before they can meet' : `What ${opened} must become`"
        :note="opened === null ? 'the deliveries stay as they are' : 'before values are looked up from it'"
      >
        <template v-if="both">
          <el-button v-if="opened !== null" @click="open(null)">Back to both sides</el-button>
          <template v-if="course.mayWork">
            <el-button :disabled="!canUndo" @click="undo">Undo</el-button>
            <el-button :disabled="!canRedo" @click="redo">Redo</el-button>
          </template>
          <RouterLink :to="`/datasets/${course.id}/match`" class="next">
            <SaidText :said="onward" />
          </RouterLink>
        </template>
      </StationHead>
      <JoinedDraft :joined="joined" @choose="settle" @dismiss="dismiss" />
    </div>
    <p v-if="!both" class="empty">
      Both sides must have delivered before they can be prepared. <RouterLink :to="`/datasets/${course.id}/deliver`">Deliver what is missing</RouterLink>.
    </p>
    <LoadState v-else :is-loading="plan.isPending.value" :error="plan.error.value" what="The plan" @retry="plan.refetch()">
      <div v-if="draft" class="desk" :class="{ single: opened !== null }">
        <SideStream
          v-for="stream in streams"
          :key="stream.label"
          :side="stream.side"
          :label="stream.label"
          :course="course"
          :steps="stepsOf(stream.of)"
          :trial="stream.trial.data.value"
          :error="stream.trial.error.value"
          :most="most"
          :chosen="chosenOf(stream.of)"
          @choose="choose(stream.of, $event)"
          @add="add(stream.of, $event, stream.trial.data.value?.readyColumns ?? [], stream.trial.data.value?.alike ?? [])"
          @move="(id: string, to: number) => move(stream.of, id, to)"
        />
        <aside>
          <ErrorNote :error="saving.error.value" />
          <StepEditor
            v-if="looked"
            :key="looked.step.id"
            :dataset="course.id"
            :step="looked.step"
            :side="looked.side"
            :columns="columnsBefore"
            :trial="looked.trial.data.value"
            :may-work="course.mayWork"
            :place="stepsOf(looked.of).findIndex(({ id }) => id === looked?.step.id)"
            :count="stepsOf(looked.of).length"
            :asked="askedOf(draft, looked.of, looked.step.id)"
            :other-label="looked.side === 'reference' ? null : labelOf(looked.side === 'source' ? 'target' : 'source')"
            @change="change(looked.of, $event)"
            @move="move(looked.of, looked.step.id, $event)"
            @copy="isSide(looked.of) && copy(looked.of, looked.step)"
            @remove="remove(looked.of, looked.step.id)"
          />
          <p v-else-if="opened === null" class="quiet">
            Steps prepare a side before its rows are matched: they run again by themselves on the next delivery, and can be changed at any time. Choose a step
            to see rows before and after it.
          </p>
          <template v-if="!looked">
            <ReferenceCard
              v-for="name in opened === null ? references : [opened]"
              :key="name"
              :name="name"
              :rules="draft.references?.[name] ?? {}"
              :may-work="course.mayWork"
              :is-open="name === opened"
              @prepare="prepareReference(name, $event)"
              @open="open(name)"
            />
          </template>
          <ParametersCard
            v-if="!looked && opened === null && parameters.length > 0 && plan.data.value"
            :course="course"
            :names="parameters"
            :parameters="plan.data.value.parameters"
          />
        </aside>
      </div>
    </LoadState>
    <PreparationLedger v-if="both" :source="trials.source.data.value" :target="trials.target.data.value" />
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-block-size: 0;
}
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 336px;
  min-block-size: 0;
}
.desk.single {
  grid-template-columns: minmax(0, 1fr) 336px;
}
aside {
  border-inline-start: 1px solid var(--line);
  padding: 14px 16px;
  overflow: auto;
  position: relative;
}
p {
  margin: 0;
  font-size: 13px;
}
.empty {
  padding: 16px;
}
.next {
  border: 1px solid var(--ink);
  background: var(--ink);
  color: #fff;
  border-radius: 4px;
  padding: 5px 12px;
  font-weight: 600;
  font-size: 13px;
  text-decoration: none;
}
@media (width < 1100px) {
  .desk,
  .desk.single {
    grid-template-columns: 1fr;
    overflow: auto;
  }
}
</style>
