<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'

const props = defineProps<{ course: Schemas['Course'] }>()
const isOpen = defineModel<boolean>({ required: true })
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'deliveries', () => props.course.source?.id, () => props.course.target?.id],
  queryFn: () => answer(api.GET('/datasets/{dataset}/deliveries', { params: { path: { dataset: props.course.id } } })),
  enabled: isOpen,
})
const label = (side: Schemas['Side']): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
</script>

<template>
  <el-dialog v-model="isOpen" title="All deliveries, kept byte for byte" width="min(1000px, 95vw)">
    <LoadState :is-loading="isPending" :error="error" what="Deliveries" @retry="refetch()">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">side</th>
            <th scope="col" class="number">no.</th>
            <th scope="col">file</th>
            <th scope="col" class="number">rows</th>
            <th scope="col" class="number">refused</th>
            <th scope="col">delivered</th>
            <th scope="col">used by</th>
            <th scope="col">SHA-256</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="delivery in data?.items" :key="delivery.id">
            <td :class="delivery.side === 'source' ? 'src' : 'tgt'">{{ label(delivery.side) }}</td>
            <td class="number">{{ delivery.number }}</td>
            <td>
              {{ delivery.fileName }}<b v-if="delivery.purge">, content purged by {{ delivery.purge.by }}, {{ moment(delivery.purge.at) }}</b>
            </td>
            <td class="number">{{ count(delivery.delivered) }}</td>
            <td class="number">{{ count(delivery.refused) }}</td>
            <td>{{ moment(delivery.deliveredAt) }} by {{ delivery.deliveredBy }}</td>
            <td>{{ delivery.tallies.length === 0 ? 'no tally yet' : `tally ${delivery.tallies.join(', ')}` }}</td>
            <td>
              <span class="cell digest">{{ delivery.digest }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.digest {
  font-size: 12px;
  white-space: normal;
  overflow-wrap: anywhere;
}
</style>
