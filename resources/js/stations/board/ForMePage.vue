<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useForMe } from '@/composables/useForMe'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'
import NoticeList from '@/stations/board/NoticeList.vue'
import WaitingSignatures from '@/stations/board/WaitingSignatures.vue'

/** What the person is asked, and where somebody mentioned them. */
const { data, error, isPending, refetch } = useForMe()

function placeOf(mention: Schemas['Mention']): { path: string; query: Record<string, string> } {
  const subject: Record<string, string> =
    mention.kind === 'pattern'
      ? { pattern: mention.target }
      : mention.kind === 'class'
        ? { class: mention.target }
        : { ...(mention.kind === 'cell' ? { of: 'cells' } : {}), at: mention.target }
  return { path: `/datasets/${mention.datasetId}/review`, query: { tally: String(mention.tally), ...subject } }
}
</script>

<template>
  <TopBar />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="What waits for you" @retry="refetch()">
      <WaitingSignatures v-if="data && data.toSign.length > 0" :items="data.toSign" @changed="refetch()" />
      <component :is="data && data.toSign.length > 0 ? 'h2' : 'h1'">{{ data?.asked.length === 0 ? 'No questions for you' : 'What you are asked' }}</component>
      <ul v-if="data && data.asked.length > 0" aria-label="Asked">
        <li v-for="one in data.asked" :key="one.act">
          <RouterLink :to="{ path: `/datasets/${one.datasetId}/review`, query: { tally: one.tally, of: one.of, act: one.act } }">{{
            one.reason || 'What is this?'
          }}</RouterLink>
          <span class="quiet">
            {{ one.dataset }}, tally {{ one.tallyNumber }}: {{ counted(one.findings, 'finding') }}{{ one.ticket === null ? '' : `, ${one.ticket}` }};
            {{ one.by }}, {{ moment(one.at) }}
          </span>
        </li>
      </ul>
      <p class="quiet">To answer, rule on the findings: a finding leaves the list once it has another ruling.</p>
      <template v-if="data && data.toLookAt.length > 0">
        <h2>Rows that you are to look at</h2>
        <ul aria-label="To look at">
          <li v-for="one in data.toLookAt" :key="one.check">
            <RouterLink :to="{ path: `/datasets/${one.datasetId}/prove/eye-check`, query: { check: one.check } }"
              >{{ counted(one.rows, 'row') }} that agree, to be looked at by eye</RouterLink
            >
            <span class="quiet"> {{ one.dataset }}, tally {{ one.tallyNumber }}: {{ counted(one.said, 'row') }} done; {{ one.by }}, {{ moment(one.at) }} </span>
          </li>
        </ul>
      </template>
      <h2>Where you are mentioned</h2>
      <p v-if="data?.mentioned.length === 0" class="quiet">Nowhere yet.</p>
      <ul v-else aria-label="Mentioned">
        <li v-for="one in data?.mentioned" :key="one.id">
          <RouterLink :to="placeOf(one)">{{ one.text }}</RouterLink>
          <span class="quiet">{{ one.dataset }}, tally {{ one.tallyNumber }}; {{ one.by }}, {{ moment(one.at) }}</span>
        </li>
      </ul>
      <NoticeList />
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  max-inline-size: 88ch;
  display: grid;
  gap: 8px;
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
  overflow-wrap: anywhere;
}
p {
  margin: 0;
}
h2 {
  margin-block-start: 14px;
}
</style>
