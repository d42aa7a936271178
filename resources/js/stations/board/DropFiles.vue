<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { bytes, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { begin, sendOn } from '@/composables/sendFile'
import { sortFile, type Sorted } from '@/stations/board/sortFiles'

/** Files that were dropped on the board, sorted to datasets and sides by their names, to be confirmed before anything is sent. */
const props = defineProps<{ files: readonly File[]; board: Schemas['Board'] }>()
const emit = defineEmits<{ close: [] }>()

const labels = computed(() => ({ source: props.board.migration.sourceLabel, target: props.board.migration.targetLabel }))
const sorted = ref<Sorted[]>(props.files.map((file) => sortFile(file.name, props.board.datasets, labels.value)))
/** No dataset has that number. */
const NONE = 0
const sent = ref<Record<number, number>>({})
const error = ref<Error | null>(null)
const isSending = ref(false)
const isDone = ref(false)
const isSorted = (one: Sorted): one is { dataset: number; side: 'source' | 'target' } => one.dataset !== null && one.dataset !== NONE && one.side !== null
const ready = computed(() => sorted.value.filter((one) => isSorted(one)).length)
const targets = computed(() => [...new Set(sorted.value.flatMap((one) => (isSorted(one) ? [one.dataset] : [])))])
const nameOf = (id: number): string => props.board.datasets.find((dataset) => dataset.id === id)?.name ?? ''

async function hand(): Promise<void> {
  isSending.value = true
  error.value = null
  try {
    for (const [place, file] of props.files.entries()) {
      const to = sorted.value[place]
      if (to === undefined || !isSorted(to) || sent.value[place] === file.size) continue
      await sendOn(file, await begin(to.dataset, to.side, file), (receipt) => {
        sent.value = { ...sent.value, [place]: receipt.receivedBytes }
        return receipt
      })
    }
    isDone.value = true
  } catch (problem) {
    error.value = problem as Error
  } finally {
    isSending.value = false
  }
}
</script>

<template>
  <el-dialog :model-value="true" title="Where do these files belong?" width="min(860px, 95vw)" :close-on-click-modal="false" @close="emit('close')">
    <p class="quiet">Sorted by their names. Each then waits at its side in Deliver, where it is looked at before it is accepted.</p>
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">file</th>
          <th scope="col">dataset</th>
          <th scope="col">side</th>
          <th scope="col">sent</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(file, place) in files" :key="`${file.name} ${place}`">
          <th scope="row">{{ file.name }}</th>
          <td>
            <el-select
              v-model="sorted[place]!.dataset"
              size="small"
              filterable
              placeholder="which dataset?"
              :disabled="isSending"
              :aria-label="`Dataset of ${file.name}`"
            >
              <el-option :value="NONE" label="(none: leave it out)" />
              <el-option v-for="dataset in board.datasets" :key="dataset.id" :value="dataset.id" :label="dataset.name" />
            </el-select>
          </td>
          <td>
            <el-select v-model="sorted[place]!.side" size="small" placeholder="which side?" :disabled="isSending" :aria-label="`Side of ${file.name}`">
              <el-option value="source" :label="labels.source" />
              <el-option value="target" :label="labels.target" />
            </el-select>
          </td>
          <td role="status">{{ sent[place] === undefined ? bytes(file.size) : `${bytes(sent[place])} of ${bytes(file.size)}` }}</td>
        </tr>
      </tbody>
    </table>
    <ErrorNote :error="error" />
    <p v-if="isDone" role="status">
      Handed over. Look at them and accept them:
      <template v-for="(id, place) in targets" :key="id"
        ><template v-if="place > 0">, </template><RouterLink :to="`/datasets/${id}/deliver`">{{ nameOf(id) }}</RouterLink></template
      >.
    </p>
    <el-button v-else type="primary" :loading="isSending" :disabled="ready === 0" @click="hand"
      >Hand over {{ ready === files.length ? counted(ready, 'file') : `${ready} of ${counted(files.length, 'file')}` }}</el-button
    >
  </el-dialog>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
table {
  inline-size: 100%;
  margin-block-end: 10px;
}
th[scope='row'] {
  font-weight: 550;
  text-align: start;
  overflow-wrap: anywhere;
}
</style>
