<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'

/** Every act, what went on at the door, and what left the house, for the auditor. */
const migration = Number(useRoute().params.migration)
const NAMES: Record<Schemas['TrailAct'], string> = {
  'signed-in': 'signed in',
  failed: 'failed to sign in',
  'signed-out': 'signed out',
  refused: 'was refused',
  'took-away': 'took away',
  unmasked: 'had values shown',
  invited: 'invited',
  joined: 'joined',
  'gave-role': 'gave a role',
  'ended-role': 'ended a role',
  locked: 'locked somebody',
  unlocked: 'unlocked somebody',
  'changed-password': 'changed the password',
  'made-token': 'made a token',
  'ended-token': 'ended a token',
  'changed-second-factor': 'changed the second factor',
  'ended-session': 'ended a session',
  signed: 'signed',
  'ended-sign-off': 'returned or withdrew a sign-off',
  waived: 'waived a limit',
  'changed-terms': 'said what counts for signing',
  delivered: 'handed a delivery over',
  'began-tally': 'began a tally',
  ruled: 'ruled',
  'undid-ruling': 'undid a ruling',
  'set-limits': 'set limits',
  linked: 'made a link to a report',
  'revoked-link': 'took a link back',
  'added-migration': 'added a migration',
  'added-dataset': 'added a dataset',
  'kept-connection': 'kept a connection',
  'removed-connection': 'removed a connection',
  'kept-schedule': 'kept a schedule',
  'changed-dataset': 'changed a dataset',
  'made-plan': 'made a version of a plan',
  'kept-plan': 'kept a plan to start from',
  explained: 'explained a figure of the deliverer',
  'named-tally': 'named a tally',
  'cancelled-run': 'cancelled a run',
  commented: 'commented',
  'assigned-defect': 'said who mends a defect',
  'made-corrections': 'made corrections',
  published: 'entered published figures',
  'drew-eye-check': 'drew a sample for the eye check',
  'gave-eye-check': 'gave a sample to somebody',
  'looked-by-eye': 'looked at a row',
  'wrote-in-report': 'wrote in a report',
  purged: 'purged content',
  'removed-packs': 'removed packs, by rule',
  'rotated-key': 'changed the key of seals',
}
const act = ref<Schemas['TrailAct'] | ''>('')
const person = ref<number | ''>('')
const from = ref('')
const until = ref('')
const filter = computed(() => ({
  ...(act.value === '' ? {} : { act: act.value }),
  ...(person.value === '' ? {} : { person: person.value }),
  ...(from.value === '' ? {} : { from: from.value }),
  ...(until.value === '' ? {} : { until: until.value }),
}))
const taken = computed(
  () => `/api/v1/migrations/${migration}/trail/taken?${new URLSearchParams(Object.entries(filter.value).map(([name, value]) => [name, String(value)]))}`,
)
const trail = useInfiniteQuery({
  queryKey: ['migration', migration, 'trail', filter],
  queryFn: ({ pageParam, signal }) =>
    answer(
      api.GET('/migrations/{migration}/trail', {
        params: {
          path: { migration },
          query: { ...filter.value, ...(pageParam === null ? {} : { before: pageParam }) },
        },
        signal,
      }),
    ),
  initialPageParam: null as number | null,
  getNextPageParam: ({ next }) => next,
})
const people = computed(() => trail.data.value?.pages[0]?.people ?? [])
const entries = computed(() => trail.data.value?.pages.flatMap(({ items }) => items) ?? [])
</script>

<template>
  <TopBar />
  <main class="page">
    <h1>The trail</h1>
    <p class="quiet">
      Entries are only ever added, each is linked to the one before, and none holds a value of a cell. Of the door, people who have or had a role here are
      shown.
    </p>
    <form class="filter" @submit.prevent>
      <el-select v-model="act" class="acts" aria-label="What" placeholder="everything" filterable>
        <el-option value="" label="everything" />
        <el-option v-for="(name, id) in NAMES" :key="id" :value="id" :label="name" />
      </el-select>
      <el-select v-model="person" class="acts" aria-label="Who" placeholder="by everybody" filterable>
        <el-option value="" label="by everybody" />
        <el-option v-for="one in people" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
      <label>from <input v-model="from" type="date" /></label>
      <label>until <input v-model="until" type="date" /></label>
      <a class="button" :href="taken" download>Download as CSV</a>
    </form>
    <LoadState :is-loading="trail.isPending.value" :error="trail.error.value" what="The trail" @retry="trail.refetch()">
      <p v-if="entries.length === 0" class="quiet">Nothing of this kind yet.</p>
      <table v-else class="figures">
        <thead>
          <tr>
            <th scope="col">when</th>
            <th scope="col">who</th>
            <th scope="col">what</th>
            <th scope="col">about</th>
            <th scope="col">from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="entry in entries" :key="entry.id">
            <td>{{ moment(entry.at) }}</td>
            <td>{{ entry.person ?? 'the installation' }}</td>
            <td>{{ NAMES[entry.act] }}</td>
            <td class="about">{{ entry.about }}</td>
            <td>{{ entry.address }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="trail.hasNextPage.value">
        <el-button size="small" :loading="trail.isFetchingNextPage.value" @click="trail.fetchNextPage()">Show earlier ones</el-button>
      </p>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  justify-items: start;
}
p {
  margin: 0;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.acts {
  inline-size: 220px;
}
td {
  white-space: nowrap;
}
.about {
  min-inline-size: 14em;
  white-space: normal;
  overflow-wrap: anywhere;
}
</style>
