<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useDraft, type Side } from '@/composables/useDraft'
import { count } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import ParametersCard from '@/stations/prepare/ParametersCard.vue'
import ReferenceCard from '@/stations/prepare/ReferenceCard.vue'
import PreparationLedger from '@/stations/prepare/PreparationLedger.vue'
import SideStream from '@/stations/prepare/SideStream.vue'
import StepEditor from '@/stations/prepare/StepEditor.vue'
import { kindOf } from '@/stations/prepare/stepKinds'
import { useTrial } from '@/stations/prepare/usePreparation'

const props = defineProps<{ course: Schemas['Course'] }>()
const { plan, draft, saving, prepareSide, prepareReference, undo, canUndo, redo, canRedo } = useDraft(() => props.course, { station: 'prepare' })

const chosen = ref<{ side: Side; id: string } | null>(null)
const chosenOf = (side: Side): string | null => (chosen.value?.side === side ? chosen.value.id : null)
const stepsOf = (side: Side): readonly Schemas['Step'][] => draft.value?.sides?.[side]?.preparation ?? []
const trials = {
  source: useTrial(
    () => props.course,
    'source',
    () => draft.value,
    () => chosenOf('source'),
  ),
  target: useTrial(
    () => props.course,
    'target',
    () => draft.value,
    () => chosenOf('target'),
  ),
}
const both = computed(() => props.course.source !== null && props.course.target !== null)
/** A sample's rows are no figure to go on with. */
const onward = computed(() => {
  const { source, target } = { source: trials.source.data.value, target: trials.target.data.value }
  return source?.isWhole === true && target?.isWhole === true ? `Match ${count(source.readyRows)} with ${count(target.readyRows)}` : 'Go on to Match'
})
const most = computed(() =>
  Math.max(1, ...(['source', 'target'] as const).flatMap((side) => [trials[side].data.value?.rows ?? 0, trials[side].data.value?.readyRows ?? 0])),
)
const looked = computed(() => {
  const { value } = chosen
  const step = value === null ? undefined : stepsOf(value.side).find(({ id }) => id === value.id)
  return value === null || step === undefined ? null : { side: value.side, step }
})
/** The columns that come into the step that is looked at. */
const columnsBefore = computed(() => {
  if (looked.value === null) return []
  const trial = trials[looked.value.side].data.value
  const place = trial?.steps.findIndex(({ id }) => id === looked.value?.step.id) ?? -1
  return place > 0 ? (trial?.steps[place - 1]?.columns ?? []) : (trial?.columns ?? [])
})

const freshId = (): string => `step-${crypto.randomUUID().slice(0, 8)}`

function add(side: Side, kind: string): void {
  const columns = trials[side].data.value?.readyColumns ?? []
  const step = { id: freshId(), kind, ...kindOf(kind)?.make(columns) }
  prepareSide(side, [...stepsOf(side), step])
  chosen.value = { side, id: step.id }
}

function change(side: Side, step: Schemas['Step']): void {
  prepareSide(
    side,
    stepsOf(side).map((other) => (other.id === step.id ? step : other)),
  )
}

function move(side: Side, id: string, to: number): void {
  const step = stepsOf(side).find((other) => other.id === id)
  if (step === undefined) return
  const others = stepsOf(side).filter((other) => other.id !== id)
  others.splice(Math.max(0, Math.min(others.length, to)), 0, step)
  prepareSide(side, others)
}

function remove(side: Side, id: string): void {
  prepareSide(
    side,
    stepsOf(side).filter((step) => step.id !== id),
  )
  chosen.value = null
}

function copy(side: Side, step: Schemas['Step']): void {
  const other = side === 'source' ? 'target' : 'source'
  const copied = { ...step, id: freshId() }
  prepareSide(other, [...stepsOf(other), copied])
  chosen.value = { side: other, id: copied.id }
}
/** References that steps of either side look up from. */
const references = computed(() => [
  ...new Set(
    (['source', 'target'] as const).flatMap((side) =>
      stepsOf(side).flatMap(({ reference }) => (reference === undefined || reference === '' ? [] : [reference])),
    ),
  ),
])
/** Names that conditions of either side ask for. */
const parameters = computed(() => {
  const found = new Set<string>()
  const look = (condition: Schemas['Condition'] | undefined): void => {
    if (condition?.parameter !== undefined) found.add(condition.parameter)
    for (const part of condition?.all ?? condition?.any ?? []) look(part)
  }
  for (const side of ['source', 'target'] as const) for (const step of stepsOf(side)) look(step.condition)
  return [...found]
})
const labelOf = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
</script>

<template>
  <main class="station">
    <StationHead heading="What each side must become before they can meet" note="the deliveries stay as they are">
      <template v-if="both">
        <template v-if="course.mayWork">
          <el-button :disabled="!canUndo" @click="undo">Undo</el-button>
          <el-button :disabled="!canRedo" @click="redo">Redo</el-button>
        </template>
        <RouterLink :to="`/datasets/${course.id}/match`" class="next">
          {{ onward }}
        </RouterLink>
      </template>
    </StationHead>
    <p v-if="!both" class="empty">
      Both sides must have delivered before they can be prepared. <RouterLink :to="`/datasets/${course.id}/deliver`">Deliver what is missing</RouterLink>.
    </p>
    <LoadState v-else :is-loading="plan.isPending.value" :error="plan.error.value" what="The plan" @retry="plan.refetch()">
      <div v-if="draft" class="desk">
        <SideStream
          v-for="side in ['source', 'target'] as const"
          :key="side"
          :side="side"
          :label="labelOf(side)"
          :course="course"
          :steps="stepsOf(side)"
          :trial="trials[side].data.value"
          :error="trials[side].error.value"
          :most="most"
          :chosen="chosenOf(side)"
          @choose="chosen = $event === null ? null : { side, id: $event }"
          @add="add(side, $event)"
          @move="(id: string, to: number) => move(side, id, to)"
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
            :trial="trials[looked.side].data.value"
            :may-work="course.mayWork"
            :place="stepsOf(looked.side).findIndex(({ id }) => id === looked?.step.id)"
            :count="stepsOf(looked.side).length"
            :other-label="labelOf(looked.side === 'source' ? 'target' : 'source')"
            @change="change(looked.side, $event)"
            @move="move(looked.side, looked.step.id, $event)"
            @copy="copy(looked.side, looked.step)"
            @remove="remove(looked.side, looked.step.id)"
          />
          <p v-else class="quiet">
            Steps prepare a side before its rows are matched: they run again by themselves on the next delivery, and can be changed at any time. Choose a step
            to see rows before and after it.
          </p>
          <template v-if="!looked">
            <ReferenceCard
              v-for="name in references"
              :key="name"
              :name="name"
              :rules="draft.references?.[name] ?? {}"
              :may-work="course.mayWork"
              @prepare="prepareReference(name, $event)"
            />
          </template>
          <ParametersCard
            v-if="!looked && parameters.length > 0 && plan.data.value"
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
  .desk {
    grid-template-columns: 1fr;
    overflow: auto;
  }
}
</style>
