<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api } from '@/api/client'
import { counted, inWords } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import RowMark from '@/parts/RowMark.vue'
import TopBar from '@/parts/TopBar.vue'
import AddDataset from '@/stations/board/AddDataset.vue'
import BoardTable from '@/stations/board/BoardTable.vue'

const route = useRoute()
const id = computed(() => Number(route.params.migration))
const queries = useQueryClient()
/** Runs take their time: the figures of the board follow as each is done. */
const all = useMutation({
  mutationFn: () => answer(api.POST('/migrations/{migration}/runs', { params: { path: { migration: id.value } } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset'] }),
})
const {
  data: board,
  error,
  isPending,
  refetch,
} = useQuery({
  queryKey: ['migration', id, 'board'],
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/board', { params: { path: { migration: id.value } }, signal })),
  refetchInterval: () => ((all.data.value?.started.length ?? 0) > 0 ? 5000 : false),
})
const isAdding = ref(false)

const heading = computed(() => {
  const all = board.value?.datasets ?? []
  if (all.length === 0) return 'No dataset yet'
  const datasets = all.filter((dataset) => !dataset.isReference)
  const whole = `${inWords(datasets.length)} ${datasets.length === 1 ? 'dataset' : 'datasets'}`
  const tallied = datasets.filter((dataset) => dataset.tally !== null)
  const explained = tallied.filter((dataset) => dataset.tally?.openFindings === 0).length
  if (tallied.length === 0) return `${whole}, none tallied yet`
  if (explained > 0) return `${whole}, ${inWords(explained).toLowerCase()} fully explained`
  return `${whole}, ${tallied.length === datasets.length ? 'every one' : inWords(tallied.length).toLowerCase()} with something to explain`
})
const legend = ['missing', 'agreed', 'changed', 'repeated', 'extra'] as const

watchEffect(() => {
  document.title = board.value === undefined ? 'Nine Tally' : `${board.value.migration.name} · Nine Tally`
})
</script>

<template>
  <TopBar :migration="board?.migration" />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The board" @retry="refetch()">
      <template v-if="board">
        <div class="head">
          <h1>{{ heading }}</h1>
          <span v-if="board.mayWork" class="buttons">
            <el-button v-if="board.datasets.length > 1" :loading="all.isPending.value" @click="all.mutate()">Tally all datasets</el-button>
            <el-button type="primary" @click="isAdding = true">Add a dataset</el-button>
          </span>
        </div>
        <ErrorNote :error="all.error.value" />
        <p v-if="all.data.value" class="started" role="status">
          {{ counted(all.data.value.started.length, 'run') }} started.
          <template v-for="one in all.data.value.notStarted" :key="one.dataset">{{ one.dataset }}: {{ one.why }} </template>
        </p>
        <div v-if="board.datasets.length > 0" class="sums">
          <div>
            <b><FigureValue name="board/sums/agreement" :of="board.sums.agreement" /></b
            ><span
              ><FigureValue name="board/sums/right" :of="board.sums.right" /> of <FigureValue name="board/sums/values" :of="board.sums.values" /> values are
              right</span
            >
          </div>
          <div>
            <b><FigureValue name="board/sums/openFindings" :of="board.sums.openFindings" /></b><span>findings to explain</span>
          </div>
          <div>
            <b><FigureValue name="board/sums/openGroups" :of="board.sums.openGroups" /></b><span>patterns still open</span>
          </div>
          <div class="legend">
            <span v-for="rowClass in legend" :key="rowClass"><RowMark :row-class="rowClass" silent />{{ rowClass }}</span>
          </div>
        </div>
        <BoardTable v-if="board.datasets.length > 0" :board="board" />
        <p v-else>A dataset is one table of the migration, with a source side and a target side. Add the first one, then hand over both sides.</p>
        <AddDataset v-model="isAdding" :migration="id" />
      </template>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  flex-wrap: wrap;
  gap: 12px;
}
h1 {
  font-size: 22px;
}
.sums {
  display: flex;
  align-items: flex-end;
  flex-wrap: wrap;
  gap: 12px 36px;
  padding: 14px 0 16px;
}
.sums b {
  display: block;
  font-size: 27px;
  font-weight: 650;
  letter-spacing: -0.02em;
  line-height: 1.1;
}
.sums div > span {
  color: var(--ink-2);
  font-size: 13px;
}
.legend {
  margin-inline-start: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.legend > span {
  display: flex;
  gap: 6px;
  align-items: center;
}
.buttons {
  display: flex;
  gap: 12px;
}
.started {
  font-size: 13px;
}
</style>
