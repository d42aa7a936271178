<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'

const props = defineProps<{ delivery: Schemas['Delivery']; label: string }>()
const isOpen = defineModel<boolean>({ required: true })
const { data, error, isPending, hasNextPage, fetchNextPage, isFetchingNextPage, refetch } = useInfiniteQuery({
  queryKey: ['delivery', () => props.delivery.id, 'refused'],
  queryFn: ({ pageParam }) =>
    answer(api.GET('/deliveries/{delivery}/refused', { params: { path: { delivery: props.delivery.id }, query: { after: pageParam } } })),
  initialPageParam: 0,
  getNextPageParam: (page) => page.next ?? undefined,
  enabled: isOpen,
  staleTime: Infinity,
})
const records = computed(() => data.value?.pages.flatMap((page) => page.items) ?? [])
</script>

<template>
  <el-dialog v-model="isOpen" :title="`${counted(delivery.refused, 'record')} of ${delivery.fileName} refused`" width="min(900px, 95vw)">
    <p>
      They could not become rows, and stand in no comparison. They are put right in a new delivery, never in place.
      <a :href="`/api/v1/deliveries/${delivery.id}/refused.csv`" download>Download all as CSV</a>.
    </p>
    <LoadState :is-loading="isPending" :error="error" what="Refused records" @retry="refetch()">
      <table class="figures">
        <thead>
          <tr>
            <th v-if="delivery.parts.length > 1" scope="col">file</th>
            <th scope="col" class="number">line</th>
            <th scope="col">reason</th>
            <th scope="col">as it stands in the file</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="record in records" :key="record.number">
            <td v-if="delivery.parts.length > 1">{{ delivery.parts[record.part - 1]?.fileName }}</td>
            <td class="number">{{ count(record.line) }}</td>
            <td>{{ record.sentence }}</td>
            <td class="raw"><CellValue :stretches="[{ text: record.raw, differs: false }]" /></td>
          </tr>
        </tbody>
      </table>
      <el-button v-if="hasNextPage" :loading="isFetchingNextPage" @click="fetchNextPage()">Show the next 100</el-button>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.raw :deep(.cell) {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
