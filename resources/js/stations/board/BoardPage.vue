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
import TermsDialog from '@/stations/board/TermsDialog.vue'
import RehearsalsDialog from '@/stations/board/RehearsalsDialog.vue'
import BoardTable from '@/stations/board/BoardTable.vue'

const route = useRoute()
const id = computed(() => Number(route.params.migration))
const queries = useQueryClient()
/** Runs take their time: the figures of the board follow as each is done. */
const all = useMutation({
  mutationFn: (name: string) =>
    answer(api.POST('/migrations/{migration}/runs', { params: { path: { migration: id.value } }, body: name.trim() === '' ? {} : { name: name.trim() } })),
  onSuccess: () => {
    isTallyingAll.value = false
    return queries.invalidateQueries({ queryKey: ['dataset'] })
  },
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
const isTallyingAll = ref(false)
const rehearsal = ref('')
const isComparing = ref(false)
const isSettingTerms = ref(false)

const heading = computed(() => {
  const all = board.value?.datasets ?? []
  if (all.length === 0) return 'No dataset yet'
  const datasets = all.filter((dataset) => !dataset.isReference)
  const whole = `${inWords(datasets.length)} ${datasets.length === 1 ? 'dataset' : 'datasets'}`
  const tallied = datasets.filter((dataset) => dataset.tally !== null)
  const explained = tallied.filter((dataset) => dataset.tally?.openFindings === 0).length
  if (tallied.length === 0) return `${whole}, none tallied yet`
  const signed = tallied.filter((dataset) => dataset.signing?.state === 'accepted').length
  const waiting = tallied.filter((dataset) => dataset.signing?.state === 'prepared' || dataset.signing?.state === 'checked').length
  if (signed + waiting > 0) {
    return [
      whole,
      ...(signed > 0 ? [`${inWords(signed).toLowerCase()} signed`] : []),
      ...(waiting > 0 ? [`${inWords(waiting).toLowerCase()} being signed`] : []),
    ].join(', ')
  }
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
          <span class="buttons">
            <RouterLink v-if="board.mayAudit" class="button" :to="`/migrations/${id}/trail`">The trail</RouterLink>
            <RouterLink class="button" :to="`/migrations/${id}/content`">Kept content</RouterLink>
            <RouterLink v-if="board.sums.values > 0" class="button" :to="`/migrations/${id}/between`">Between datasets</RouterLink>
            <el-button v-if="board.sums.values > 0" @click="isComparing = true">Rehearsals</el-button>
            <a v-if="board.sums.values > 0" class="button" :href="`/api/v1/migrations/${id}/report`" target="_blank" rel="noopener">Report</a>
            <el-button @click="isSettingTerms = true">What is good enough</el-button>
            <el-button v-if="board.mayWork && board.datasets.length > 1" @click="isTallyingAll = true">Tally all datasets</el-button>
            <el-button v-if="board.mayWork" type="primary" @click="isAdding = true">Add a dataset</el-button>
          </span>
        </div>
        <div v-if="all.data.value" class="started" role="status">
          {{ counted(all.data.value.started.length, 'run') }} started.
          <template v-if="all.data.value.unchanged.length > 0">
            Left out, for nothing has changed since: {{ all.data.value.unchanged.map(({ dataset, tally }) => `${dataset} (tally ${tally})`).join(', ') }}.
          </template>
          <ul v-if="all.data.value.notStarted.length > 0">
            <li v-for="one in all.data.value.notStarted" :key="one.dataset">{{ one.dataset }}: {{ one.why }}</li>
          </ul>
        </div>
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
        <TermsDialog v-if="isSettingTerms" :migration="id" @close="isSettingTerms = false" />
        <RehearsalsDialog v-if="isComparing" :migration="id" @close="isComparing = false" />
        <el-dialog v-model="isTallyingAll" title="Tally all datasets" width="min(520px, 95vw)">
          <form class="rehearsal" @submit.prevent="all.mutate(rehearsal)">
            <el-input
              v-model="rehearsal"
              maxlength="100"
              aria-label="Name of the tallies"
              placeholder="name of the tallies, such as Rehearsal 3; may be left blank"
            />
            <p class="quiet">
              {{
                rehearsal.trim() === ''
                  ? 'Datasets in which nothing has changed since their last tally are left out.'
                  : 'Under a name every dataset is tallied, so that the rehearsal is whole.'
              }}
            </p>
            <ErrorNote :error="all.error.value" />
            <el-button type="primary" native-type="submit" :loading="all.isPending.value">Tally them</el-button>
          </form>
        </el-dialog>
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
.rehearsal {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.rehearsal p {
  margin: 0;
  font-size: 13px;
}
.started ul {
  margin: 2px 0 0;
}
.started {
  font-size: 13px;
}
</style>
