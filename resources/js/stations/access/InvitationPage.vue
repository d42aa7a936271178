<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api } from '@/api/client'
import { roleName } from '@/format/roles'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import AccessFrame from '@/stations/access/AccessFrame.vue'

const router = useRouter()
const token = String(useRoute().params.token)
const queries = useQueryClient()
const invitation = useQuery({
  queryKey: ['invitation', token],
  queryFn: () => answer(api.GET('/invitations/{token}', { params: { path: { token } } })),
  retry: false,
  staleTime: Infinity,
})
const entered = reactive({ name: '', password: '' })
watch(invitation.data, (found) => {
  if (found !== undefined && entered.name === '') entered.name = found.name
})
const { mutate, isPending, error } = useMutation({
  mutationFn: () => answer(api.POST('/invitations/{token}/acceptance', { params: { path: { token } }, body: { ...entered } })),
  onSuccess: async () => {
    await queries.invalidateQueries({ queryKey: ['session'] })
    await router.push('/')
  },
})
</script>

<template>
  <AccessFrame heading="You are invited" note="The link is used once. Choose a password; your account is there at once.">
    <LoadState :is-loading="invitation.isPending.value" :error="invitation.error.value" what="The invitation" @retry="invitation.refetch()">
      <p v-if="invitation.data.value">
        {{ invitation.data.value.by }} invites <b>{{ invitation.data.value.email }}</b><template
          v-if="invitation.data.value.role && invitation.data.value.migration"
        >
          as {{ roleName(invitation.data.value.role) }} of {{ invitation.data.value.migration }}</template
        >.
      </p>
      <el-form label-position="top" @submit.prevent="mutate()">
        <el-form-item label="Your name"><el-input id="name" v-model="entered.name" autocomplete="name" /></el-form-item>
        <el-form-item label="Password, 15 characters or more; several words are easy to keep"
          ><el-input id="password" v-model="entered.password" type="password" show-password autocomplete="new-password"
        /></el-form-item>
        <el-button type="primary" native-type="submit" :loading="isPending">Come in</el-button>
      </el-form>
      <ErrorNote :error="error" />
    </LoadState>
  </AccessFrame>
</template>

<style scoped>
p {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
