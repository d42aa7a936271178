<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { bytes, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'

/** What waits, what is at work and what was given up: numbers and states, and nothing of what is in a migration. */
const EVERY = 2000
const queries = useQueryClient()
const { data, error, isPending, refetch } = useQuery({ queryKey: ['work'], queryFn: () => answer(api.GET('/work')), refetchInterval: EVERY })
const refresh = () => queries.invalidateQueries({ queryKey: ['work'] })
const end = useMutation({ mutationFn: (run: number) => answer(api.POST('/work/runs/{run}/end', { params: { path: { run } } })), onSettled: refresh })
const retry = useMutation({ mutationFn: (run: number) => answer(api.POST('/work/runs/{run}/retry', { params: { path: { run } } })), onSettled: refresh })

type Queue = Schemas['Work']['queues'][number]
const MEANT: Record<Queue['name'], string> = {
  quick: 'answered in seconds, while somebody looks',
  default: 'somebody waits for it: answers, files, deliveries',
  run: 'tasks of tallies',
  profile: 'nobody waits for it yet',
}
const DOING: Record<string, string> = {
  CountKeyOfDelivery: 'counts a key',
  FindAnswer: 'finds an answer',
  LookAtFile: 'looks at a file that came in',
  PrepareDelivery: 'prepares a side',
  PrintReport: 'prints a report',
  ProfileDelivery: 'looks at the values of a delivery',
  ReceiveParts: 'reads a delivery',
  TakeSnapshot: 'writes down the rows of a query',
  WorkOnRun: 'works on a tally',
  WriteCorrections: 'writes a workbook of corrections',
  WriteFindings: 'writes a workbook of findings',
  WritePreparedSide: 'writes a workbook of prepared rows',
}
/** Seconds without a sign from which on a worker is most likely dead. */
const SILENT = 20
const state = (worker: Schemas['Work']['workers'][number]): string =>
  worker.secondsSilent > SILENT
    ? `no sign for ${counted(worker.secondsSilent, 'second')}: what it held goes to another`
    : worker.doing === null
      ? 'waits for work'
      : `${DOING[worker.doing] ?? worker.doing}, since ${moment(worker.since)}`
const age = ({ oldestSeconds }: Queue): string => (oldestSeconds === null ? '' : counted(oldestSeconds, 'second'))
const full = computed(() => (data.value === undefined ? 0 : Math.round(100 * (1 - data.value.disk.free / Math.max(1, data.value.disk.total)))))
const LITTLE_ROOM = 90
</script>

<template>
  <TopBar />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The work" @retry="refetch()">
      <template v-if="data">
        <h1>Work</h1>
        <p class="quiet">What the workers of this installation are at. What is in a tally is not shown here: administering shows none of it.</p>
        <ErrorNote :error="end.error.value ?? retry.error.value" />
        <p :class="{ warn: full >= LITTLE_ROOM }" role="status">
          <span data-figure="disk/free">{{ bytes(data.disk.free) }}</span> of <span data-figure="disk/total">{{ bytes(data.disk.total) }}</span> are free on the
          disk; the database takes <span data-figure="disk/database">{{ bytes(data.disk.database) }}</span>.<template v-if="full >= LITTLE_ROOM">
            Free some space: long work is refused before the disk is full.</template
          >
        </p>
        <h2>Queues</h2>
        <table>
          <thead>
            <tr>
              <th scope="col">what for</th>
              <th scope="col" class="n">waiting</th>
              <th scope="col" class="n">at work</th>
              <th scope="col" class="n">the oldest waits for</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(queue, nth) in data.queues" :key="queue.name">
              <th scope="row">{{ MEANT[queue.name] }}</th>
              <td class="n" :data-figure="`queues/${nth}/waiting`">{{ queue.waiting }}</td>
              <td class="n" :data-figure="`queues/${nth}/atWork`">{{ queue.atWork }}</td>
              <td class="n" :data-figure="`queues/${nth}/oldestSeconds`">{{ age(queue) }}</td>
            </tr>
          </tbody>
        </table>
        <h2>Workers</h2>
        <p v-if="data.workers.length === 0" class="warn">No worker is there: nothing that waits will be done. Start Nine Tally again (bin/start).</p>
        <table v-else>
          <tbody>
            <tr v-for="worker in data.workers" :key="worker.id" :class="{ warn: worker.secondsSilent > SILENT }">
              <th scope="row" class="cell">{{ worker.id }}</th>
              <td>{{ state(worker) }}</td>
            </tr>
          </tbody>
        </table>
        <h2>Tallies that are being made</h2>
        <p v-if="data.runs.length === 0" class="quiet">None.</p>
        <table v-else>
          <tbody>
            <tr v-for="(run, nth) in data.runs" :key="run.id">
              <th scope="row">
                run <span :data-figure="`runs/${nth}/id`">{{ run.id }}</span>
              </th>
              <td>
                {{ run.phase ?? 'waits' }}, <span :data-figure="`runs/${nth}/done`">{{ Math.floor(run.done * 100) }} %</span>, since {{ moment(run.since)
                }}<template v-if="run.attempts > 1"
                  >, attempt <span :data-figure="`runs/${nth}/attempts`">{{ run.attempts }}</span></template
                >
              </td>
              <td class="n"><el-button link :loading="end.isPending.value" @click="end.mutate(run.id)">End it</el-button></td>
            </tr>
          </tbody>
        </table>
        <h2>Set aside</h2>
        <p v-if="data.setAside.length === 0" class="quiet">Nothing was given up in the last two weeks.</p>
        <table v-else>
          <tbody>
            <tr v-for="one in data.setAside" :key="`${one.kind} ${one.id}`">
              <th scope="row">
                {{ one.kind }} <span class="cell">{{ one.id }}</span>
              </th>
              <td>failed {{ moment(one.at) }}; whoever asked for it is told why</td>
              <td class="n">
                <el-button v-if="one.kind === 'tally'" link :loading="retry.isPending.value" @click="retry.mutate(Number(one.id))">Run it again</el-button>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px 40px;
  max-inline-size: 900px;
}
h2 {
  margin-block: 22px 6px;
  font-size: 15px;
}
table {
  inline-size: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 6px 8px 6px 0;
  text-align: start;
  font-size: 13px;
  border-block-end: 1px solid var(--line);
}
thead th {
  font-weight: 600;
}
tbody th {
  font-weight: 400;
}
.n {
  text-align: end;
  font-variant-numeric: tabular-nums;
}
.warn {
  background: var(--mark);
}
</style>
