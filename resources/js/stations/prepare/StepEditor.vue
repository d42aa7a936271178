<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { counted } from '@/format/counts'
import CrosswalkBeginning from '@/parts/CrosswalkBeginning.vue'
import BeforeAfter from '@/stations/prepare/BeforeAfter.vue'
import LeftOutDialog from '@/stations/prepare/LeftOutDialog.vue'
import LookUpProposals from '@/parts/LookUpProposals.vue'
import StepField from '@/stations/prepare/StepField.vue'
import { kindOf } from '@/stations/prepare/stepKinds'

/** The step that is looked at: what it is told, what it meets, and rows before and after it. */
const props = defineProps<{
  dataset: number
  step: Schemas['Step']
  side: Side | 'reference'
  columns: readonly string[]
  trial: Schemas['PreparationTrial'] | undefined
  mayWork: boolean
  place: number
  count: number
  /** of the side that the step can be copied to, if there is one */
  otherLabel: string | null
  /** the steps as the server is asked about them */
  asked: Schemas['TriedSteps']
}>()
const emit = defineEmits<{ change: [step: Schemas['Step']]; move: [to: number]; copy: []; remove: [] }>()

const kind = computed(() => kindOf(props.step.kind))
const fields = computed(() => (kind.value?.fields ?? []).filter(({ isAsked }) => isAsked?.(props.step) ?? true))
const found = computed(() => props.trial?.steps.find(({ id }) => id === props.step.id))
const isListing = ref(false)
const looksUp = computed(() => ['look-up', 'bring-in-records'].includes(props.step.kind))
const change = (part: Partial<Schemas['Step']>): void => emit('change', { ...props.step, ...part })
/** A field that is emptied goes, so that the plan says only what is said. Blanks are kept unless that is taken back. */
function set(name: keyof Schemas['Step'], value: unknown): void {
  const isEmpty = value === undefined || value === '' || (value === false && name !== 'keepBlanks')
  const others = Object.entries(props.step).filter(([other]) => other !== name)
  emit('change', Object.fromEntries(isEmpty ? others : [...others, [name, value]]) as unknown as Schemas['Step'])
}
</script>

<template>
  <section aria-label="The step">
    <h2>{{ kind?.name ?? step.kind }}</h2>
    <p v-if="step.off === true && kind?.waits === true" class="quiet" role="status">
      Switched off: nothing is changed until you choose below, or switch it on.
    </p>
    <p v-if="found?.problem" class="problem" role="alert">{{ found.problem }}</p>
    <LookUpProposals v-if="looksUp && mayWork" :dataset="dataset" :asked="asked" :step="step" :columns="columns" @change="change" />
    <template v-for="field in fields" :key="field.name">
      <StepField :field="field" :value="step[field.name]" :columns="columns" :may-work="mayWork" @update="set(field.name, $event)" />
      <CrosswalkBeginning
        v-if="step.kind === 'crosswalk' && field.type === 'entries' && mayWork"
        :dataset="dataset"
        :asked="asked"
        :column="step.column ?? ''"
        :entries="step.entries ?? []"
        @begin="set('entries', $event)"
      />
    </template>
    <div v-if="mayWork" class="buttons">
      <el-button size="small" :disabled="place <= 0" @click="emit('move', place - 1)">Move up</el-button>
      <el-button size="small" :disabled="place >= count - 1" @click="emit('move', place + 1)">Move down</el-button>
      <el-button size="small" @click="set('off', step.off !== true)">{{ step.off === true ? 'Switch on' : 'Switch off' }}</el-button>
      <el-button v-if="otherLabel !== null" size="small" @click="emit('copy')">Copy to the {{ otherLabel.toLowerCase() }}</el-button>
      <el-button size="small" @click="emit('remove')">Remove</el-button>
    </div>
    <el-button v-if="side !== 'reference' && (found?.figures?.leftOut ?? 0) > 0" size="small" class="list" @click="isListing = true"
      >List the rows left out</el-button
    >
    <LeftOutDialog
      v-if="isListing && found && side !== 'reference'"
      :dataset="dataset"
      :side="side"
      :step="step"
      :sentence="found.sentence"
      @close="isListing = false"
    />
    <details v-for="note in found?.figures?.notes ?? []" :key="note.what" class="note">
      <summary>{{ counted(note.count, 'cell') }}: {{ note.what }}</summary>
      <ul>
        <li v-for="value in note.values" :key="value.value">
          <span class="cell">{{ value.value === '' ? '(blank)' : value.value }}</span> <span class="quiet">{{ value.count }}</span>
        </li>
      </ul>
    </details>
    <BeforeAfter
      v-if="trial?.examples && found && !found.problem && step.off !== true"
      :examples="trial.examples"
      :side="side === 'reference' ? undefined : side"
    />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  align-content: start;
}
.problem {
  margin: 0;
  color: var(--fail);
  font-weight: 600;
  font-size: 13px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.list {
  justify-self: start;
}
.note {
  font-size: 12.5px;
  background: var(--warn);
  padding: 4px 8px;
}
summary {
  cursor: pointer;
}
ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  overflow-wrap: anywhere;
}
</style>
