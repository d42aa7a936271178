<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'
import { useAskForWorkbook } from '@/composables/useWorkbooks'
import { count, counted } from '@/format/counts'
import { kinds } from '@/format/rules'
import CellValue from '@/parts/CellValue.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import LookUpProposals from '@/parts/LookUpProposals.vue'
import StationHead from '@/parts/StationHead.vue'
import { kindOf } from '@/stations/review/repeats/policies'
import { saidOf, taking, type Which } from '@/stations/review/rows/rowList'

/** Rows by where their key stands, one side or both, with any columns and what a reference says of them; or the distinct values of some columns. */
const props = defineProps<{ course: Schemas['Course'] }>()
const HALF_A_SECOND = 500
const { plan, draft } = useDraft(() => props.course)

/** Whoever comes from a look at repeats asks for the distinct values of its columns, wherever they stand. */
const { by: asksFor } = useRoute().query
const by = ref<string[]>([asksFor ?? []].flat().filter((name) => name !== null))
const which = ref<Which>(by.value.length > 0 ? 'all' : 'either')
const columns = ref<string[]>([])
/** The column of which the lowest and the highest value of a line are told, and what it is read as. */
const spanned = ref('')
const kind = ref<Schemas['Kind']>('text')
const isLookingUp = ref(false)
/** Where values are looked up, once it is said. */
const lookUp = ref<Partial<Schemas['Step']>>({})
/** The look-up as a step that is only tried; before it is said it is any. */
const step = computed<Schemas['Step']>(() => ({ id: 'listed', kind: 'look-up', ...nowhere.value, ...lookUp.value }))

const asked = computed<Schemas['AskedRowList']>(() => ({
  which: which.value,
  columns: columns.value,
  by: by.value,
  span: spanned.value === '' || by.value.length === 0 ? null : { column: spanned.value, kind: kind.value },
  lookUps: isLookingUp.value ? taking(step.value, lookUp.value.reference) : [],
}))
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'row-lists', () => props.course.source?.id, () => props.course.target?.id, () => draft.value, asked],
  queryFn: ({ signal }) => answer(api.POST('/datasets/{dataset}/row-lists', { params: { path: { dataset: props.course.id } }, body: asked.value, signal })),
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? HALF_A_SECOND : false),
  placeholderData: keepPreviousData,
  retry: false,
})
const found = computed(() => data.value?.found ?? null)
const done = computed(() => (data.value === undefined || data.value.total === 0 ? 0 : Math.floor((100 * data.value.done) / data.value.total)))
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const labels = computed(() => ({ source: label('source'), target: label('target') }))
const choices = computed(() => saidOf(labels.value, found.value?.counts))
watch(spanned, (name) => (kind.value = kindOf(plan.data.value?.source?.columns.find((column) => column.name === name)?.examples ?? [])))
const isOfValues = computed(() => by.value.length > 0)
/** Some of the columns that are listed one side may not have. */
const chosen = computed(() => (data.value?.chosen ?? []).map((name) => data.value?.columns.find((column) => column.name === name)))
const names = computed(() => (data.value?.columns ?? []).map(({ name }) => name))
const tried = computed<Schemas['TriedSteps']>(() => ({ side: 'source', preparation: [...(draft.value?.sides?.source?.preparation ?? []), step.value] }))
const paired = computed(() => (data.value?.columns ?? []).flatMap(({ source, target }) => (source !== null && target !== null ? [source] : [])))

const nowhere = computed(() => {
  const column = draft.value?.key[0]?.source ?? ''
  return { reference: '?', on: [{ column, reference: column }], take: [{ reference: column, into: '?' }] }
})

const workbook = useAskForWorkbook(() =>
  answer(api.POST('/datasets/{dataset}/row-lists/workbook', { params: { path: { dataset: props.course.id } }, body: asked.value })),
)
const link = (as: string): string => `/api/v1/datasets/${props.course.id}/row-lists/file?as=${as}&asked=${encodeURIComponent(JSON.stringify(asked.value))}`
</script>

<template>
  <main class="station">
    <StationHead heading="Which rows stand where" note="by the key, as both sides are prepared; whatever else the rows say">
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <LoadState :is-loading="isPending" :error="error" what="The list of rows" @retry="refetch()">
      <div class="asked">
        <label
          ><span>Rows that stand</span>
          <el-select v-model="which" aria-label="Rows that stand">
            <el-option v-for="one in choices" :key="one.which" :value="one.which" :label="one.name"
              >{{ one.name }} <span class="quiet">{{ one.rows }}</span></el-option
            >
          </el-select></label
        >
        <label
          ><span>with the columns</span>
          <el-select
            v-model="columns"
            multiple
            filterable
            collapse-tags
            :max-collapse-tags="3"
            aria-label="Columns that are listed"
            placeholder="the first ones"
          >
            <el-option v-for="name in names" :key="name" :value="name" :label="name" /> </el-select
        ></label>
        <label
          ><span>one line for each</span>
          <el-select v-model="by" multiple filterable collapse-tags :max-collapse-tags="3" aria-label="One line for each" placeholder="row">
            <el-option v-for="name in names" :key="name" :value="name" :label="name" /> </el-select
        ></label>
        <template v-if="isOfValues">
          <label
            ><span>lowest and highest of</span>
            <el-select v-model="spanned" filterable clearable :value-on-clear="''" aria-label="Lowest and highest of" placeholder="no column">
              <el-option v-for="name in names" :key="name" :value="name" :label="name" /> </el-select
          ></label>
          <label v-if="spanned !== ''"
            ><span>read as</span>
            <el-select v-model="kind" aria-label="Kind of the lowest and highest">
              <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="known.name" /> </el-select
          ></label>
        </template>
        <el-button v-if="course.mayWork && draft !== null" :aria-pressed="isLookingUp" @click="isLookingUp = !isLookingUp">{{
          isLookingUp ? 'Look nothing up' : 'Look up in a reference'
        }}</el-button>
      </div>
      <div v-if="isLookingUp" class="look-up">
        <LookUpProposals :dataset="course.id" :asked="tried" :step="step" :columns="paired" @change="lookUp = { ...lookUp, ...$event }" />
      </div>
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet waits" role="status">The keys of both sides are being held against each other: {{ done }} % …</p>
      <template v-if="found && !data?.isWaiting">
        <p class="said">
          <template v-for="side in ['source', 'target'] as const" :key="side"
            ><span :class="side === 'source' ? 'src' : 'tgt'">{{ label(side) }}</span
            >: {{ count(found.counts[side].alone) }} here alone, {{ count(found.counts[side].both) }} on both{{
              found.counts[side].unkeyed > 0 ? `, ${count(found.counts[side].unkeyed)} without a key` : ''
            }}.
          </template>
        </p>
        <p class="over">
          <template v-if="found.total > found.lines.length"
            >The first {{ count(found.lines.length) }} of {{ counted(found.total, isOfValues ? 'line' : 'row') }}.</template
          >
          <template v-else>{{ counted(found.total, isOfValues ? 'line' : 'row') }}.</template>
          <span v-if="found.total > 0" class="quiet"
            >Download them as <a :href="link('csv')" download>CSV</a>, <a :href="link('json-lines')" download>JSON Lines</a> or
            <button type="button" class="plain as-link" :disabled="workbook.isPending.value" @click="workbook.mutate()">workbook</button>.</span
          >
        </p>
        <ErrorNote :error="workbook.error.value" />
        <div v-if="found.total > 0" class="lines" tabindex="0" role="region" aria-label="Rows">
          <table class="figures">
            <thead>
              <tr>
                <template v-if="!isOfValues">
                  <th scope="col">side</th>
                  <th scope="col" class="number">line</th>
                </template>
                <th v-for="name in data?.chosen" :key="name" scope="col">{{ name }}</th>
                <template v-if="isOfValues">
                  <template v-if="asked.span">
                    <th scope="col">lowest {{ spanned }}</th>
                    <th scope="col">highest {{ spanned }}</th>
                  </template>
                  <template v-for="side in ['source', 'target'] as const" :key="side">
                    <th scope="col" class="number">rows in the {{ label(side).toLowerCase() }}</th>
                    <th scope="col">lines</th>
                  </template>
                </template>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(line, place) in found.lines" :key="place">
                <template v-if="!isOfValues">
                  <td :class="line.side === 'source' ? 'src' : 'tgt'">{{ label(line.side) }}</td>
                  <td class="number">{{ line.lines[line.side] }}</td>
                </template>
                <td v-for="(cell, nth) in line.cells" :key="nth">
                  <CellValue v-if="chosen[nth]?.[line.side] != null" :stretches="[{ text: cell, differs: false }]" :side="isOfValues ? undefined : line.side" />
                </td>
                <template v-if="isOfValues">
                  <td v-for="(value, nth) in line.span ?? []" :key="nth"><CellValue :stretches="[{ text: value, differs: false }]" /></td>
                  <template v-for="side in ['source', 'target'] as const" :key="side">
                    <td class="number">{{ count(line.rows[side]) }}</td>
                    <td class="quiet">{{ line.lines[side] }}</td>
                  </template>
                </template>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
<style scoped>
.look-up {
  padding: 6px 16px;
  border-block-end: 1px solid var(--line);
}
.lines {
  flex: 1 0 240px;
}
th {
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
}
td {
  max-inline-size: 320px;
}
</style>
