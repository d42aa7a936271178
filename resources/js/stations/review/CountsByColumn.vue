<script lang="ts">
/** By tally: by which column was counted last. */
const last = new Map<number, string>()
</script>

<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import CellValue from '@/parts/CellValue.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import { type Filter, isOfCells } from '@/stations/review/filter'

/** How many of the findings each value of a column has: which basin lost them. Each is a filter. */
const props = defineProps<{ tally: Schemas['Tally']; filter: Filter; columns: readonly string[] }>()
const emit = defineEmits<{ narrow: [terms: Filter] }>()
/** The first of several key columns groups rows, which the only one cannot: each row has a value of its own there. */
const usual = props.tally.keyColumns.length > 1 ? props.columns[0] : (props.columns.find((name) => !props.tally.keyColumns.includes(name)) ?? props.columns[0])
const remembered = last.get(props.tally.id)
const column = ref(remembered !== undefined && props.columns.includes(remembered) ? remembered : (usual ?? ''))
watch(column, (chosen) => last.set(props.tally.id, chosen))
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', () => props.tally.id, 'by-column', column, () => props.filter],
  queryFn: ({ signal }) =>
    answer(
      api.GET('/tallies/{tally}/findings/by-column', {
        params: {
          path: { tally: props.tally.id },
          query: { of: isOfCells(props.filter) ? 'cells' : 'rows', ...props.filter, by: column.value },
        },
        signal,
      }),
    ),
  enabled: () => column.value !== '',
})
const most = computed(() => Math.max(1, ...(data.value?.items ?? []).map(({ findings }) => findings)))
</script>

<template>
  <section class="counts" aria-label="Counted by a column">
    <el-select v-model="column" size="small" filterable aria-label="Count by the column" class="which">
      <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
    </el-select>
    <LoadState :is-loading="isPending" :error="error" what="The counts" @retry="refetch()">
      <ol>
        <li v-for="item in data?.items" :key="item.value">
          <button type="button" class="plain" @click="emit('narrow', { column, value: item.value })">
            <CellValue :stretches="[{ text: item.value, differs: false }]" />
          </button>
          <i aria-hidden="true"><u :style="{ inlineSize: `${(100 * item.findings) / most}%` }" /></i>
          <b><FigureValue name="by-column/items" :of="item.findings" /></b>
        </li>
        <li v-if="data?.isMasked" class="quiet">The values of this column are masked for you.</li>
        <li v-else-if="data && !data.isAll" class="quiet">These are the most frequent values.</li>
        <li v-else-if="data && data.items.length === 0" class="quiet">No finding of the list has a row with this column.</li>
      </ol>
    </LoadState>
  </section>
</template>

<style scoped>
.counts {
  flex: 1 0 100%;
  display: grid;
  gap: 4px;
}
.which {
  inline-size: 220px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-block-size: 180px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(90px, 200px) minmax(40px, 260px) auto;
  gap: 10px;
  align-items: center;
  min-block-size: 24px;
}
button {
  text-align: start;
  text-decoration: underline;
  overflow: hidden;
  text-overflow: ellipsis;
}
i {
  block-size: 8px;
  background: var(--line-2);
}
u {
  display: block;
  block-size: 8px;
  background: var(--both);
}
b {
  font-weight: 550;
}
</style>
