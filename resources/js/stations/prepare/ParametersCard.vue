<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import CommittedInput from '@/parts/CommittedInput.vue'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Values that conditions ask for: they are recorded with each tally, and changing one makes no new plan. */
const props = defineProps<{ course: Schemas['Course']; names: readonly string[]; parameters: Record<string, string> }>()
const queries = useQueryClient()

const save = useMutation({
  mutationFn: (parameters: Record<string, string>) =>
    answer(api.PUT('/datasets/{dataset}/parameters', { params: { path: { dataset: props.course.id } }, body: { parameters } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
</script>

<template>
  <section aria-label="Parameters of the tally">
    <h2>Parameters of the tally</h2>
    <label v-for="name in names" :key="name">
      <span>{{ name }}</span>
      <CommittedInput
        :value="parameters[name] ?? ''"
        :aria-label="name"
        :disabled="!course.mayWork"
        placeholder="has no value yet"
        @commit="save.mutate({ ...parameters, [name]: $event })"
      />
    </label>
    <ErrorNote :error="save.error.value" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  margin-block-start: 14px;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
</style>
