<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { kindName } from '@/format/rules'
import { named } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import ColumnDetail from '@/stations/deliver/ColumnDetail.vue'
import { byWeight, differenceInWords } from '@/stations/deliver/differences'
import { useProfile } from '@/stations/deliver/useProfile'
import { useMisfits } from '@/stations/deliver/useMisfits'
import ValuesOnOneAxis from '@/stations/deliver/ValuesOnOneAxis.vue'

/** Each column of both sides on one axis, the source above the line and the target below, with what differs; what differs most comes first. */
const props = defineProps<{ course: Schemas['Course'] }>()
const { data, error, isPending, refetch } = useProfile(() => props.course)
const again = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/profile', { params: { path: { dataset: props.course.id } } })),
  onSuccess: () => refetch(),
})
const inFileOrder = ref(false)
const both = computed(() => props.course.source !== null && props.course.target !== null)
const rows = computed(() => (inFileOrder.value || !both.value ? (data.value?.rows ?? []) : byWeight(data.value?.rows ?? [])))
const differing = computed(() => (data.value?.rows ?? []).filter(({ weight, looksChanged }) => weight > 0 || looksChanged).length)
const looked = ref<Schemas['ProfileRow'] | null>(null)
const { data: misfits } = useMisfits(
  () => props.course,
  () => looked.value === null,
)
/** How many values of the source do not meet what the target demands of a column. */
const unfit = (target: string): number =>
  misfits.value?.counted?.columns.find((column) => column.target === target)?.unmet.reduce((sum, { count: times }) => sum + times, 0) ?? 0

/** The most telling thing about a column, in a few words. */
function line(column: Schemas['ColumnProfile'] | null): string {
  if (column === null) return ''
  const filled = column.values - column.blank
  if (filled === 0) return 'always blank'
  const said: string[] = []
  if (column.kind !== 'text' && column.range !== null) said.push(`${column.range[0] ?? ''} to ${column.range[1] ?? ''}`)
  else if (column.distinct <= 6) said.push(`${counted(column.distinct, 'value')}: ${column.most_frequent.map(({ value }) => value).join(' ')}`)
  else if (column.shapes.length === 1 && column.shapes[0]?.count === filled) said.push(`${count(column.distinct)} values, all shaped ${column.shapes[0].shape}`)
  else
    said.push(
      `${column.distinct_is_exact ? '' : 'about '}${counted(column.distinct, 'value')}, ${column.lengths?.[0] ?? 0} to ${column.lengths?.[1] ?? 0} characters`,
    )
  if (column.sum !== null) said.push(`sum ${column.sum}`)
  if (column.blank > 0) said.push(`${count(column.blank)} blank`)
  for (const token of column.blank_tokens.slice(0, 2)) said.push(`${count(token.count)} written ${token.value.trim() === '' ? 'as spaces' : token.value}`)
  if (column.invisible > 0) said.push(`${count(column.invisible)} with invisible characters`)
  if (column.line_ends > 0) said.push(`${count(column.line_ends)} with line ends`)
  return said.join(', ')
}
const nameOf = (side: 'source' | 'target', row: Schemas['ProfileRow']): string | undefined =>
  row[side] === null ? undefined : named('profile', side, row[side].name)
const readAs = (row: Schemas['ProfileRow']): string => {
  const kinds = [...new Set([row.source?.kind, row.target?.kind].filter((kind) => kind !== undefined))].map(kindName)
  return kinds.join(' / ')
}
</script>

<template>
  <div class="profile">
    <LoadState v-if="course.source || course.target" :is-loading="isPending" :error="error" what="The profile" @retry="refetch()">
      <p v-if="data?.problem" class="warn" role="alert">
        {{ data.problem }} <el-button v-if="course.mayWork" size="small" :loading="again.isPending.value" @click="again.mutate()">Look again</el-button>
      </p>
      <ErrorNote :error="again.error.value" />
      <p v-if="data?.isReading" class="quiet reading" role="status">Reading the values …</p>
      <p v-if="data && data.rows.length > 0 && both" class="said">
        <span role="status"
          ><b
            ><FigureValue name="profile/rows/differing" :of="differing" /> of <FigureValue name="profile/rows/length" :of="data.rows.length" /> columns
            differ</b
          >
          in what they hold; what differs most stands first.</span
        >
        <el-button link size="small" :aria-pressed="inFileOrder" @click="inFileOrder = !inFileOrder">{{
          inFileOrder ? 'By what differs' : 'In the order of the file'
        }}</el-button>
      </p>
      <table v-if="data && data.rows.length > 0">
        <thead>
          <tr>
            <th scope="col">source column</th>
            <th scope="col" class="axis">values: source above, target below</th>
            <th scope="col" class="differs">what differs</th>
            <th scope="col" class="number">target column</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="`${row.source?.name} ${row.target?.name}`">
            <th scope="row">
              <button v-if="row.source" type="button" class="plain name" @click="looked = row">{{ row.source.name }}</button><span
                class="quiet"
                :data-figure="nameOf('source', row)"
                >{{ line(row.source) }}</span
              >
            </th>
            <td><ValuesOnOneAxis :row="row" /></td>
            <td>
              <span v-if="row.differs.length === 0 && !row.looksChanged" class="quiet">{{ readAs(row) }}; nothing seen</span>
              <ul v-else data-sentence="profile/differs">
                <li v-for="difference in row.differs" :key="difference.fact">{{ differenceInWords(difference) }}</li>
                <li v-if="row.looksChanged && row.differs.length === 0">other values stand more often</li>
              </ul>
            </td>
            <th scope="row" class="number">
              <button v-if="row.target" type="button" class="plain name" @click="looked = row">{{ row.target.name }}</button><span
                class="quiet"
                :data-figure="nameOf('target', row)"
                >{{ line(row.target) }}</span
              >
              <span v-if="row.target && unfit(row.target.name) > 0" class="warn unfit" data-figure="misfits"
                >{{ count(unfit(row.target.name)) }} of the source will not fit</span
              >
            </th>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <p v-else class="empty quiet">The columns of both sides stand here, next to each other, as soon as a side has delivered.</p>
    <ColumnDetail v-if="looked" :row="looked" :course="course" @close="looked = null" />
  </div>
</template>

<style scoped>
.profile {
  position: relative;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  table-layout: fixed;
  background: var(--sheet);
}
thead th {
  font-size: 12px;
  color: var(--ink-3);
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
  z-index: 1;
}
th,
td {
  text-align: start;
  padding: 6px 16px;
  border-block-end: 1px solid var(--line-2);
  overflow: hidden;
  vertical-align: middle;
}
th {
  font-weight: 600;
}
th .quiet,
td .quiet {
  display: block;
  font-size: 12px;
  font-weight: 400;
  overflow-wrap: anywhere;
}
.name {
  font-weight: 600;
  text-align: inherit;
  overflow-wrap: anywhere;
}
.name:hover {
  text-decoration: underline;
}
.axis {
  inline-size: 26%;
}
.differs {
  inline-size: 24%;
}
ul {
  margin: 0;
  padding-inline-start: 14px;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.said {
  margin: 0;
  padding: 6px 16px;
  font-size: 13px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}
.number {
  text-align: end;
}
.empty,
.reading {
  padding: 16px;
  margin: 0;
}
.unfit {
  font-weight: 400;
  font-size: 12px;
}
.warn {
  background: var(--warn);
  padding: 6px 16px;
  margin: 0;
}
</style>
