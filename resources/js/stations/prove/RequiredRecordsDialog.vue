<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { isSameRule, type RequiredRecord, sentenceOf } from '@/stations/prove/requiredRecords'
import { pairName } from '@/stations/prove/totals'
import { useRecordProposals } from '@/stations/prove/useRequiredRecords'

/** Which columns of the plan must have a record elsewhere: proposed ones with one press, others put together. The next tally looks. */
const props = defineProps<{
  draft: Schemas['PlanDraft']
  columns: Record<'source' | 'target', readonly string[]>
  isSaving: boolean
  course: Schemas['Course']
}>()
const emit = defineEmits<{ update: [records: readonly RequiredRecord[]]; close: [] }>()

type Pair = Schemas['KeyColumn']
const MOST = 5
const rules = computed(() => props.draft.records ?? [])
const proposals = useRecordProposals(() => props.course.id)
const proposed = computed(() => (proposals.data.value?.items ?? []).filter((one) => !rules.value.some((rule) => isSameRule(rule, one))))
const ruleOf = ({ in: dataset, columns, by }: Schemas['RequiredRecordProposal']): RequiredRecord => ({ in: dataset, columns, by })

const pairs = computed<Pair[]>(() => {
  const paired = [...props.draft.key, ...props.draft.columnPairs].map(({ source, target }) => ({ source, target }))
  const same = props.columns.source
    .filter((name) => props.columns.target.includes(name) && !paired.some((pair) => pair.source === name || pair.target === name))
    .map((name) => ({ source: name, target: name }))
  return [...paired, ...same]
})
const board = useQuery({
  queryKey: ['migration', () => props.course.migration.id, 'board'],
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/board', { params: { path: { migration: props.course.migration.id } }, signal })),
})
const datasets = computed(() => board.data.value?.datasets ?? [])
const entered = reactive({ in: '', lines: [{ column: '', source: '', target: '' }], ignoresForm: false })
const dataset = computed(() => datasets.value.find(({ name }) => name === entered.in))
const there = useQuery({
  queryKey: ['dataset', () => dataset.value?.id ?? 0, 'course'],
  queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}', { params: { path: { dataset: dataset.value?.id ?? 0 } }, signal })),
  enabled: () => dataset.value !== undefined,
})
/** What its records have on a side; of the other side, where that is all there is. */
const recordColumns = (side: 'source' | 'target'): string[] => {
  const [own, other] = side === 'source' ? [there.data.value?.source, there.data.value?.target] : [there.data.value?.target, there.data.value?.source]
  return (own ?? other)?.columns ?? []
}
const made = computed<RequiredRecord | null>(() => {
  const lines = entered.lines.flatMap(({ column, source, target }) => {
    const pair = pairs.value.find((one) => pairName(one) === column)
    return pair === undefined || source === '' || target === '' ? [] : [{ pair, by: { source, target } }]
  })
  if (entered.in === '' || lines.length < entered.lines.length) return null
  return {
    in: entered.in,
    columns: lines.map(({ pair }) => pair),
    by: lines.map(({ by }) => by),
    ...(entered.ignoresForm ? { forgives: ['case', 'spacing'] } : {}),
  }
})
const isThere = computed(() => made.value !== null && rules.value.some((rule) => made.value !== null && isSameRule(rule, made.value)))
function add(...added: RequiredRecord[]): void {
  emit('update', [...rules.value, ...added])
  Object.assign(entered, { in: '', lines: [{ column: '', source: '', target: '' }], ignoresForm: false })
}
/** A record is mostly called alike on both sides. */
function chooseSource(line: (typeof entered.lines)[number]): void {
  if (line.target === '' && recordColumns('target').includes(line.source)) line.target = line.source
}
</script>

<template>
  <el-dialog :model-value="true" title="Columns that must have a record in another dataset" width="min(720px, 95vw)" @close="emit('close')">
    <ul v-if="rules.length > 0" class="entries" aria-label="References of the plan">
      <li v-for="rule in rules" :key="sentenceOf(rule)">
        <span>{{ sentenceOf(rule) }}<template v-if="rule.forgives?.length">, whatever its case and spacing</template></span>
        <el-button
          size="small"
          :loading="isSaving"
          :aria-label="`Take away: ${sentenceOf(rule)}`"
          @click="
            emit(
              'update',
              rules.filter((one) => one !== rule),
            )
          "
          >Take away</el-button
        >
      </li>
    </ul>
    <p v-else class="quiet">None yet.</p>
    <ErrorNote :error="proposals.error.value ?? there.error.value" />
    <p v-if="proposals.isPending.value" class="quiet" role="status">Looking for columns that refer to other datasets …</p>
    <template v-if="proposed.length > 0">
      <h3>Proposed, from names and values</h3>
      <ul class="entries" aria-label="Proposed references">
        <li v-for="one in proposed" :key="sentenceOf(one)">
          <span
            >{{ sentenceOf(one) }}
            <span class="quiet" data-figure="proposals/found">{{ one.found }} of its {{ counted(one.values, 'most frequent value') }} have one</span></span
          >
          <el-button size="small" :loading="isSaving" :aria-label="`Take: ${sentenceOf(one)}`" @click="add(ruleOf(one))">Take it</el-button>
        </li>
      </ul>
      <el-button v-if="proposed.length > 1" size="small" type="primary" :loading="isSaving" @click="add(...proposed.map(ruleOf))">Take all of them</el-button>
    </template>
    <h3>Another one</h3>
    <form @submit.prevent="made !== null && add(made)">
      <label for="record-dataset">Records of</label>
      <select id="record-dataset" v-model="entered.in">
        <option value="" disabled>choose a dataset</option>
        <option v-for="one in datasets" :key="one.id" :value="one.name">{{ one.name }}{{ one.id === course.id ? ' (its own rows)' : '' }}</option>
      </select>
      <template v-for="(line, nth) in entered.lines" :key="nth">
        <label :for="`record-column-${nth}`">{{ nth === 0 ? 'for' : 'and' }}</label>
        <span class="line">
          <select :id="`record-column-${nth}`" v-model="line.column">
            <option value="" disabled>choose a column</option>
            <option v-for="pair in pairs" :key="pairName(pair)" :value="pairName(pair)">{{ pairName(pair) }}</option>
          </select>
          by
          <select
            v-model="line.source"
            :aria-label="`Column of the records in ${course.migration.sourceLabel}`"
            :disabled="!there.data.value"
            @change="chooseSource(line)"
          >
            <option value="" disabled>in {{ course.migration.sourceLabel }}</option>
            <option v-for="name in recordColumns('source')" :key="name" :value="name">{{ name }}</option>
          </select>
          <select v-model="line.target" :aria-label="`Column of the records in ${course.migration.targetLabel}`" :disabled="!there.data.value">
            <option value="" disabled>in {{ course.migration.targetLabel }}</option>
            <option v-for="name in recordColumns('target')" :key="name" :value="name">{{ name }}</option>
          </select>
          <el-button v-if="nth > 0" size="small" aria-label="Without this column" @click="entered.lines.splice(nth, 1)">×</el-button>
        </span>
      </template>
      <span />
      <span class="line">
        <el-button v-if="entered.lines.length < MOST" size="small" @click="entered.lines.push({ column: '', source: '', target: '' })"
          >A further column</el-button
        >
        <el-checkbox v-model="entered.ignoresForm">whatever its case and spacing</el-checkbox>
      </span>
      <p v-if="isThere">The plan has this one already.</p>
      <el-button type="primary" native-type="submit" :loading="isSaving" :disabled="made === null || isThere">Add it</el-button>
    </form>
    <p class="quiet">
      The next tally looks, in the deliveries that are newest when it begins: the old system's values in the old system's records, the new in the new.
    </p>
  </el-dialog>
</template>

<style scoped>
h3 {
  font-size: 13px;
  margin: 14px 0 6px;
}
p {
  font-size: 13px;
  margin: 6px 0;
}
form {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 8px 14px;
  align-items: center;
}
form > p,
form > :last-child {
  grid-column: 1 / -1;
  justify-self: start;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.line select {
  flex: 1 1 0;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--sheet);
  min-inline-size: 0;
}
</style>
