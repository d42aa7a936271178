<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import DrawLog from '@/parts/DrawLog.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'

/** What will be drawn from databases by itself, and what became of what was. */
const EVERY = 5000
const route = useRoute()
const id = computed(() => Number(route.params.migration))
const params = () => ({ params: { path: { migration: id.value } } })
const { data: board } = useQuery({
  queryKey: ['migration', id, 'board'],
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/board', { ...params(), signal })),
})
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['migration', id, 'schedule'],
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/schedule', { ...params(), signal })),
  refetchInterval: EVERY,
})
/** The next times of a day together. */
const days = computed(() => {
  const found = new Map<string, NonNullable<typeof data.value>['next']>()
  for (const one of data.value?.next ?? []) {
    const day = new Date(one.at).toDateString()
    found.set(day, [...(found.get(day) ?? []), one])
  }
  return [...found.values()]
})
const heading = computed(() => {
  const datasets = new Set((data.value?.next ?? []).map(({ dataset }) => dataset.id)).size
  return datasets === 0 ? 'Nothing is drawn by itself yet' : `${counted(datasets, 'dataset')} drawn by schedule`
})
</script>

<template>
  <TopBar :migration="board?.migration" />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The schedule" @retry="refetch()">
      <h1>{{ heading }}</h1>
      <p class="quiet">A dataset whose sides come from databases can be drawn and tallied by itself: in its station Deliver, under <i>Draw by schedule</i>.</p>
      <div v-if="data" class="two">
        <section aria-label="What will be drawn">
          <h2>What will be drawn</h2>
          <p v-if="days.length === 0" class="quiet">No time is set.</p>
          <ul>
            <li v-for="times in days" :key="times[0]?.at">
              <ul>
                <li v-for="one in times" :key="`${one.at} ${one.dataset.id}`">
                  <span class="when">{{ moment(one.at) }}</span>
                  <RouterLink :to="`/datasets/${one.dataset.id}/deliver`">{{ one.dataset.name }}</RouterLink>
                  <span class="quiet">{{ one.zone }}</span>
                </li>
              </ul>
            </li>
          </ul>
        </section>
        <section aria-label="What was drawn">
          <h2>What was drawn</h2>
          <p v-if="data.past.length === 0" class="quiet">Nothing yet.</p>
          <DrawLog :draws="data.past" names-dataset />
        </section>
      </div>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  display: grid;
  gap: 8px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
  gap: 24px;
}
p {
  margin: 0;
}
h2 {
  font-size: 15px;
  margin-block: 10px 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
section > ul > li {
  border-block-end: 1px solid var(--line-2);
  padding-block: 5px;
}
li li {
  display: flex;
  gap: 12px;
  font-size: 13px;
  padding-block: 2px;
}
.when {
  font-variant-numeric: tabular-nums;
}
@media (width < 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
