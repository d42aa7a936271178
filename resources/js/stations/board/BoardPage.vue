<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { useForMe } from '@/composables/useForMe'
import { counted, inWords } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { figures } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import RowMark from '@/parts/RowMark.vue'
import SaidText from '@/parts/SaidText.vue'
import TopBar from '@/parts/TopBar.vue'
import AddDataset from '@/stations/board/AddDataset.vue'
import TermsDialog from '@/stations/board/TermsDialog.vue'
import RehearsalsDialog from '@/stations/board/RehearsalsDialog.vue'
import DropFiles from '@/stations/board/DropFiles.vue'
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
/** A reference that was tallied stands among the others: there is something to be said of it. */
const isApart = ({ isReference, tally }: Schemas['Board']['datasets'][number]): boolean => isReference && tally === null
const compared = computed(() => (board.value?.datasets ?? []).filter((dataset) => !isApart(dataset)))
const references = computed(() => (board.value?.datasets ?? []).filter(isApart))
const { data: waiting } = useForMe()
const asked = computed(() => waiting.value?.asked.length ?? 0)
const toSign = computed(() => waiting.value?.toSign.length ?? 0)
const waits = computed(() => asked.value + toSign.value)
const dropped = ref<File[]>([])
const input = ref<HTMLInputElement | null>(null)
function chosen(event: Event): void {
  const field = event.target as HTMLInputElement
  dropped.value = [...(field.files ?? [])]
  field.value = ''
}
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
  <main class="page" @dragover.prevent @drop.prevent="dropped = [...($event.dataTransfer?.files ?? [])]">
    <LoadState :is-loading="isPending" :error="error" what="The board" @retry="refetch()">
      <template v-if="board">
        <div class="head">
          <h1>{{ heading }}</h1>
          <span class="buttons">
            <RouterLink v-if="board.mayAudit" class="button" :to="`/migrations/${id}/trail`">The trail</RouterLink>
            <RouterLink class="button" :to="`/migrations/${id}/content`">Kept content</RouterLink>
            <RouterLink v-if="board.datasets.length > 0" class="button" :to="`/migrations/${id}/schedule`">Schedule</RouterLink>
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
          <template v-if="all.data.value.waiting.length > 0">
            Tallied afterwards, for they take numbers from what others match: {{ all.data.value.waiting.join(', ') }}.
          </template>
          <ul v-if="all.data.value.notStarted.length > 0">
            <li v-for="one in all.data.value.notStarted" :key="one.dataset">{{ one.dataset }}: {{ one.why }}</li>
          </ul>
        </div>
        <div v-if="board.datasets.length > 0" class="sums">
          <p v-if="board.sums.values > 0">
            <b
              ><FigureValue name="board/sums/right" :of="board.sums.right" /> of <FigureValue name="board/sums/values" :of="board.sums.values" /> values are
              right</b
            >
            (<FigureValue name="board/sums/agreement" :of="board.sums.agreement" />);
            <template v-if="board.sums.openFindings === 0">every finding is ruled on.</template>
            <template v-else
              ><SaidText :said="figures('board/sums/openFindings', board.sums.openFindings, 'finding')" /> in
              <SaidText :said="figures('board/sums/openGroups', board.sums.openGroups, 'pattern')" /> still to explain.</template
            >
          </p>
          <p v-if="waits > 0">
            <RouterLink to="/for-me">What waits for you</RouterLink>:
            {{ [asked > 0 ? counted(asked, 'question') : '', toSign > 0 ? counted(toSign, 'signature') : ''].filter(Boolean).join(', ') }}.
          </p>
          <div class="legend">
            <span v-for="rowClass in legend" :key="rowClass"><RowMark :row-class="rowClass" silent />{{ rowClass }}</span>
          </div>
        </div>
        <BoardTable v-if="compared.length > 0" :board="board" :datasets="compared" />
        <section v-if="references.length > 0" class="references" aria-label="References">
          <h2>References</h2>
          <p class="quiet">Other datasets look values up from these; they are not compared.</p>
          <ul>
            <li v-for="one in references" :key="one.id">
              <RouterLink :to="`/datasets/${one.id}/deliver`">{{ one.name }}</RouterLink>
              <span v-if="one.keyColumns.length > 0" class="quiet"> by {{ one.keyColumns.join(' + ') }}</span>
            </li>
          </ul>
        </section>
        <p v-if="board.datasets.length === 0">
          A dataset is one table of the migration, with a source side and a target side. Add the first one, then hand over both sides.
        </p>
        <p v-if="board.mayWork && compared.length > 0" class="drop quiet">
          Drop files of several datasets anywhere here, or
          <el-button link size="small" @click="input?.click()">choose them</el-button>: they are sorted to datasets and sides by their names.
          <input ref="input" type="file" multiple tabindex="-1" class="unseen" aria-label="Files of several datasets" @change="chosen" />
        </p>
        <DropFiles v-if="board.mayWork && dropped.length > 0" :files="dropped" :board="board" @close="dropped = []" />
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
.sums p {
  margin: 0;
  font-size: 14.5px;
}
.references {
  padding-block-start: 14px;
  font-size: 13.5px;
}
.references p,
.references ul {
  margin: 2px 0;
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
  flex-wrap: wrap;
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
