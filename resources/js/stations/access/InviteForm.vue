<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { type Role, roleName, ROLES } from '@/format/roles'
import ErrorNote from '@/parts/ErrorNote.vue'

defineProps<{ migrations: readonly Schemas['AllPeople']['migrations'][number][] }>()
const emit = defineEmits<{ invited: [] }>()
const entered = reactive({ name: '', email: '', migration: null as number | null, role: null as Role | null, isAdministrator: false })
/** Told once: nobody can look it up later. */
const link = ref<{ email: string; url: string } | null>(null)
const { mutate, isPending, error } = useMutation({
  mutationFn: () => answer(api.POST('/people/invitations', { body: { ...entered, role: entered.migration === null ? null : entered.role } })),
  onSuccess: (invited) => {
    link.value = { email: entered.email, url: invited.link }
    Object.assign(entered, { name: '', email: '', migration: null, role: null, isAdministrator: false })
    emit('invited')
  },
})
</script>

<template>
  <form class="invite" @submit.prevent="mutate()">
    <label class="field">Name <el-input v-model="entered.name" aria-label="Name" maxlength="100" autocomplete="off" /></label>
    <label class="field">E-mail address <el-input v-model="entered.email" aria-label="E-mail address" maxlength="254" autocomplete="off" /></label>
    <label class="field"
      >Migration
      <el-select v-model="entered.migration" clearable placeholder="none yet" aria-label="Migration">
        <el-option v-for="one in migrations" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </label>
    <label class="field"
      >Role
      <el-select v-model="entered.role" :disabled="entered.migration === null" placeholder="choose" aria-label="Role">
        <el-option v-for="role in ROLES" :key="role" :value="role" :label="roleName(role)" />
      </el-select>
    </label>
    <el-checkbox v-model="entered.isAdministrator">administrator</el-checkbox>
    <el-button
      type="primary"
      native-type="submit"
      :loading="isPending"
      :disabled="entered.name.trim() === '' || entered.email.trim() === '' || (entered.migration !== null && entered.role === null)"
      >Invite</el-button
    >
  </form>
  <ErrorNote :error="error" />
  <p v-if="link" role="status" class="link">
    A letter with the link went to {{ link.email }}. The link, which is told only here and only now: <code>{{ link.url }}</code>
  </p>
</template>

<style scoped>
.invite {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.field {
  display: grid;
  font-size: 12.5px;
  color: var(--ink-2);
  inline-size: 190px;
}
.link {
  margin: 0;
  background: var(--mark);
  padding: 6px 10px;
  overflow-wrap: anywhere;
}
</style>
