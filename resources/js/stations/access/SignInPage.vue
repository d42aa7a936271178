<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, ApiProblem } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import AccessFrame from '@/stations/access/AccessFrame.vue'

const queries = useQueryClient()
const entered = reactive({ email: '', password: '', code: '' })
/** Asked for when the password is right, of whoever has a second factor. */
const asksForCode = ref(false)
const { mutate, isPending, error } = useMutation({
  mutationFn: () => {
    const { code, ...known } = entered
    return answer(api.POST('/session', { body: code === '' ? known : { ...known, code } }))
  },
  onError: (problem) => {
    if (problem instanceof ApiProblem && problem.code === 'second-factor') asksForCode.value = true
  },
  onSuccess: () => queries.invalidateQueries({ queryKey: ['session'] }),
})
const refusal = computed(() => (error.value instanceof ApiProblem && error.value.code === 'second-factor' ? null : error.value))
</script>

<template>
  <AccessFrame heading="Who is there?" note="Nine Tally shows what arrived, what did not, and why.">
    <el-form label-position="top" @submit.prevent="mutate()">
      <el-form-item label="E-mail address"><el-input id="email" v-model="entered.email" name="email" autocomplete="username" autofocus /></el-form-item>
      <el-form-item label="Password"
        ><el-input id="password" v-model="entered.password" name="password" type="password" autocomplete="current-password"
      /></el-form-item>
      <el-form-item v-if="asksForCode" label="Code of your authenticator, or a recovery code"
        ><el-input id="code" v-model="entered.code" name="code" autocomplete="one-time-code" autofocus
      /></el-form-item>
      <el-button
        type="primary"
        native-type="submit"
        :loading="isPending"
        :disabled="entered.email === '' || entered.password === '' || (asksForCode && entered.code === '')"
        >Sign in</el-button
      >
    </el-form>
    <ErrorNote :error="refusal" />
  </AccessFrame>
</template>
