<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'

/** Versions of the plan with what changed, to compare, take away and go back to; plans of the migration to start from, and plans from files. */
const props = defineProps<{ course: Schemas['Course'] }>()
const emit = defineEmits<{ close: []; imported: [plan: Schemas['Plan']] }>()
const queries = useQueryClient()
const router = useRouter()
const path = computed(() => ({ dataset: props.course.id }))

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'plan-versions'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/plan-versions', { params: { path: path.value } })),
})
const compared = ref<[number, number] | null>(null)
const first = ref<number | null>(null)
const { data: comparison } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'plan-comparison', compared],
  queryFn: () =>
    answer(
      api.GET('/datasets/{dataset}/plan-versions/{one}/against/{other}', {
        params: { path: { ...path.value, one: compared.value?.[0] ?? 0, other: compared.value?.[1] ?? 0 } },
      }),
    ),
  enabled: () => compared.value !== null,
})
function compare(number: number): void {
  if (first.value === null || first.value === number) first.value = first.value === number ? null : number
  else {
    compared.value = [Math.min(first.value, number), Math.max(first.value, number)]
    first.value = null
  }
}

const importing = useMutation({
  mutationFn: (from: { startingPlan?: number; version?: number; document?: string }) =>
    answer(api.POST('/datasets/{dataset}/plan-imports', { params: { path: path.value }, body: from })),
  onSuccess: (plan) => {
    queries.setQueriesData({ queryKey: ['dataset', props.course.id, 'plan'] }, plan)
    emit('imported', plan)
    return lookAtWanted()
  },
})
/** A plan that says where its rows are drawn from goes on in Deliver. */
async function lookAtWanted(): Promise<void> {
  const { wanted } = await answer(api.GET('/datasets/{dataset}/wanted-sources', { params: { path: path.value } }))
  await queries.invalidateQueries({ queryKey: ['dataset', props.course.id, 'wanted-sources'] })
  if (wanted !== null) await router.push(`/datasets/${props.course.id}/deliver`)
}
const name = ref('')
const keeping = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/starting-plans', { params: { path: path.value }, body: { name: name.value } })),
  onSuccess: () => {
    name.value = ''
    return refetch()
  },
})
const file = ref<HTMLInputElement | null>(null)
async function choose(files: FileList | null): Promise<void> {
  const chosen = files?.[0]
  if (chosen !== undefined) importing.mutate({ document: await chosen.text() })
  if (file.value !== null) file.value.value = ''
}
const exported = (number: number): string => `/api/v1/datasets/${props.course.id}/plan-versions/${number}`
</script>

<template>
  <el-dialog :model-value="true" title="Versions of the plan" width="min(900px, 95vw)" @close="emit('close')">
    <ErrorNote :error="importing.error.value ?? keeping.error.value" />
    <LoadState :is-loading="isPending" :error="error" what="Versions of the plan" @retry="refetch()">
      <p v-if="data?.versions.length === 0" class="quiet">No version yet: the draft becomes one when it is tallied.</p>
      <table v-else class="figures">
        <thead>
          <tr>
            <th scope="col" class="number">plan</th>
            <th scope="col">made</th>
            <th scope="col">what changed</th>
            <th scope="col">used by</th>
            <th scope="col"><span class="unseen">actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="version in data?.versions" :key="version.number">
            <td class="number">{{ version.number }}</td>
            <td>{{ moment(version.at) }} by {{ version.by }}</td>
            <td>{{ version.changes.length === 0 ? 'nothing that is compared otherwise' : version.changes.join('; ') }}</td>
            <td>{{ version.tallies.length === 0 ? 'no tally' : `tally ${version.tallies.join(', ')}` }}</td>
            <td class="actions">
              <el-button
                link
                size="small"
                :aria-pressed="first === version.number"
                :aria-label="
                  first === version.number
                    ? `Choose the other, plan ${first} is one`
                    : first === null
                      ? `Compare plan ${version.number} with another`
                      : `Compare plan ${first} with plan ${version.number}`
                "
                @click="compare(version.number)"
                >{{ first === version.number ? 'Choose the other' : 'Compare' }}</el-button
              >
              <a :href="exported(version.number)" download :aria-label="`Download plan ${version.number} as JSON`">JSON</a>
              <a
                v-if="course.querySources.length > 0"
                :href="`${exported(version.number)}?sources=1`"
                download
                :aria-label="`Download plan ${version.number} with where its rows are drawn from`"
                title="with where its rows are drawn from: the names of connections, and no access"
                >with sources</a
              >
              <el-button
                v-if="course.mayWork"
                link
                size="small"
                :aria-label="`Restore plan ${version.number}`"
                :loading="importing.isPending.value"
                @click="importing.mutate({ version: version.number })"
                >Restore</el-button
              >
            </td>
          </tr>
        </tbody>
      </table>
      <section v-if="compared && comparison" role="status" class="compared">
        <h3>From plan {{ compared[0] }} to plan {{ compared[1] }}</h3>
        <p v-if="comparison.changes.length === 0">Both compare alike.</p>
        <ul v-else>
          <li v-for="change in comparison.changes" :key="change">{{ change }}</li>
        </ul>
      </section>
      <section>
        <h3>Plans to start from</h3>
        <p v-if="data?.startingPlans.length === 0" class="quiet">None yet. A plan that is kept here can be the beginning of another dataset's.</p>
        <ul v-else class="starting-plans">
          <li v-for="starting in data?.startingPlans" :key="starting.id">
            <b>{{ starting.name }}</b> <span class="quiet">by {{ starting.by }}</span>
            <el-button
              v-if="course.mayWork"
              size="small"
              :aria-label="`Start from it: ${starting.name}`"
              :loading="importing.isPending.value"
              @click="importing.mutate({ startingPlan: starting.id })"
              >Start from it</el-button
            >
          </li>
        </ul>
        <form v-if="course.mayWork" class="keep" @submit.prevent="keeping.mutate()">
          <el-input v-model="name" size="small" maxlength="200" aria-label="Name of the plan to start from" placeholder="its name" />
          <el-button native-type="submit" size="small" :disabled="name.trim() === ''" :loading="keeping.isPending.value"
            >Keep this plan as one to start from</el-button
          >
          <input
            ref="file"
            type="file"
            accept=".json,application/json"
            class="unseen"
            aria-label="Plan from a file"
            @change="choose(($event.target as HTMLInputElement).files)"
          />
          <el-button size="small" @click="file?.click()">Import a plan</el-button>
        </form>
      </section>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
}
.starting-plans,
.compared ul {
  margin: 0 0 8px;
  padding-inline-start: 18px;
}
.starting-plans li {
  display: flex;
  gap: 8px;
  align-items: center;
}
.keep {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.keep .el-input {
  inline-size: 220px;
}
.compared {
  background: var(--mark);
  padding: 6px 10px;
  margin-block: 8px;
}
</style>
