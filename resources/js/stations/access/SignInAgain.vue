<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, ApiProblem, rememberToken } from '@/api/client'
import { goOn, isSessionOver } from '@/api/sessionOver'
import { useSession } from '@/composables/useSession'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Over the page as it stands, so that nothing typed into it is lost: the same person signs in again, and what was asked goes on. */
const queries = useQueryClient()
const { data: session } = useSession()
const entered = reactive({ password: '', code: '' })
const asksForCode = ref(false)
const email = computed(() => session.value?.person?.email ?? '')
const { mutate, isPending, error } = useMutation({
  mutationFn: async () => {
    // The token of the session that is gone is worth nothing: the next one comes with a session of nobody.
    rememberToken((await answer(api.GET('/session'))).csrfToken)
    const known = { email: email.value, password: entered.password }
    await answer(api.POST('/session', { body: entered.code === '' ? known : { ...known, code: entered.code } }))
    return answer(api.GET('/session'))
  },
  onError: (problem) => {
    if (problem instanceof ApiProblem && problem.code === 'second-factor') asksForCode.value = true
  },
  onSuccess: (fresh) => {
    rememberToken(fresh.csrfToken)
    queries.setQueryData(['session'], fresh)
    Object.assign(entered, { password: '', code: '' })
    asksForCode.value = false
    goOn()
  },
})
const refusal = computed(() => (error.value instanceof ApiProblem && error.value.code === 'second-factor' ? null : error.value))
const leave = (): void => window.location.assign('/')
</script>

<template>
  <el-dialog
    :model-value="isSessionOver"
    title="Your session is over"
    width="420"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <p>What you typed is still here. Sign in again as {{ session?.person?.name }}, and it goes on.</p>
    <el-form label-position="top" @submit.prevent="mutate()">
      <input type="text" autocomplete="username" :value="email" hidden />
      <el-form-item label="Password, to go on"><el-input v-model="entered.password" type="password" autocomplete="current-password" autofocus /></el-form-item>
      <el-form-item v-if="asksForCode" label="Code of your authenticator, or a recovery code"
        ><el-input v-model="entered.code" autocomplete="one-time-code"
      /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="isPending" :disabled="entered.password === '' || (asksForCode && entered.code === '')"
        >Sign in again</el-button
      >
      <el-button link @click="leave">I am somebody else</el-button>
    </el-form>
    <ErrorNote :error="refusal" />
  </el-dialog>
</template>
