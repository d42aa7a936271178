<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'

/** What one is told of, and how: under "For you", and by mail. */
const key = ['notice-choices']
const queries = useQueryClient()
const { data, error, isPending, refetch } = useQuery({ queryKey: key, queryFn: () => answer(api.GET('/me/notice-choices')) })
const choose = useMutation({
  mutationFn: ({ kind, inApplication, byMail }: Schemas['NoticeChoice']) => answer(api.PUT('/me/notice-choices', { body: { kind, inApplication, byMail } })),
  onSuccess: (found) => {
    queries.setQueryData(key, found)
    return queries.invalidateQueries({ queryKey: ['notices'] })
  },
})
</script>

<template>
  <h2>What you are told of</h2>
  <p class="quiet">In the migrations that you belong to. No notice holds a value of the data.</p>
  <ErrorNote :error="choose.error.value" />
  <LoadState :is-loading="isPending" :error="error" what="What you are told of" @retry="refetch()">
    <table v-if="data">
      <thead>
        <tr>
          <th scope="col">when</th>
          <th scope="col">under “For you”</th>
          <th scope="col">by mail</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data.items" :key="one.kind">
          <th scope="row">{{ one.words }}</th>
          <td>
            <el-checkbox
              :model-value="one.inApplication"
              :aria-label="`Under For you, when ${one.words}`"
              @update:model-value="choose.mutate({ ...one, inApplication: $event === true })"
            />
          </td>
          <td>
            <el-checkbox
              :model-value="one.byMail"
              :aria-label="`By mail, when ${one.words}`"
              @update:model-value="choose.mutate({ ...one, byMail: $event === true })"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </LoadState>
</template>

<style scoped>
p {
  margin: 0;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: start;
  font-weight: 400;
  padding: 3px 22px 3px 0;
  border-block-end: 1px solid var(--line-2);
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
</style>
