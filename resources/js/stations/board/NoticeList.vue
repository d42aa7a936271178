<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answer, api } from '@/api/client'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'

/** What happened without anybody waiting for it, the newest first. */
const EVERY = 15_000
const { data, error, isPending, refetch } = useQuery({ queryKey: ['notices'], queryFn: () => answer(api.GET('/notices')), refetchInterval: EVERY })
</script>

<template>
  <h2>What happened</h2>
  <LoadState :is-loading="isPending" :error="error" what="What happened" @retry="refetch()">
    <p v-if="data?.items.length === 0" class="quiet">Nothing yet. You choose what you are told of under <RouterLink to="/account">your account</RouterLink>.</p>
    <ul v-else aria-label="What happened">
      <li v-for="one in data?.items" :key="one.id">
        <RouterLink :to="one.link">{{ one.said }}</RouterLink>
        <span class="quiet">{{ moment(one.at) }}</span>
      </li>
    </ul>
  </LoadState>
</template>

<style scoped>
p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 8px 0;
  border-block-end: 1px solid var(--line);
  display: grid;
}
</style>
