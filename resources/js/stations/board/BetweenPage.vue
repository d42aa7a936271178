<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { count } from '@/format/counts'
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
const heading = computed(() => {
  if (data.value === undefined || data.value.items.length === 0) return 'What lies between the datasets'
  if (data.value.items.some(({ found }) => found === null)) return 'Rows are being looked for in every dataset …'
  return fell.value === 0 ? 'No row fell between the datasets' : `${count(fell.value)} ${fell.value === 1 ? 'row' : 'rows'} fell between the datasets`
})
type List = 'none' | 'several'
const opened = ref<{ item: Schemas['SharedDelivery']; list: List } | null>(null)
const LISTS: Record<List, string> = { none: 'in no dataset', several: 'in more than one' }
const toggle = (item: Schemas['SharedDelivery'], list: List): void => {
  opened.value = opened.value?.item === item && opened.value.list === list ? null : { item, list }
}
const told = computed(() => (opened.value === null ? [] : (opened.value.item.found?.told[opened.value.list] ?? [])))
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
            ><button type="button" class="plain list" :aria-expanded="opened?.item === item && opened.list === list" @click="toggle(item, list)">
              <b :class="{ bad: list === 'none' && item.found.none > 0 }"><FigureValue name="shared/items" :of="item.found[list]" /></b> {{ LISTS[list] }}
            </button></template
          >
          <span v-if="item.found.refused > 0" class="quiet">; <FigureValue name="shared/items" :of="item.found.refused" /> could not be read as rows</span>
        </p>
        <table v-if="opened?.item === item">
          <thead>
            <tr>
              <th scope="col" class="number">line</th>
              <th scope="col">the row begins with</th>
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
        <p v-if="opened?.item === item && (item.found?.[opened.list] ?? 0) > told.length" class="quiet">The first of them.</p>
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
