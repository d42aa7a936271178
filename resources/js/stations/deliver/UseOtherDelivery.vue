<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'

/** What was delivered for another dataset can serve this side too, without being sent again. */
const props = defineProps<{ side: 'source' | 'target'; label: string; course: Schemas['Course'] }>()
const queries = useQueryClient()
const isOpen = ref(false)
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'other-deliveries'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/other-deliveries', { params: { path: { dataset: props.course.id } } })),
  enabled: isOpen,
})
const using = useMutation({
  mutationFn: (delivery: number) =>
    answer(api.POST('/datasets/{dataset}/used-deliveries', { params: { path: { dataset: props.course.id } }, body: { delivery, side: props.side } })),
  onSuccess: () => {
    isOpen.value = false
    return Promise.all([queries.invalidateQueries({ queryKey: ['dataset'] }), queries.invalidateQueries({ queryKey: ['migration'] })])
  },
})
</script>

<template>
  <el-button link @click="isOpen = true">Use a delivery of another dataset</el-button>
  <el-dialog v-model="isOpen" :title="`Which delivery serves as the ${label.toLowerCase()} of ${course.name}?`" width="min(800px, 95vw)">
    <LoadState :is-loading="isPending" :error="error" what="Deliveries of other datasets" @retry="refetch()">
      <p v-if="data?.items.length === 0" class="quiet">No other dataset of this migration has delivered yet.</p>
      <table v-else class="figures">
        <tbody>
          <tr v-for="{ dataset, delivery } in data?.items" :key="delivery.id">
            <th scope="row">{{ dataset }}</th>
            <td :class="delivery.side === 'source' ? 'src' : 'tgt'">
              {{ delivery.side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel }}, delivery {{ delivery.number }}
            </td>
            <td>{{ delivery.fileName }}, {{ counted(delivery.delivered, 'row') }}, {{ moment(delivery.deliveredAt) }}</td>
            <td><el-button size="small" :loading="using.isPending.value" @click="using.mutate(delivery.id)">Use it here</el-button></td>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <ErrorNote :error="using.error.value" />
  </el-dialog>
</template>
