<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { className, decisionName } from '@/format/classes'
import { count } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'

/** Rulings of the tally before whose finding is settled, or cannot be told under another key: listed, never dropped. */
const props = defineProps<{ tally: Schemas['Tally'] }>()
const emit = defineEmits<{ close: [] }>()

const { data, error, isPending, hasNextPage, isFetchingNextPage, fetchNextPage, refetch } = useInfiniteQuery({
  queryKey: ['tally', () => props.tally.id, 'left-behind'],
  queryFn: ({ pageParam, signal }) =>
    answer(api.GET('/tallies/{tally}/rulings-left-behind', { params: { path: { tally: props.tally.id }, query: { from: pageParam } }, signal })),
  initialPageParam: 1,
  getNextPageParam: ({ next }) => next,
})
const rulings = computed(() => data.value?.pages.flatMap(({ items }) => items) ?? [])
type Ruling = Schemas['RulingsLeftBehind']['items'][number]
const lines = ({ sourceLine, targetLine }: Ruling): string =>
  [...(sourceLine === null ? [] : [`source line ${count(sourceLine)}`]), ...(targetLine === null ? [] : [`target line ${count(targetLine)}`])].join(', ')
const value = (text: string) => [{ text: text.length > 60 ? `${text.slice(0, 60)}…` : text, differs: false }]
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="`Rulings of tally ${tally.carryOver?.from} that stand on nothing in tally ${tally.number}`"
    width="min(1000px, 95vw)"
    @close="emit('close')"
  >
    <p class="quiet">
      {{
        tally.carryOver?.hasOtherKey
          ? 'The key is another one. Rulings followed the delivered records; of these the finding is settled, or its records are no longer as they were.'
          : 'Their finding is settled: it is none any more.'
      }}
    </p>
    <LoadState :is-loading="isPending" :error="error" what="The rulings" @retry="refetch()">
      <p v-if="rulings.length === 0">None of them can be listed: tally {{ tally.number }} was made before this was kept.</p>
      <table v-else class="figures">
        <thead>
          <tr>
            <th scope="col">key</th>
            <th scope="col">finding</th>
            <th scope="col">source</th>
            <th scope="col">target</th>
            <th scope="col">ruling</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(ruling, place) in rulings" :key="place">
            <td>
              <span class="cell key">{{ ruling.key }}</span><br /><span class="quiet">{{ lines(ruling) }}</span>
            </td>
            <td>{{ ruling.column === null ? `${className(ruling.class as Schemas['RowClass'])} row` : `${ruling.column}: ${ruling.cause}` }}</td>
            <td><CellValue v-if="ruling.source !== null" :stretches="value(ruling.source)" side="source" /></td>
            <td><CellValue v-if="ruling.target !== null" :stretches="value(ruling.target)" side="target" /></td>
            <td>
              {{ decisionName(ruling.decision) }}, {{ ruling.by }}
              <span v-if="ruling.reason || ruling.ticket" class="quiet"><br />{{ [ruling.reason, ruling.ticket].filter(Boolean).join(', ') }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <el-button v-if="hasNextPage" size="small" :loading="isFetchingNextPage" @click="fetchNextPage()">Show more</el-button>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.key {
  white-space: pre-wrap;
}
</style>
