<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, rememberToken } from '@/api/client'
import { goOn, isSessionOver } from '@/api/sessionOver'
import { useSession } from '@/composables/useSession'
import ErrorNote from '@/parts/ErrorNote.vue'
import { useSignIn } from '@/stations/access/useSignIn'

/** Over the page as it stands, so that nothing typed into it is lost: the same person signs in again, and what was asked goes on. */
const queries = useQueryClient()
const { data: session } = useSession()
const email = computed(() => session.value?.person?.email ?? '')
async function fresh() {
  const now = await answer(api.GET('/session'))
  rememberToken(now.csrfToken)
  return now
}
const { entered, asksForCode, isIncomplete, mutate, isPending, refusal } = useSignIn({
  email: () => email.value,
  // The token of the session that is gone is worth nothing: the next one comes with a session of nobody.
  before: fresh,
  then: async () => {
    queries.setQueryData(['session'], await fresh())
    goOn()
  },
})
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
      <el-button type="primary" native-type="submit" :loading="isPending" :disabled="isIncomplete">Sign in again</el-button>
      <el-button link @click="leave">I am somebody else</el-button>
    </el-form>
    <ErrorNote :error="refusal" />
  </el-dialog>
</template>
