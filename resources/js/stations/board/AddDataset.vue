<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'

const props = defineProps<{ migration: number }>()
const isOpen = defineModel<boolean>({ required: true })
const router = useRouter()
const queries = useQueryClient()
const name = ref('')
const { mutate, isPending, error } = useMutation({
  mutationFn: () => answer(api.POST('/migrations/{migration}/datasets', { params: { path: { migration: props.migration } }, body: { name: name.value } })),
  onSuccess: async (dataset) => {
    await queries.invalidateQueries({ queryKey: ['migration'] })
    await router.push(`/datasets/${dataset.id}/deliver`)
  },
})
</script>

<template>
  <el-dialog v-model="isOpen" title="Add a dataset" width="420">
    <el-form label-position="top" @submit.prevent="mutate()">
      <el-form-item label="Name of the dataset"><el-input id="dataset-name" v-model="name" placeholder="Holders" autofocus /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="isPending" :disabled="name.trim() === ''">Add it and deliver both sides</el-button>
    </el-form>
    <ErrorNote :error="error" />
  </el-dialog>
</template>
