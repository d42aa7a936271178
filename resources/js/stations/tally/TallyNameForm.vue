<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'

/** What a tally is called, and a remark on it: entries beside the tally, which itself never changes. */
const props = defineProps<{ tally: Schemas['Tally'] }>()
const emit = defineEmits<{ close: [] }>()
const queries = useQueryClient()
const name = ref(props.tally.name)
const remark = ref(props.tally.remark)
const naming = useMutation({
  mutationFn: () => answer(api.PUT('/tallies/{tally}/name', { params: { path: { tally: props.tally.id } }, body: { name: name.value, remark: remark.value } })),
  onSuccess: async () => {
    await Promise.all([queries.invalidateQueries({ queryKey: ['dataset'] }), queries.invalidateQueries({ queryKey: ['tally', props.tally.id] })])
    emit('close')
  },
})
</script>

<template>
  <el-dialog :model-value="true" :title="`What tally ${tally.number} is called`" width="min(520px, 95vw)" @close="emit('close')">
    <form @submit.prevent="naming.mutate()">
      <el-input v-model="name" maxlength="100" aria-label="Name" placeholder="such as Rehearsal 3" />
      <el-input v-model="remark" type="textarea" :rows="3" maxlength="2000" aria-label="Remark" placeholder="remark" />
      <ErrorNote :error="naming.error.value" />
      <el-button type="primary" native-type="submit" :loading="naming.isPending.value">Keep it</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
</style>
