<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import { togetherWith, whyOf } from '@/format/acts'
import { className, decisionName } from '@/format/classes'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'

/** Every ruling that ever covered this record or a cell of it, in any tally, undone or not. */
const props = defineProps<{ tally: number; record: Schemas['Record'] }>()
const emit = defineEmits<{ close: [] }>()

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', () => props.tally, 'record-history', () => props.record.sequence],
  queryFn: ({ signal }) =>
    answer(api.GET('/tallies/{tally}/records/{sequence}/rulings', { params: { path: { tally: props.tally, sequence: props.record.sequence } }, signal })),
})
const about = ({ rows, columns }: Schemas['ActOnRecord']): string => [...rows.map((row) => `the row as ${className(row).toLowerCase()}`), ...columns].join(', ')
</script>

<template>
  <el-dialog :model-value="true" :title="`Every ruling on ${record.key ?? 'this row'}`" width="min(980px, 96vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The rulings" @retry="refetch()">
      <p v-if="data?.items.length === 0" class="quiet">Nobody has ruled on this record yet, in any tally.</p>
      <table v-else class="figures">
        <thead>
          <tr>
            <th scope="col">in tally</th>
            <th scope="col">ruled</th>
            <th scope="col">on</th>
            <th scope="col">by, at</th>
            <th scope="col">why</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="act in data?.items" :key="act.ruling.id" :class="{ undone: act.undone }" data-figure="record">
            <td class="number">{{ act.tally }}</td>
            <td>
              <b>{{ act.ruling.decision === null ? '' : decisionName(act.ruling.decision) }}</b>
            </td>
            <td class="said">{{ about(act) }}{{ togetherWith(act.ruling) }}</td>
            <td>{{ act.ruling.person }}, {{ moment(act.ruling.at) }}</td>
            <td class="said">
              {{ whyOf(act.ruling) }}
              <em v-if="act.undone">undone in tally {{ act.undone.tally }} by {{ act.undone.person }}, {{ moment(act.undone.at) }}</em>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.said {
  overflow-wrap: anywhere;
}
td:nth-child(2) {
  white-space: nowrap;
}
.undone td:not(:last-child) {
  text-decoration: line-through;
}
em {
  display: block;
  color: var(--ink-2);
  font-style: normal;
}
</style>
