<script setup lang="ts">
import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'

/** That nothing fell between datasets: of each delivery that several use, the rows that none takes, and those that several do. */
const WHILE_IT_IS_FOUND = 700
const route = useRoute()
const migration = computed(() => Number(route.params.migration))
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['migration', migration, 'shared-deliveries'],
  queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/shared-deliveries', { params: { path: { migration: migration.value } }, signal })),
  refetchInterval: ({ state }) => (state.data?.items.some(({ isWaiting }) => isWaiting) === true ? WHILE_IT_IS_FOUND : false),
})
const fell = computed(() => (data.value?.items ?? []).reduce((rows, { found }) => rows + (found?.none ?? 0), 0))
type List = 'none' | 'several'
const rows = (number: number): string => counted(number, 'row')
type Item = Schemas['SharedDelivery']
const isFault = (item: Item, list: List): boolean => (item.found?.[list] ?? 0) > 0 && (list === 'none' || item.alone?.isDemanded === true)
const demand = useMutation({
  mutationFn: ({ side, files, alone }: Item) =>
    answer(
      api.POST('/migrations/{migration}/landing-demands', {
        params: { path: { migration: migration.value } },
        body: { side, files, isDemanded: alone?.isDemanded !== true },
      }),
    ),
  onSuccess: () => refetch(),
})
const heading = computed(() => {
  if (data.value === undefined || data.value.items.length === 0) return 'What lies between the datasets'
  if (data.value.items.some(({ found }) => found === null)) return 'Rows are being looked for in every dataset …'
  const tooOften = data.value.items.reduce((rows, item) => rows + (isFault(item, 'several') ? (item.found?.several ?? 0) : 0), 0)
  const fallen = fell.value === 0 ? 'No row fell between the datasets' : `${rows(fell.value)} fell between the datasets`
  return tooOften === 0 ? fallen : `${fallen}, and ${rows(tooOften)} landed in more than one`
})
const opened = ref<{ nth: number; list: List } | null>(null)
const LISTS: Record<List, string> = { none: 'in no dataset', several: 'in more than one' }
const toggle = (nth: number, list: List): void => {
  opened.value = opened.value?.nth === nth && opened.value.list === list ? null : { nth, list }
}
const told = computed(() => (opened.value === null ? [] : (data.value?.items[opened.value.nth]?.found?.told[opened.value.list] ?? [])))
</script>

<template>
  <TopBar />
  <main class="page">
    <header>
      <h1>{{ heading }}</h1>
      <RouterLink class="button" :to="`/migrations/${migration}`">Back to the board</RouterLink>
    </header>
    <LoadState :is-loading="isPending" :error="error" what="What datasets share" @retry="refetch()">
      <p v-if="data?.items.length === 0" class="quiet">
        No delivery is used by several datasets. Where one is, each of its rows is looked for here: those that no dataset takes fell between them, by the newest
        tally of each.
      </p>
      <ErrorNote :error="demand.error.value" />
      <section v-for="(item, nth) in data?.items" :key="nth" :aria-label="item.files.join(', ')">
        <h2>
          <span class="cell" :class="item.side === 'source' ? 'src' : 'tgt'">{{ item.files.join(', ') }}</span>
        </h2>
        <p class="quiet">
          used by
          <template v-for="(dataset, place) in item.datasets" :key="dataset.id"
            >{{ place === 0 ? '' : ', ' }}<RouterLink :to="`/datasets/${dataset.id}/prepare`">{{ dataset.name }}</RouterLink> (tally
            {{ dataset.tally }})</template
          >;
          {{
            item.byPlace
              ? 'the same bytes, so each row is known by its line'
              : 'not the same bytes, so each row is known by its own cells, and rows that are alike are one'
          }}
        </p>
        <p v-if="item.problem" role="alert">{{ item.problem }}</p>
        <p v-else-if="item.found === null" class="quiet" role="status">Rows are being looked for …</p>
        <p v-else>
          <FigureValue name="shared/items" :of="item.found.rows" /> rows = <FigureValue name="shared/items" :of="item.found.one" /> in one dataset +
          <template v-for="list in ['none', 'several'] as const" :key="list"
            ><template v-if="list === 'several'"> + </template
            ><button type="button" class="plain list" :aria-expanded="opened?.nth === nth && opened.list === list" @click="toggle(nth, list)">
              <b :class="{ bad: isFault(item, list) }"><FigureValue name="shared/items" :of="item.found[list]" /></b> {{ LISTS[list] }}
            </button></template
          >
          <span v-if="item.found.refused > 0" class="quiet">; <FigureValue name="shared/items" :of="item.found.refused" /> could not be read as rows</span>
        </p>
        <p class="quiet">
          <template v-if="item.alone?.isDemanded"
            >Each row has to land in one dataset alone, says {{ item.alone.person }} ({{ moment(item.alone.at) }}).</template
          >
          <template v-else>A row may land in more than one dataset.</template>
          <button v-if="data?.mayWork" type="button" class="plain" :disabled="demand.isPending.value" @click="demand.mutate(item)">
            {{ item.alone?.isDemanded ? 'Demand it no longer' : 'Demand that each row lands in one alone' }}
          </button>
        </p>
        <table v-if="opened?.nth === nth">
          <thead>
            <tr>
              <th scope="col" class="number">line</th>
              <th scope="col">first columns</th>
              <th scope="col">{{ opened.list === 'none' ? 'left out by' : 'in' }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, place) in told" :key="place">
              <td class="number" data-ordinal>{{ row.part > 1 ? `${row.part}: ` : '' }}{{ count(row.line) }}</td>
              <td class="cell">{{ row.text }}</td>
              <td>
                {{ opened.list === 'none' ? row.leftOutBy.map(({ dataset, step }) => `${dataset}, step ${step}`).join('; ') : row.in.join(', ') }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="opened?.nth === nth && (item.found?.[opened.list] ?? 0) > told.length" class="quiet">The first of them.</p>
      </section>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  max-inline-size: 1100px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
}
section {
  margin-block-start: 20px;
}
h2 {
  font-size: 15px;
  margin: 0;
  overflow-wrap: anywhere;
}
p {
  margin: 4px 0;
}
.list {
  font: inherit;
}
.bad {
  color: var(--fail);
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  font-size: 13px;
  margin-block-start: 8px;
}
th,
td {
  text-align: start;
  padding: 5px 16px 5px 0;
  border-block-end: 1px solid var(--line);
  vertical-align: top;
  overflow-wrap: anywhere;
}
th {
  font-size: 12px;
  color: var(--ink-3);
}
.number {
  text-align: end;
  inline-size: 70px;
}
td.cell {
  white-space: pre-wrap;
}
</style>
