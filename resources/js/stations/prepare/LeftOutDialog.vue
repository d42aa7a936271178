<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { counted } from '@/format/counts'
import LoadState from '@/parts/LoadState.vue'
import RowsTable from '@/parts/RowsTable.vue'

/** The rows that a step left out, as they came into it, with the step's reason and who answers for it. */
const props = defineProps<{ dataset: number; side: Side; step: Schemas['Step']; sentence: string }>()
const emit = defineEmits<{ close: [] }>()

const { data, error, isPending, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
  queryKey: ['dataset', () => props.dataset, 'left-out', () => props.side, () => props.step],
  queryFn: ({ pageParam }) =>
    answer(
      api.GET('/datasets/{dataset}/left-out-rows', {
        params: { path: { dataset: props.dataset }, query: { side: props.side, step: props.step.id, after: pageParam } },
      }),
    ),
  initialPageParam: 0,
  getNextPageParam: (page) => page.next,
  retry: false,
})
const first = computed(() => data.value?.pages[0])
const rows = computed(() => data.value?.pages.flatMap((page) => page.rows) ?? [])
</script>

<template>
  <el-dialog :model-value="true" :title="`Left out: ${sentence}`" width="min(1000px, 95vw)" append-to-body @close="emit('close')">
    <p class="quiet">
      {{ step.reason ? `Reason: ${step.reason}` : 'No reason is given; the step can hold one'
      }}{{ step.answersFor ? `, ${step.answersFor} answers for it` : '' }}.
    </p>
    <LoadState :is-loading="isPending" :error="error" what="The rows" @retry="refetch()">
      <p v-if="first">{{ counted(first.total, 'row') }} of the whole delivery.</p>
      <div v-if="first" class="list" tabindex="0" role="region" aria-label="Rows left out">
        <RowsTable :columns="first.columns" :rows="rows" :side="side" />
      </div>
      <el-button v-if="hasNextPage" :loading="isFetchingNextPage" @click="fetchNextPage()">Show more</el-button>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.list {
  overflow: auto;
  max-block-size: 60vh;
  border: 1px solid var(--line);
  margin-block: 8px;
}
p {
  margin: 0 0 4px;
}
</style>
