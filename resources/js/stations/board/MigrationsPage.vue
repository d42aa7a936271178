<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'

const router = useRouter()
const queries = useQueryClient()
const { data, error, isPending, refetch } = useQuery({ queryKey: ['migrations'], queryFn: () => answer(api.GET('/migrations')) })
const entered = reactive({ name: '', sourceLabel: 'Old system', targetLabel: 'New system' })
const add = useMutation({
  mutationFn: () => answer(api.POST('/migrations', { body: { ...entered } })),
  onSuccess: async (migration) => {
    await queries.invalidateQueries({ queryKey: ['migrations'] })
    await router.push(`/migrations/${migration.id}`)
  },
})

// Whoever works on one migration only goes straight to its board.
watchEffect(() => {
  const only = data.value?.items.length === 1 && !data.value.mayAdd ? data.value.items[0] : undefined
  if (only !== undefined) {
    void router.replace(`/migrations/${only.id}`)
  }
})
</script>

<template>
  <TopBar />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="Your migrations" @retry="refetch()">
      <h1>{{ data?.items.length === 0 ? 'No migration yet' : 'Which migration?' }}</h1>
      <p v-if="data?.items.length === 0 && !data.mayAdd">You are not a member of any migration. Ask whoever runs Nine Tally to add you.</p>
      <ul>
        <li v-for="migration in data?.items" :key="migration.id">
          <RouterLink :to="`/migrations/${migration.id}`">{{ migration.name }}</RouterLink>
        </li>
      </ul>
      <el-form v-if="data?.mayAdd" label-position="top" class="form" @submit.prevent="add.mutate()">
        <h2>Add a migration</h2>
        <el-form-item label="Name"><el-input v-model="entered.name" /></el-form-item>
        <el-form-item label="What the source is called"><el-input v-model="entered.sourceLabel" /></el-form-item>
        <el-form-item label="What the target is called"><el-input v-model="entered.targetLabel" /></el-form-item>
        <el-button type="primary" native-type="submit" :loading="add.isPending.value" :disabled="entered.name.trim() === ''">Add the migration</el-button>
        <ErrorNote :error="add.error.value" />
      </el-form>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
}
.form {
  display: grid;
  gap: 4px;
  justify-items: start;
  inline-size: min(400px, 100%);
}
.form > :deep(.el-form-item) {
  inline-size: 100%;
}
</style>
