<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Locks somebody out; what they are still asked goes to somebody else, if wanted. */
type Person = Schemas['AllPeople']['items'][number]
const props = defineProps<{ person: Person; people: readonly Person[] }>()
const emit = defineEmits<{ close: []; locked: [] }>()
const heir = ref<number | null>(null)
const lock = useMutation({
  mutationFn: () => answer(api.PUT('/people/{person}/lock', { params: { path: { person: props.person.id } }, body: { isLocked: true, heir: heir.value } })),
  onSuccess: () => emit('locked'),
})
</script>

<template>
  <el-dialog :model-value="true" :title="`Lock ${person.name}`" width="min(520px, 95vw)" @close="emit('close')">
    <p>Every session of {{ person.name }} ends at once, and no new one begins. What was done stays as it is; the lock can be taken away again.</p>
    <label
      >What {{ person.name }} is still asked goes to
      <el-select v-model="heir" clearable placeholder="nobody" aria-label="Who is asked instead">
        <el-option v-for="one in people.filter(({ id, lockedAt }) => id !== person.id && lockedAt === null)" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </label>
    <ErrorNote :error="lock.error.value" />
    <template #footer>
      <el-button @click="emit('close')">Leave it</el-button>
      <el-button type="primary" :loading="lock.isPending.value" @click="lock.mutate()">Lock {{ person.name }}</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
}
</style>
