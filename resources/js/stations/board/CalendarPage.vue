<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import DrawLog from '@/parts/DrawLog.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import { asked, isIdle, newChoice } from '@/parts/scheduleChoice'
import ScheduleFields from '@/parts/ScheduleFields.vue'
import TopBar from '@/parts/TopBar.vue'

/** What will be drawn by itself, and what became of what was. */
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
const queries = useQueryClient()
const show = (found: NonNullable<typeof data.value>) => queries.setQueryData(['migration', id, 'schedule'], found)
/** The same times for all that can be drawn. */
const isSetting = ref(false)
const choice = ref(newChoice())
const keep = useMutation({
  mutationFn: (isOn: boolean) => answer(api.PUT('/migrations/{migration}/schedule', { ...params(), body: asked(choice.value, isOn) })),
  onSuccess: (found) => {
    isSetting.value = false
    show(found)
  },
})
const draw = useMutation({ mutationFn: () => answer(api.POST('/migrations/{migration}/draws', params())), onSuccess: show })
const notDrawn = computed(() => draw.data.value?.notDrawn ?? [])
const names = computed(() => data.value?.draws.map(({ name }) => name).join(', ') ?? '')
</script>

<template>
  <TopBar :migration="board?.migration" />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The schedule" @retry="refetch()">
      <h1>{{ heading }}</h1>
      <p class="quiet">
        A dataset whose sides come from databases, feeds, folders or buckets can be drawn and tallied by itself: in its station Deliver, under
        <i>Draw by schedule</i>. What others look up is delivered first, and what they take numbers from tallied first.
      </p>
      <div v-if="data && data.draws.length > 0 && board?.mayWork" class="all">
        <p class="buttons">
          <el-button :aria-expanded="isSetting" @click="isSetting = !isSetting">The same times for all that can be drawn</el-button>
          <el-button :loading="draw.isPending.value" @click="draw.mutate()">Draw all of them now</el-button>
        </p>
        <form v-if="isSetting" class="times" @submit.prevent="keep.mutate(true)">
          <p class="quiet">{{ names }}: what is set for each of them by itself is replaced.</p>
          <ScheduleFields v-model="choice" draws />
          <span class="buttons">
            <el-button type="primary" native-type="submit" :disabled="isIdle(choice)" :loading="keep.isPending.value">Set these times for all</el-button>
            <el-button @click="keep.mutate(false)">Switch all off</el-button>
          </span>
        </form>
        <p v-for="one in notDrawn" :key="one.dataset" role="status">{{ one.dataset }} is not drawn: {{ one.why }}</p>
        <ErrorNote :error="keep.error.value ?? draw.error.value" />
      </div>
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
.all {
  display: grid;
  gap: 8px;
}
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.times > p {
  inline-size: 100%;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
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
