<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { named } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import RowsTable from '@/parts/RowsTable.vue'
import { useRecordLines } from '@/stations/prove/useRequiredRecords'

/** Values without a record, those that most rows need first; or records that nothing refers to. */
const props = defineProps<{ course: Schemas['Course']; check: Schemas['RecordCheck']; list: Schemas['RecordList'] }>()
const tally = computed(() => props.course.tally?.id ?? 0)

const PAGE = 200
const from = ref(1)
const { data, error, isPending, refetch } = useRecordLines(
  () => tally.value,
  () => props.check.number,
  () => props.list,
  () => from.value,
)
const isOfRecords = computed(() => props.list.startsWith('unreferenced'))
const side = computed(() => (props.list.endsWith('source') ? 'source' : 'target'))
/** Where the engine has them. */
const lines = computed(() => named('records', props.check.number - 1, isOfRecords.value ? 'unreferenced' : 'missing'))
const names = computed(() => (isOfRecords.value ? props.check.rule.by : props.check.rule.columns).map((pair) => pair[side.value]))
const taken = computed(
  () => `/api/v1/tallies/${tally.value}/required-records/${props.check.number}/taken?${new URLSearchParams({ list: props.list }).toString()}`,
)
/** The delivery whose rows need the values: where its columns came as they are, and no newer one is there, its rows can be shown. */
const delivery = computed(() => {
  const own = side.value === 'source' ? props.course.source : props.course.target
  const isShown = props.course.tally?.isOnLatestDeliveries === true && names.value.every((name) => own?.columns.includes(name) === true)
  return isShown && !isOfRecords.value ? own : null
})
const opened = ref<Schemas['RecordLine'] | null>(null)
const rows = useQuery({
  queryKey: ['delivery', () => delivery.value?.id ?? 0, 'sharing', names, () => opened.value?.values ?? []],
  queryFn: ({ signal }) =>
    answer(
      api.POST('/deliveries/{delivery}/rows-sharing', {
        params: { path: { delivery: delivery.value?.id ?? 0 } },
        body: { columns: [...names.value], cells: [...(opened.value?.values ?? [])] },
        signal,
      }),
    ),
  enabled: () => opened.value !== null && delivery.value !== null,
})
const shown = (value: string): string => (value === '' ? '(blank)' : value)
</script>

<template>
  <LoadState :is-loading="isPending" :error="error" what="The values" @retry="refetch()">
    <p v-if="data?.isMasked" class="note">These values are masked for you. How many they are stands above.</p>
    <template v-else>
      <table>
        <thead>
          <tr>
            <th v-for="name in names" :key="name" scope="col">{{ name }}</th>
            <th scope="col" class="number">{{ isOfRecords ? 'records' : 'rows that need it' }}</th>
            <th scope="col">{{ isOfRecords ? 'delivered' : `the first of them: ${course.keyColumns.join(', ')}` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in data?.items" :key="line.place">
            <td v-for="(value, column) in line.values" :key="column" class="cell" :class="side === 'source' ? 'src' : 'tgt'">{{ shown(value) }}</td>
            <td class="number"><FigureValue :name="lines" :of="line.rows ?? line.records ?? 0" /></td>
            <td v-if="isOfRecords" class="quiet">{{ line.part === 1 ? '' : `part ${line.part}, ` }}line {{ line.line }}</td>
            <td v-else>
              <span class="cell quiet">{{ (line.first ?? []).join(', ') }}</span>
              <button v-if="delivery" type="button" class="plain as-link open" @click="opened = line">its rows</button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="pages">
        <template v-if="from > 1 || data?.next">
          <el-button size="small" :disabled="from === 1" @click="from = Math.max(1, from - PAGE)">Before</el-button>
          <el-button size="small" :disabled="!data?.next" @click="from = data?.next ?? from">Further</el-button>
        </template>
        <a :href="taken" download>Download as CSV</a>
      </p>
      <el-dialog
        v-if="opened"
        :model-value="true"
        :title="`Rows that need ${opened.values.map(shown).join(', ')}`"
        width="min(1000px, 95vw)"
        @close="opened = null"
      >
        <LoadState :is-loading="rows.isPending.value" :error="rows.error.value" what="The rows" @retry="rows.refetch()">
          <RowsTable v-if="rows.data.value" :side="side" :rows="rows.data.value.rows" :columns="rows.data.value.columns" />
          <p v-if="rows.data.value && !rows.data.value.isAll" class="note">
            The first of <FigureValue :name="lines" :of="opened.rows ?? 0" /> rows, as they were delivered.
          </p>
        </LoadState>
      </el-dialog>
    </template>
  </LoadState>
</template>

<style scoped>
table {
  border-collapse: collapse;
  font-size: 13px;
  min-inline-size: min(100%, 480px);
}
th,
td {
  text-align: start;
  padding: 5px 18px 5px 0;
  border-block-end: 1px solid var(--line-2);
  vertical-align: top;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
.number {
  text-align: end;
}
td.cell {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.open {
  margin-inline-start: 12px;
}
.pages {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
.note {
  font-size: 13px;
}
</style>
