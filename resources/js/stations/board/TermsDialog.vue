<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LimitsEditor from '@/parts/LimitsEditor.vue'
import LoadState from '@/parts/LoadState.vue'

/** What counts for signing in the migration: the limits of all its datasets, and which duties are apart. */
const props = defineProps<{ migration: number }>()
const emit = defineEmits<{ close: [] }>()
const queries = useQueryClient()
const key = computed(() => ['migration', props.migration, 'signing-terms'])
const path = () => ({ params: { path: { migration: props.migration } } })
const { data, error, isPending, refetch } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/signing-terms', { ...path(), signal })),
})
type Terms = Pick<Schemas['SigningTerms'], 'limits' | 'needsCheck' | 'maySignTwice' | 'mayAcceptOwn' | 'mayLink'>
const save = useMutation({
  mutationFn: (changed: Partial<Terms>) => {
    const { limits = [], needsCheck = true, maySignTwice = false, mayAcceptOwn = false, mayLink = false } = data.value ?? {}
    return answer(
      api.PUT('/migrations/{migration}/signing-terms', { ...path(), body: { limits, needsCheck, maySignTwice, mayAcceptOwn, mayLink, ...changed } }),
    )
  },
  onSuccess: (after) => queries.setQueryData(key.value, after),
})
const DUTIES = [
  { name: 'needsCheck', words: 'A test manager checks before a data owner accepts' },
  { name: 'maySignTwice', words: 'One person may give several signatures on one tally' },
  { name: 'mayAcceptOwn', words: 'Who made a ruling or the plan may accept it' },
  { name: 'mayLink', words: 'Reports may be read by a link, without an account' },
] as const
</script>

<template>
  <el-dialog :model-value="true" title="What is good enough, and who signs" width="min(640px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="What counts for signing" @retry="refetch()">
      <template v-if="data">
        <h3>Limits of all datasets</h3>
        <LimitsEditor
          :limits="data.limits"
          :inherited="[]"
          :choices="data.choices"
          :may-change="data.mayChange"
          :is-saving="save.isPending.value"
          @update="save.mutate({ limits: [...$event] })"
        />
        <h3>Duties</h3>
        <p v-for="{ name, words } in DUTIES" :key="name">
          <el-checkbox
            :model-value="data[name]"
            :label="words"
            :disabled="!data.mayChange || save.isPending.value"
            @update:model-value="save.mutate({ [name]: Boolean($event) })"
          />
        </p>
        <ErrorNote :error="save.error.value" />
        <p class="quiet">
          A dataset can say otherwise in its plan. Limits count for tallies that begin from now on; what was signed stays as it was.
          <template v-if="data.by !== null && data.at !== null">Last said by {{ data.by }}, {{ moment(data.at) }}.</template>
        </p>
      </template>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
h3 {
  font-size: 13px;
  margin: 14px 0 6px;
}
p {
  margin: 4px 0;
  font-size: 13px;
}
</style>
