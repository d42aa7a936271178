<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api } from '@/api/client'
import { count, counted } from '@/format/counts'
import LoadState from '@/parts/LoadState.vue'

/** One rehearsal of the migration held against another, over all datasets: what got better, and what worse. */
const props = defineProps<{ migration: number }>()
const emit = defineEmits<{ close: [] }>()
const earlier = ref('')
const later = ref('')
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['migration', () => props.migration, 'rehearsals', earlier, later],
  queryFn: ({ signal }) =>
    answer(
      api.GET('/migrations/{migration}/rehearsals', {
        params: { path: { migration: props.migration }, query: { earlier: earlier.value, later: later.value } },
        signal,
      }),
    ),
  placeholderData: keepPreviousData,
})
const VERDICTS = ['better', 'worse', 'same'] as const
const sums = computed(() =>
  VERDICTS.map((verdict) => ({ verdict, datasets: (data.value?.datasets ?? []).filter((one) => one.verdict === verdict).length })).filter(
    ({ datasets }) => datasets > 0,
  ),
)
</script>

<template>
  <el-dialog :model-value="true" title="Rehearsal against rehearsal" width="min(960px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The rehearsals" @retry="refetch()">
      <template v-if="data">
        <p class="choice">
          <label for="rehearsal-earlier">From</label>
          <select id="rehearsal-earlier" v-model="earlier">
            <option value="">the tally before</option>
            <option v-for="one in data.names" :key="one.name" :value="one.name">{{ one.name }} ({{ counted(one.tallies, 'tally', 'tallies') }})</option>
          </select>
          <label for="rehearsal-later">to</label>
          <select id="rehearsal-later" v-model="later">
            <option value="">the newest tally</option>
            <option v-for="one in data.names" :key="one.name" :value="one.name">{{ one.name }} ({{ counted(one.tallies, 'tally', 'tallies') }})</option>
          </select>
          <span role="status">{{ sums.map(({ verdict, datasets }) => `${datasets} ${verdict}`).join(', ') }}</span>
        </p>
        <p v-if="data.names.length === 0" class="quiet">
          No tally has a name yet. Tally all datasets under one, such as Rehearsal 1, or name a tally on its station; then two rehearsals can be chosen here.
        </p>
        <table class="figures">
          <thead>
            <tr>
              <th scope="col">dataset</th>
              <th scope="col">tallies</th>
              <th scope="col" class="number">agreement</th>
              <th scope="col" class="number">rows arrived</th>
              <th scope="col" class="number">findings</th>
              <th scope="col">so it is</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in data.datasets" :key="one.id">
              <th scope="row">
                <RouterLink :to="`/datasets/${one.id}/tally`">{{ one.dataset }}</RouterLink>
              </th>
              <td>{{ one.earlier?.number ?? 'none' }} → {{ one.later?.number ?? 'none' }}</td>
              <td class="number">{{ one.earlier?.agreement ?? '' }} → {{ one.later?.agreement ?? '' }}</td>
              <td class="number">{{ one.earlier?.rowsArrived ?? '' }} → {{ one.later?.rowsArrived ?? '' }}</td>
              <td class="number">{{ one.earlier ? count(one.earlier.findings) : '' }} → {{ one.later ? count(one.later.findings) : '' }}</td>
              <td :class="one.verdict">{{ one.verdict ?? (one.later === null ? 'not tallied in the later one' : 'not tallied in the earlier one') }}</td>
            </tr>
          </tbody>
        </table>
        <p class="quiet">Better and worse go by the exact agreement, and where that is the same by the number of findings.</p>
      </template>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 8px;
  background: var(--sheet);
}
.better {
  font-weight: 600;
}
.worse {
  font-weight: 600;
  color: var(--fail);
}
</style>
