<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'
import RowsTable from '@/parts/RowsTable.vue'

/** Which rows repeat if only some columns count, and how often each combination of their values stands. */
const props = defineProps<{ course: Schemas['Course']; preset?: Partial<Record<'source' | 'target', string[]>> }>()
const emit = defineEmits<{ close: [] }>()
const SECOND = 1000

const side = ref<'source' | 'target'>(props.course.source === null ? 'target' : 'source')
/** Columns that a step makes do not stand in the delivery. */
const presetOf = (of: 'source' | 'target'): string[] => (props.preset?.[of] ?? []).filter((name) => props.course[of]?.columns.includes(name) === true)
const columns = ref<string[]>(presetOf(side.value))
const looked = ref<string[] | null>(null)
const delivery = computed(() => props.course[side.value])
const label = (of: 'source' | 'target'): string => (of === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)

const {
  data: combined,
  error,
  isFetching,
  refetch,
} = useQuery({
  queryKey: ['delivery', () => delivery.value?.id, 'combinations', columns],
  queryFn: () =>
    answer(api.POST('/deliveries/{delivery}/combinations', { params: { path: { delivery: delivery.value?.id ?? 0 } }, body: { columns: columns.value } })),
  enabled: () => columns.value.length > 0 && delivery.value !== null,
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND / 2 : false),
})
const { data: rows } = useQuery({
  queryKey: ['delivery', () => delivery.value?.id, 'sharing', columns, looked],
  queryFn: () =>
    answer(
      api.POST('/deliveries/{delivery}/rows-sharing', {
        params: { path: { delivery: delivery.value?.id ?? 0 } },
        body: { columns: columns.value, cells: looked.value ?? [] },
      }),
    ),
  enabled: () => looked.value !== null,
  staleTime: Infinity,
})
const whole = (text: string) => [{ text, differs: false }]
const sentence = computed(() => {
  const counted_ = combined.value?.counted ?? null
  if (counted_ === null) return ''
  return counted_.repeating === 0
    ? `${counted(counted_.rows, 'row')}, and no two share these values: they would tell every row apart.`
    : `${counted(counted_.rows, 'row')}, ${counted(counted_.distinct, 'combination')}; ${count(counted_.repeating)} of them stand more than once, in ${counted(counted_.repeatingRows, 'row')}.`
})
function chooseSide(of: 'source' | 'target'): void {
  side.value = of
  columns.value = presetOf(of)
  looked.value = null
}
</script>

<template>
  <el-dialog :model-value="true" title="Which rows repeat if only these columns count?" width="min(1000px, 95vw)" @close="emit('close')">
    <div class="choose">
      <fieldset>
        <legend class="unseen">Side</legend>
        <label v-for="of in ['source', 'target'] as const" :key="of" :class="of === 'source' ? 'src' : 'tgt'">
          <input type="radio" name="side" :value="of" :checked="side === of" :disabled="course[of] === null" @change="chooseSide(of)" />
          {{ label(of) }}
        </label>
      </fieldset>
      <el-select v-model="columns" multiple filterable aria-label="Columns that count" placeholder="columns that count" class="columns" @change="looked = null">
        <el-option v-for="name in delivery?.columns" :key="name" :value="name" :label="name" />
      </el-select>
    </div>
    <p v-if="columns.length === 0" class="quiet">Choose one or more columns. What stands in them is counted over the whole delivery.</p>
    <LoadState v-else :is-loading="combined === undefined && isFetching" :error="error" what="The combinations" @retry="refetch()">
      <p v-if="combined?.problem" class="warn" role="alert">{{ combined.problem }}</p>
      <p v-else-if="combined?.isWaiting" class="quiet" role="status">
        Counting<template v-if="combined.total > 0">: {{ Math.floor((100 * combined.done) / combined.total) }} %</template> …
      </p>
      <template v-else-if="combined?.counted">
        <p role="status">{{ sentence }}</p>
        <div class="list" tabindex="0" role="region" aria-label="Combinations">
          <table class="figures">
            <thead>
              <tr>
                <th v-for="name in combined.columns" :key="name" scope="col">{{ name }}</th>
                <th scope="col" class="number">rows</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, nth) in combined.counted.most" :key="nth">
                <td v-for="(cell, place) in one.cells" :key="place"><CellValue :stretches="whole(cell)" :side="side" /></td>
                <td class="number">
                  <button type="button" class="plain link" @click="looked = one.cells">{{ count(one.count) }}</button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="combined.counted.distinct > combined.counted.most.length" class="quiet">
          The {{ count(combined.counted.most.length) }} that stand most often, of {{ count(combined.counted.distinct) }}.
        </p>
      </template>
    </LoadState>
    <div v-if="looked && rows" class="list" tabindex="0" role="region" aria-label="Rows that share these values">
      <p class="quiet">{{ counted(rows.rows.length, 'row') }}{{ rows.isAll ? '' : ', the first of more' }}</p>
      <RowsTable :columns="rows.columns" :rows="rows.rows" :side="side" />
    </div>
  </el-dialog>
</template>

<style scoped>
.choose {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  align-items: center;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 14px;
}
th,
.number {
  white-space: nowrap;
}
.columns {
  flex: 1 1 300px;
}
.list {
  overflow: auto;
  max-block-size: 300px;
  border: 1px solid var(--line);
  margin-block-start: 8px;
}
.link {
  text-decoration: underline;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
</style>
