<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'

/** What new datasets of the migration begin with: the same two systems write their values the same way in each. */
const props = defineProps<{ course: Schemas['Course']; defaults: readonly string[] }>()
const queries = useQueryClient()
const path = () => ({ params: { path: { dataset: props.course.id } } })
const change = useMutation({
  mutationFn: (isKept: boolean) =>
    isKept ? answer(api.PUT('/datasets/{dataset}/plan-defaults', path())) : answer(api.DELETE('/datasets/{dataset}/plan-defaults', path())),
  onSuccess: (plan) => queries.setQueriesData({ queryKey: ['dataset', props.course.id, 'plan'] }, plan),
})
</script>

<template>
  <div class="line">
    <p v-if="defaults.length > 0" class="quiet" role="status">
      New datasets of {{ course.migration.name }} begin with <span data-sentence="plan/defaults">{{ defaults.join('; ') }}</span>.
      <el-button link size="small" :loading="change.isPending.value" @click="change.mutate(false)">Begin with nothing</el-button>
    </p>
    <el-button size="small" :loading="change.isPending.value" @click="change.mutate(true)">Begin new datasets with what this plan says</el-button>
    <ErrorNote :error="change.error.value" />
  </div>
</template>

<style scoped>
.line {
  display: grid;
  gap: 4px;
  justify-items: start;
}
p {
  margin: 0;
  font-size: 12.5px;
}
</style>
