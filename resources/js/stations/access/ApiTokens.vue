<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { answer, api } from '@/api/client'
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'

/** For programs that speak to the API in one's name: each for some acts, and until a day. */
type Scope = Schemas['TokenScope']

const scopes: Record<Scope, string> = {
  view: 'see and take away, masked',
  work: 'deliver, prepare, match, tally',
  rule: 'rule and undo',
  comment: 'comment',
  audit: 'see the trail',
}
const queries = useQueryClient()
const tokens = useQuery({ queryKey: ['me', 'tokens'], queryFn: () => answer(api.GET('/me/tokens')) })
const inNinetyDays = () => new Date(Date.now() + 90 * 86400000).toISOString().slice(0, 10)
const blank = () => ({ name: '', password: '', scopes: ['view'] as Scope[], lastDay: inNinetyDays() })
const entered = reactive(blank())
const fresh = ref('')
const refresh = () => queries.invalidateQueries({ queryKey: ['me', 'tokens'] })
const make = useMutation({
  mutationFn: () => answer(api.POST('/me/tokens', { body: { ...entered } })),
  onSuccess: ({ token }) => {
    fresh.value = token
    Object.assign(entered, blank())
    return refresh()
  },
})
const end = useMutation({
  mutationFn: (number: number) => answer(api.DELETE('/me/tokens/{number}', { params: { path: { number } } })),
  onSuccess: refresh,
})
const isOver = (endsAt: string) => new Date(endsAt) < new Date()
</script>

<template>
  <section aria-label="Tokens for programs">
    <h2>Tokens for programs</h2>
    <p class="quiet">
      A program that carries a token does in your name what the token was made for, as far as your roles allow it. It sees sensitive values masked, always.
    </p>
    <LoadState :is-loading="tokens.isPending.value" :error="tokens.error.value" what="Your tokens" @retry="tokens.refetch()">
      <ul class="entries">
        <li v-for="token in tokens.data.value?.items" :key="token.id">
          <div>
            <b>{{ token.name }}</b> <span>{{ token.scopes.map((scope) => scopes[scope]).join('; ') }}</span>
            <span class="quiet"
              >made {{ moment(token.madeAt) }}, {{ token.usedAt === null ? 'never used' : `last used ${moment(token.usedAt)}` }},
              {{ isOver(token.endsAt) ? 'over since' : 'lasts until' }} {{ moment(token.endsAt) }}</span
            >
          </div>
          <el-button size="small" :loading="end.isPending.value" @click="end.mutate(token.id)">End it</el-button>
        </li>
      </ul>
    </LoadState>
    <template v-if="fresh !== ''">
      <p>This is the token. It is shown now and never again: put it where the program reads it, and nowhere else.</p>
      <p class="cell fresh">{{ fresh }}</p>
      <el-button @click="fresh = ''">I have kept it</el-button>
    </template>
    <el-form v-else label-position="top" class="make" @submit.prevent="make.mutate()">
      <el-form-item label="What the token is for"><el-input id="token-name" v-model="entered.name" maxlength="60" /></el-form-item>
      <el-form-item label="What it may do">
        <el-checkbox-group v-model="entered.scopes">
          <el-checkbox v-for="(words, scope) in scopes" :key="scope" :value="scope">{{ words }}</el-checkbox>
        </el-checkbox-group>
      </el-form-item>
      <el-form-item label="Its last day"><el-input id="token-last-day" v-model="entered.lastDay" type="date" /></el-form-item>
      <el-form-item label="Your password, to make it"
        ><el-input id="token-password" v-model="entered.password" type="password" autocomplete="current-password"
      /></el-form-item>
      <el-button
        native-type="submit"
        :loading="make.isPending.value"
        :disabled="entered.name.trim() === '' || entered.password === '' || entered.scopes.length === 0"
        >Make a token</el-button
      >
    </el-form>
    <ErrorNote :error="make.error.value ?? end.error.value" />
  </section>
</template>

<style scoped>
.make {
  max-inline-size: 420px;
}
.fresh {
  overflow-wrap: anywhere;
}
</style>
