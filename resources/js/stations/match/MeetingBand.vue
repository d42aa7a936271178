<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { hasStep, type Fold, type Rung } from '@/composables/draftChanges'
import { count, counted } from '@/format/counts'
import { declaredInWords } from '@/format/forms'
import { formCauses } from '@/format/rules'
import CellValue from '@/parts/CellValue.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LonelyKeysDialog from '@/stations/match/LonelyKeysDialog.vue'

/** How many rows meet by the key, before anything else is looked at; and what of form keeps the others apart. */
const props = defineProps<{
  meeting: Schemas['Advice']['meeting']
  keys: Schemas['Advice']['keys']
  fold: Schemas['Advice']['fold']
  draftKey: readonly Schemas['KeyColumn'][]
  labels: { source: string; target: string }
  isChanging: boolean
  mayWork: boolean
}>()
const emit = defineEmits<{ forgive: [rungs: Rung[], asSteps: boolean]; use: [columns: Schemas['KeyColumn'][]]; fold: [fold: Fold]; again: [] }>()

const showsLonely = ref(false)
const found = computed(() => props.meeting?.found ?? null)
const left = computed(() => (found.value === null ? 0 : found.value.rows.source - found.value.met))
const name = (columns: readonly Schemas['KeyColumn'][]): string => columns.map(({ source }) => source).join(' + ')
const couldMeet = (key: Schemas['AdvisedKey']): number => Math.max(key.couldMeet ?? 0, key.oneToOne ?? 0)
/** A key that is advised, and joins clearly more than the one that is chosen, or the first where none is. */
const better = computed(() => {
  const best = props.keys.advised.find(({ isOfAllRows }) => isOfAllRows)
  if (best === undefined || name(best.columns) === name(props.draftKey)) return null
  if (props.draftKey.length === 0) return best
  const reachable = found.value === null ? Infinity : found.value.met + Math.max(0, ...[...found.value.rungs, ...together.value].map(({ brings }) => brings))
  return couldMeet(best) > 1.02 * reachable ? best : null
})
const together = computed(() => (found.value?.together == null ? [] : [found.value.together]))
const cause = (rung: Rung): string =>
  rung.cause === 'crosswalk' ? 'other words for the same' : (formCauses.find((known) => known.cause === rung.cause)?.name ?? rung.cause)
const declares = (rung: Rung): string =>
  (['source', 'target'] as const).flatMap((side) => declaredInWords(rung[side]).map((words) => `${props.labels[side]}: ${words}`)).join('; ')
const shares = ({ source, target }: Schemas['SideFigures']): string =>
  source + target === 0
    ? 'no more rows share a key'
    : [source > 0 ? `${counted(source, 'row')} of the source` : '', target > 0 ? `${counted(target, 'row')} of the target` : ''].filter(Boolean).join(' and ') +
      ' more then share a key'
const rungsOf = (places: readonly number[]): Rung[] => places.flatMap((place) => found.value?.rungs[place] ?? [])
const share = computed(() => (found.value === null || found.value.rows.source === 0 ? 0 : found.value.met / found.value.rows.source))
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <section class="band" :class="{ low: found !== null && share < 0.5 }" aria-label="How many rows meet" :aria-busy="meeting?.isWaiting === true || isChanging">
    <p v-if="meeting === null" role="status">
      <template v-if="draftKey.length === 0"><b>No key yet.</b> Which columns say which row is which?</template>
      <span v-if="draftKey.length === 0 && better === null" class="quiet">
        {{
          keys.isWaiting ? 'Columns that tell rows apart are being looked for …' : 'Press the box in front of each column that tells one row from another.'
        }}</span
      >
    </p>
    <p v-else-if="meeting.problem" class="problem" role="alert">{{ meeting.problem }} <el-button link @click="emit('again')">Look again</el-button></p>
    <p v-else-if="found === null" role="status">
      Counting the rows that meet by <b>{{ name(draftKey) }}</b><span v-if="meeting.total > 0" data-ordinal
        >: {{ Math.min(99, Math.floor((100 * meeting.done) / meeting.total)) }} %</span
      >
      …
    </p>
    <div v-else class="head" role="status">
      <p class="meets">
        <b
          ><FigureValue name="advice/meeting/found/met" :of="found.met" /> of
          <FigureValue name="advice/meeting/found/rows/source" :of="found.rows.source" /> source rows meet one</b
        >
        by {{ name(draftKey) }}
        <span class="quiet"
          >(<FigureValue name="advice/meeting/found/oneToOne" :of="found.oneToOne" /> one to one;
          <FigureValue name="advice/meeting/found/rows/target" :of="found.rows.target" /> rows in the target)</span
        >
      </p>
      <i aria-hidden="true"><u :style="{ inlineSize: `${100 * share}%` }" /></i>
      <el-button v-if="left > 0 && found.beside.length > 0" size="small" @click="showsLonely = true">Look at rows that meet none</el-button>
    </div>
    <p v-if="fold !== null" class="better">
      <span
        ><b
          ><span data-ordinal>{{ fold.columns.length }}</span> columns</b
        >
        of {{ labels[fold.side] }}, {{ fold.columns[0] }} to {{ fold.columns[fold.columns.length - 1] }}, stand as rows in
        {{ labels[fold.side === 'source' ? 'target' : 'source'] }}, in {{ fold.namesInto }} and {{ fold.valuesInto }}.</span
      >
      <el-button v-if="mayWork" size="small" type="primary" @click="emit('fold', fold)">Turn them into rows</el-button>
    </p>
    <p v-if="better !== null && fold === null" class="better">
      <span v-if="draftKey.length > 0">Another key joins more: </span>
      <span data-figure="advice/keys/advised"
        ><b>{{ name(better.columns) }}</b
        >: {{ count(couldMeet(better)) }} of {{ counted(better.rows.source, 'source row') }} would meet one to one.</span
      >
      <el-button v-if="mayWork" size="small" type="primary" @click="emit('use', [...better.columns])">Use it as the key</el-button>
    </p>
    <table v-if="found !== null && found.rungs.length > 0" class="ladder">
      <caption class="unseen">
        What of form keeps rows apart
      </caption>
      <tbody>
        <tr v-for="rung in found.rungs" :key="`${rung.column} ${rung.cause} ${declares(rung)}`">
          <th scope="row">{{ rung.column }}</th>
          <td>
            {{ cause(rung)
            }}<span v-if="rung.example" class="quiet">
              such as <CellValue :stretches="whole(rung.example.source)" side="source" /> and
              <CellValue :stretches="whole(rung.example.target)" side="target" /></span
            ><span v-if="declares(rung) !== ''" class="quiet" data-sentence="advice/meeting/found/rungs"> ({{ declares(rung) }})</span>
          </td>
          <td data-figure="advice/meeting/found/rungs">
            {{ rung.brings === 0 ? 'brings rows in with another' : `brings in ${counted(rung.brings, 'row')}` }}, {{ shares(rung.shares) }};
            {{ rung.left === 0 ? 'none is left' : `${count(rung.left)} meet none` }}
          </td>
          <td v-if="mayWork" class="acts">
            <el-button
              v-if="rung.cause === 'crosswalk'"
              size="small"
              :aria-label="`Translate ${rung.column} by a crosswalk`"
              @click="emit('forgive', [rung], true)"
              >Translate by a crosswalk</el-button
            >
            <el-button v-else size="small" :aria-label="`Ignore ${cause(rung)} in ${rung.column}`" @click="emit('forgive', [rung], false)"
              >Ignore in the key</el-button
            >
            <el-button
              v-if="hasStep(rung.cause)"
              link
              size="small"
              :aria-label="`Take ${cause(rung)} away from ${rung.column} by a step`"
              @click="emit('forgive', [rung], true)"
              >by a step</el-button
            >
          </td>
        </tr>
        <tr v-for="all in together" :key="all.rungs.join()" class="together">
          <th scope="row">together</th>
          <td>
            <span data-ordinal>{{ all.rungs.length }}</span> of these
          </td>
          <td data-figure="advice/meeting/found/together">
            bring in {{ counted(all.brings, 'row') }}, {{ shares(all.shares) }}; {{ all.left === 0 ? 'none is left' : `${count(all.left)} meet none` }}
          </td>
          <td v-if="mayWork" class="acts">
            <el-button size="small" type="primary" @click="emit('forgive', rungsOf(all.rungs), false)"
              ><span>Bring in <FigureValue name="advice/meeting/found/together/brings" :of="all.brings" /> rows</span></el-button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <LonelyKeysDialog
      v-if="showsLonely && found !== null"
      :beside="found.beside"
      :columns="draftKey"
      :labels="labels"
      :left="left"
      @close="showsLonely = false"
    />
  </section>
</template>

<style scoped>
.band {
  padding: 8px 16px;
  background: var(--floor);
  border-block-end: 1px solid var(--line);
  display: grid;
  gap: 6px;
  font-size: 13.5px;
}
.low {
  background: var(--warn);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
.meets b {
  font-size: 15px;
}
i {
  flex: 0 1 160px;
  block-size: 8px;
  background: var(--src-wash);
}
u {
  display: block;
  block-size: 8px;
  background: var(--both);
}
p {
  margin: 0;
}
.better {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.ladder {
  border-collapse: collapse;
  background: var(--sheet);
}
th,
td {
  text-align: start;
  padding: 4px 10px;
  border-block-start: 1px solid var(--line-2);
  font-weight: 400;
}
th {
  font-weight: 600;
}
.acts {
  white-space: nowrap;
  text-align: end;
}
.problem {
  color: var(--fail);
}
</style>
