<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { count, counted } from '@/format/counts'
import { figure, figures as figuresOf, type Said } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import RowsTable from '@/parts/RowsTable.vue'
import SaidText from '@/parts/SaidText.vue'
import { groups, stepKinds } from '@/stations/prepare/stepKinds'
import WholeSide from '@/stations/prepare/WholeSide.vue'

/** A side, or a reference, as a stream: its width is the number of rows, each step a sentence with its figures. */
const props = defineProps<{
  side: Side | 'reference'
  label: string
  course: Schemas['Course']
  steps: readonly Schemas['Step'][]
  trial: Schemas['PreparationTrial'] | undefined
  error: Error | null
  /** rows of the wider of both streams, where it is widest */
  most: number
  chosen: string | null
}>()
const emit = defineEmits<{ choose: [id: string | null]; add: [kind: string]; move: [id: string, to: number] }>()

const adds = computed(() => `Add a step for the ${props.side === 'reference' ? `r${props.label.slice(1)}` : props.label.toLowerCase()}`)
const own = computed(() => (props.side === 'reference' ? null : props.side))
const within = computed(() => `preparation/${own.value ?? 'reference'}`)
const READY = 8
const dragged = ref<string | null>(null)
const over = ref<number | null>(null)

const tried = computed(() => new Map((props.trial?.steps ?? []).map((step) => [step.id, step])))
/** Where the sample stands for the whole, its rows are drawn as wide as the whole would be. */
const scale = computed(() => (props.trial === undefined || props.trial.isWhole || props.trial.sampleRows === 0 ? 1 : props.trial.rows / props.trial.sampleRows))
const width = (rows: number): string => `max(150px, ${Math.min(1, Math.sqrt((rows * scale.value) / props.most)) * 100}%)`
const first = computed(() => (props.trial === undefined ? 0 : props.trial.isWhole ? props.trial.rows : props.trial.sampleRows))

/** Rows after each step, as far as they are known. */
const flow = computed(() => {
  let rows = first.value
  let working = 0
  return props.steps.map((step) => {
    const found = tried.value.get(step.id)
    const isOff = step.off === true
    rows = found?.figures?.out ?? rows
    // The tally counts the steps that work; a trial of all rows finds the same.
    const name = props.trial?.isWhole === true && own.value ? `steps/${own.value}/${working}` : `${within.value}/steps/${props.steps.indexOf(step)}/figures`
    working += isOff ? 0 : 1
    return { step, found, rows, isOff, name }
  })
})

function figures(found: Schemas['TriedStep'] | undefined): string {
  const { figures: done } = found ?? {}
  if (done === undefined || done === null) return ''
  const said = [
    done.leftOut > 0 ? `${counted(done.leftOut, 'row')} left out` : '',
    done.made > 0 ? `${counted(done.made, 'row')} made` : '',
    done.condensed > 0 ? `${counted(done.condensed, 'row')} condensed` : '',
    done.altered > 0 ? `${counted(done.altered, 'cell')} altered` : '',
    ...done.notes.map((note) => `${count(note.count)} ${note.what}`),
  ].filter((part) => part !== '')
  return said.length === 0 ? 'changes nothing here' : said.join(' · ')
}

const begins = (trial: Schemas['PreparationTrial']): Said => [
  ...figuresOf(`${within.value}/${trial.isWhole ? 'rows' : 'sampleRows'}`, first.value, own.value ? 'row' : 'record'),
  ', ',
  ...figuresOf(`${within.value}/columns/length`, trial.columns.length, 'column'),
]

function drop(place: number): void {
  if (dragged.value !== null) {
    const from = props.steps.findIndex(({ id }) => id === dragged.value)
    emit('move', dragged.value, from < place ? place - 1 : place)
  }
  dragged.value = over.value = null
}

function onKey(event: KeyboardEvent, id: string, place: number): void {
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    emit('move', id, place + (event.key === 'ArrowUp' ? -1 : 1))
  }
}
</script>

<template>
  <section class="stream" :class="side" :aria-label="label">
    <h2>
      <span :class="{ src: side === 'source', tgt: side === 'target' }">{{ label }}</span>
      <span v-if="own" class="quiet file" data-sentence="course">{{ course[own]?.fileName }}</span>
    </h2>
    <ErrorNote :error="error" />
    <template v-if="trial">
      <div class="band" :style="{ inlineSize: width(first) }"><SaidText :said="begins(trial)" /></div>
      <ol>
        <li
          v-for="({ step, found, rows, isOff, name }, place) in flow"
          :key="step.id"
          :class="{ drop: over === place }"
          @dragover.prevent="over = place"
          @drop.prevent="drop(place)"
        >
          <button
            type="button"
            class="step"
            :class="{ looked: step.id === chosen, off: isOff, broken: found?.problem }"
            :aria-pressed="step.id === chosen"
            :draggable="course.mayWork"
            @dragstart="dragged = step.id"
            @dragend="dragged = over = null"
            @keydown="course.mayWork && onKey($event, step.id, place)"
            @click="emit('choose', step.id === chosen ? null : step.id)"
          >
            <b data-sentence="steps">{{ found?.sentence ?? step.kind }}</b>
            <span v-if="isOff" class="quiet">switched off</span>
            <span v-else-if="found?.problem" class="problem">{{ found.problem }}</span>
            <span v-else class="quiet" :data-figure="name">{{ figures(found) }}</span>
            <span v-if="step.reason" class="quiet">{{ step.reason }}{{ step.answersFor ? `, ${step.answersFor}` : '' }}</span>
          </button>
          <div class="band" :class="{ last: place === flow.length - 1 }" :style="{ inlineSize: width(rows) }">
            <SaidText :said="figuresOf(`${name}/out`, rows, own ? 'row' : 'record')" />{{
              place === flow.length - 1 ? (own ? ' ready to match' : ' to look up from') : ''
            }}
          </div>
        </li>
      </ol>
      <div class="add" @dragover.prevent="over = flow.length" @drop.prevent="drop(flow.length)">
        <el-select v-if="course.mayWork" :model-value="''" filterable :placeholder="adds" :aria-label="adds" @update:model-value="emit('add', $event)">
          <template v-for="group in groups" :key="group">
            <!-- The heading is drawn by the first of a group: the library's own groups are lists inside a list of options, which screen readers cannot follow. -->
            <el-option
              v-for="(kind, place) in stepKinds.filter((known) => known.group === group)"
              :key="kind.kind"
              :value="kind.kind"
              :label="kind.name"
              :class="{ first: place === 0 }"
              :data-group="group"
            />
          </template>
        </el-select>
      </div>
      <details v-if="trial.ready.length > 0" class="ready" open>
        <summary>{{ steps.length === 0 ? 'The first rows, as they are delivered' : 'The first rows, as they are ready' }}</summary>
        <div class="rows" tabindex="0" role="region" :aria-label="`The first rows of ${label}`">
          <RowsTable :columns="trial.readyColumns" :rows="trial.ready.slice(0, READY)" :side="own ?? undefined" />
        </div>
      </details>
      <WholeSide v-if="own" :side="own" :course="course" :trial="trial" />
      <p v-else-if="!trial.isWhole" class="quiet tried">
        Tried on <SaidText :said="figuresOf(`${within}/sampleRows`, trial.sampleRows, 'record')" />; the tally prepares all
        <SaidText :said="[figure(`${within}/rows`, trial.rows)]" />.
      </p>
    </template>
  </section>
</template>

<style scoped>
.stream {
  background: var(--sheet);
  border-inline-end: 1px solid var(--line);
  padding: 12px 14px;
  overflow: auto;
  position: relative;
  --side: var(--src);
}
.stream.target {
  --side: var(--tgt);
}
.stream.reference {
  --side: var(--ink-2);
}
h2 {
  margin-block-end: 8px;
  overflow-wrap: anywhere;
}
.file {
  font-size: 13px;
  font-weight: 400;
  margin-inline-start: 6px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li.drop {
  box-shadow: 0 -3px 0 var(--ink);
}
.band {
  background: var(--side);
  color: #fff;
  font-size: 12.5px;
  font-weight: 600;
  padding: 2px 12px;
  min-block-size: 22px;
  transition: inline-size 0.2s;
}
.step {
  inline-size: 100%;
  display: grid;
  gap: 2px;
  text-align: start;
  border: 0;
  border-inline-start: 3px solid var(--side);
  background: none;
  padding: 9px 12px;
  cursor: pointer;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.step:hover {
  background: var(--floor);
}
.step b {
  font-size: 13.5px;
  font-weight: 600;
}
.looked {
  background: var(--mark);
  box-shadow: inset 0 0 0 1px var(--mark-edge);
}
.off b {
  text-decoration: line-through;
  color: var(--ink-3);
}
.problem {
  color: var(--fail);
  font-weight: 600;
}
.ready {
  font-size: 12.5px;
}
.ready summary {
  cursor: pointer;
  color: var(--ink-2);
  margin-block-end: 4px;
}
.rows {
  overflow-x: auto;
}
.add {
  padding-block: 10px;
}
.tried {
  font-size: 12.5px;
  margin: 8px 0 0;
}
@media (prefers-reduced-motion: reduce) {
  .band {
    transition: none;
  }
}
.first {
  block-size: auto;
}
.first::before {
  content: attr(data-group);
  display: block;
  font-size: 12px;
  color: var(--ink-2);
  border-block-start: 1px solid var(--line);
}
</style>
