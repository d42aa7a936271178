<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { answer, api } from '@/api/client'
import { useSession } from '@/composables/useSession'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'
import ApiTokens from '@/stations/access/ApiTokens.vue'
import NoticeChoices from '@/stations/access/NoticeChoices.vue'
import SecondFactor from '@/stations/access/SecondFactor.vue'

/** What is one's own: the password, the second factor, the sessions that go on, and tokens. */
const queries = useQueryClient()
const { data: session } = useSession()
const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => answer(api.GET('/me/sessions')) })
const entered = reactive({ current: '', new: '' })
const isChanged = ref(false)
const change = useMutation({
  mutationFn: () => answer(api.PUT('/me/password', { body: { ...entered } })),
  onMutate: () => (isChanged.value = false),
  onSuccess: () => {
    isChanged.value = true
    Object.assign(entered, { current: '', new: '' })
    return queries.invalidateQueries({ queryKey: ['sessions'] })
  },
})
const end = useMutation({
  mutationFn: (id: number) => answer(api.DELETE('/me/sessions/{session}', { params: { path: { session: id } } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['sessions'] }),
})
</script>

<template>
  <TopBar />
  <main class="page">
    <h1>{{ session?.person?.name }}</h1>
    <p class="quiet">{{ session?.person?.email }}</p>
    <h2>Your password</h2>
    <el-form label-position="top" class="password" @submit.prevent="change.mutate()">
      <input type="text" autocomplete="username" :value="session?.person?.email" hidden />
      <el-form-item label="Password now"><el-input id="current" v-model="entered.current" type="password" autocomplete="current-password" /></el-form-item>
      <el-form-item label="New password, 15 characters or more (8 with a second factor); several words are easy to keep"
        ><el-input id="new" v-model="entered.new" type="password" show-password autocomplete="new-password"
      /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="change.isPending.value" :disabled="entered.current === '' || entered.new === ''"
        >Change it, and end my other sessions</el-button
      >
    </el-form>
    <ErrorNote :error="change.error.value" />
    <p v-if="isChanged" role="status">Your password is changed, and your other sessions have ended.</p>
    <SecondFactor />
    <NoticeChoices />
    <h2>Where you are signed in</h2>
    <ErrorNote :error="end.error.value" />
    <LoadState :is-loading="sessions.isPending.value" :error="sessions.error.value" what="Your sessions" @retry="sessions.refetch()">
      <ul class="entries">
        <li v-for="one in sessions.data.value?.items" :key="one.id">
          <div>
            <b v-if="one.isThisOne">Here</b> <span class="cell">{{ one.agent || 'a program that says no name' }}</span>
            <span class="quiet">from {{ one.address }}, since {{ moment(one.since) }}, last seen {{ moment(one.seenAt) }}</span>
          </div>
          <el-button v-if="!one.isThisOne" size="small" :loading="end.isPending.value" @click="end.mutate(one.id)">End it</el-button>
        </li>
      </ul>
    </LoadState>
    <ApiTokens />
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  max-inline-size: 88ch;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.password {
  max-inline-size: 420px;
}
p {
  margin: 0;
}
h2 {
  margin-block-start: 14px;
}
</style>
