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
type Terms = Pick<
  Schemas['SigningTerms'],
  'limits' | 'needsCheck' | 'maySignTwice' | 'mayAcceptOwn' | 'mayLink' | 'reportsFor' | 'contentMonths' | 'packMonths'
>
const save = useMutation({
  // What is not sent of who sees what and how long stays as it stands.
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
] as const
const READERS = [
  { role: 'viewer', words: 'Viewers see reports and evidence packs' },
  { role: 'auditor', words: 'Auditors see reports and evidence packs' },
] as const
const KEEPING = [
  { name: 'contentMonths', words: 'Content is kept, in months after it was delivered' },
  { name: 'packMonths', words: 'Evidence packs are kept, in months' },
] as const

function letSee(role: (typeof READERS)[number]['role'], may: boolean): void {
  const others = (data.value?.reportsFor ?? []).filter((one) => one !== role)
  save.mutate({ reportsFor: may ? [...others, role] : others })
}
</script>

<template>
  <el-dialog :model-value="true" title="What is good enough, who signs, and what is kept" width="min(640px, 95vw)" @close="emit('close')">
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
        <h3>Who reads reports</h3>
        <p v-for="{ role, words } in READERS" :key="role">
          <el-checkbox
            :model-value="data.reportsFor.includes(role)"
            :label="words"
            :disabled="!data.mayChange || save.isPending.value"
            @update:model-value="letSee(role, Boolean($event))"
          />
        </p>
        <p>
          <el-checkbox
            :model-value="data.mayLink"
            label="Reports may be read by a link, without an account"
            :disabled="!data.mayChange || save.isPending.value"
            @update:model-value="save.mutate({ mayLink: Boolean($event) })"
          />
        </p>
        <h3>How long things are kept</h3>
        <p v-for="{ name, words } in KEEPING" :key="name" class="months">
          <label :for="`keep-${name}`">{{ words }}</label>
          <el-input-number
            :id="`keep-${name}`"
            :model-value="data[name]"
            :min="1"
            :max="1200"
            :step="1"
            step-strictly
            controls-position="right"
            size="small"
            placeholder="for ever"
            :disabled="!data.mayChange || save.isPending.value"
            @change="save.mutate({ [name]: $event ?? null })"
          />
        </p>
        <p class="quiet">
          Content that is due is purged by a data owner, on the page <RouterLink :to="`/migrations/${migration}/content`">Kept content</RouterLink>; packs that
          are too old are removed by themselves, and can be made again.
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
.months {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  max-inline-size: 480px;
}
</style>
