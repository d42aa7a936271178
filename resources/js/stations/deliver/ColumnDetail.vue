<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { kindName } from '@/format/rules'
import CellValue from '@/parts/CellValue.vue'
import { useDraft } from '@/composables/useDraft'
import LoadState from '@/parts/LoadState.vue'
import RowsTable from '@/parts/RowsTable.vue'
import DemandForm from '@/stations/deliver/DemandForm.vue'
import { useMisfits } from '@/stations/deliver/useMisfits'

/** All that is known of a column on each side; the rows behind any figure are one click away. */
const props = defineProps<{ row: Schemas['ProfileRow']; course: Schemas['Course'] }>()
const emit = defineEmits<{ close: [] }>()

type Is = 'blank' | 'value' | 'shape' | 'invisible' | 'line-ends'
const asked = ref<{ side: 'source' | 'target'; is: Is; value: string } | null>(null)
const sides = computed(() =>
  (['source', 'target'] as const).map((side) => ({
    side,
    label: side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel,
    column: props.row[side],
  })),
)
const { data, error, isFetching } = useQuery({
  queryKey: ['delivery', () => (asked.value === null ? 0 : props.course[asked.value.side]?.id), 'rows', () => props.row, asked],
  queryFn: () => {
    const { side, is, value } = asked.value ?? { side: 'source', is: 'blank' as const, value: '' }
    return answer(
      api.GET('/deliveries/{delivery}/rows', {
        params: { path: { delivery: props.course[side]?.id ?? 0 }, query: { column: props.row[side]?.name ?? '', is, value } },
      }),
    )
  },
  enabled: () => asked.value !== null,
  staleTime: Infinity,
})
const { draft, saving, demand } = useDraft(() => props.course)
const { data: misfits } = useMisfits(
  () => props.course,
  () => [draft.value?.demands, saving.isPending.value],
)
const whole = (text: string) => [{ text, differs: false }]
const figures = (column: Schemas['ColumnProfile']): { name: string; text: string; is?: Is }[] => [
  { name: 'values', text: count(column.values) },
  { name: 'blank', text: count(column.blank), ...(column.blank > 0 ? { is: 'blank' as const } : {}) },
  { name: 'distinct', text: `${column.distinct_is_exact ? '' : 'about '}${count(column.distinct)}` },
  { name: 'looks like', text: `${kindName(column.kind)}: ${column.evidence}` },
  ...(column.range === null ? [] : [{ name: 'from, to', text: column.range.join(' … ') }]),
  ...(column.sum === null ? [] : [{ name: 'sum', text: column.sum }]),
  ...(column.lengths === null ? [] : [{ name: 'characters', text: column.lengths.join(' to ') }]),
  ...(column.bytes === null ? [] : [{ name: 'bytes', text: column.bytes.join(' to ') }]),
  ...(column.invisible === 0 ? [] : [{ name: 'with invisible characters', text: count(column.invisible), is: 'invisible' as const }]),
  ...(column.line_ends === 0 ? [] : [{ name: 'with line ends', text: count(column.line_ends), is: 'line-ends' as const }]),
]
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="
      row.source && row.target && row.source.name !== row.target.name ? `${row.source.name} and ${row.target.name}` : ((row.source ?? row.target)?.name ?? '')
    "
    width="min(1100px, 95vw)"
    @close="emit('close')"
  >
    <div class="two">
      <section v-for="{ side, label, column } in sides" :key="side" :aria-label="label">
        <h3 :class="side === 'source' ? 'src' : 'tgt'">{{ label }}</h3>
        <p v-if="column === null" class="quiet">has no such column</p>
        <template v-else>
          <dl>
            <template v-for="figure in figures(column)" :key="figure.name">
              <dt>{{ figure.name }}</dt>
              <dd>
                <button v-if="figure.is" type="button" class="plain link" @click="asked = { side, is: figure.is, value: '' }">{{ figure.text }}</button>
                <template v-else>{{ figure.text }}</template>
              </dd>
            </template>
          </dl>
          <template v-if="column.blank_tokens.length > 0">
            <h4>may mean blank</h4>
            <button
              v-for="token in column.blank_tokens"
              :key="token.value"
              type="button"
              class="plain value"
              @click="asked = { side, is: 'value', value: token.value }"
            >
              <CellValue :stretches="whole(token.value)" :side="side" /><span>{{ count(token.count) }}</span>
            </button>
          </template>
          <h4>most frequent</h4>
          <button
            v-for="value in column.most_frequent"
            :key="value.value"
            type="button"
            class="plain value"
            @click="asked = { side, is: 'value', value: value.value }"
          >
            <CellValue :stretches="whole(value.value)" :side="side" /><span>{{ count(value.count) }}</span>
          </button>
          <p v-if="column.most_frequent.length === 0 && column.distinct > 0" class="quiet">too many values to count each</p>
          <h4>shapes</h4>
          <button
            v-for="shape in column.shapes"
            :key="shape.shape"
            type="button"
            class="plain value"
            @click="asked = { side, is: 'shape', value: shape.shape }"
          >
            <CellValue :stretches="whole(shape.shape)" :side="side" /><span>{{ count(shape.count) }}</span>
          </button>
          <DemandForm
            v-if="side === 'target' && draft"
            :column="column.name"
            :demand="draft.demands?.[column.name] ?? {}"
            :misfits="misfits ?? null"
            :may-work="course.mayWork"
            @demand="demand(column.name, $event)"
          />
        </template>
      </section>
    </div>
    <section v-if="asked" class="rows" tabindex="0" role="region" aria-label="The rows behind the figure">
      <LoadState :is-loading="isFetching" :error="error" what="The rows">
        <p v-if="data" class="quiet">{{ counted(data.rows.length, 'row') }}{{ data.isAll ? '' : ', the first of more' }}</p>
        <RowsTable v-if="data" :columns="data.columns" :rows="data.rows" :side="asked.side" />
      </LoadState>
    </section>
  </el-dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
h3,
h4 {
  margin: 8px 0 4px;
  font-size: 14px;
}
h4 {
  font-size: 12px;
  color: var(--ink-3);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 0;
  font-size: 13px;
}
dt {
  color: var(--ink-3);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.link {
  text-decoration: underline;
}
.value {
  inline-size: 100%;
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 1px 4px;
  text-align: start;
  font-size: 13px;
}
.value:hover {
  background: var(--floor);
}
.value :deep(.cell) {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.rows {
  margin-block-start: 12px;
  max-block-size: 260px;
  overflow: auto;
  position: relative;
  border: 1px solid var(--line);
  padding: 6px;
}
.rows table {
  inline-size: auto;
  table-layout: auto;
}
.rows th,
.rows td {
  white-space: nowrap;
  overflow-wrap: normal;
}
p {
  margin: 0;
}
@media (width < 700px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
