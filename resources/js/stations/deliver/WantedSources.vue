<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'

/** What an imported plan asks for, a line each, before its rows are drawn here: from which connections, and what else is lacking. */
const props = defineProps<{ course: Schemas['Course'] }>()
const emit = defineEmits<{ drawn: [] }>()
const queries = useQueryClient()
const path = { path: { dataset: props.course.id } }
const key = ['dataset', props.course.id, 'wanted-sources']
const { data } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/wanted-sources', { params: path, signal })),
})
const wanted = computed(() => data.value?.wanted ?? null)
type Connection = NonNullable<Schemas['WantedSources']['wanted']>['connections'][number]
const label = (side: Connection['side']): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
/** By side and name in the plan: the connection of this installation. */
const chosen = reactive<Record<string, string>>({})
const by = (one: Connection): string => chosen[`${one.side} ${one.name}`] ?? (one.isHere ? one.name : one.fits.length === 1 ? (one.fits[0] ?? '') : '')
const choose = (one: Connection, name: string): void => {
  chosen[`${one.side} ${one.name}`] = name
}
const isComplete = computed(() => wanted.value?.connections.every((one) => by(one) !== '') ?? false)
const body = computed(() => ({ chosen: (wanted.value?.connections ?? []).map((one) => ({ side: one.side, name: one.name, by: by(one) })) }))
const trial = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/wanted-sources/trials', { params: path, body: body.value })),
})
const sides = computed(() =>
  (['source', 'target'] as const).flatMap((side) => {
    const seen = trial.data.value?.sides[side]
    return seen === undefined ? [] : [{ side, ...seen }]
  }),
)
const missing = computed(() => trial.data.value?.pairs.filter(({ isThere }) => !isThere) ?? [])
const pairs = computed(() => trial.data.value?.pairs ?? [])
const draw = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/wanted-sources/draws', { params: path, body: body.value })),
  onSuccess: async () => {
    await queries.invalidateQueries({ queryKey: key })
    emit('drawn')
  },
})
const drop = useMutation({
  mutationFn: () => answer(api.DELETE('/datasets/{dataset}/wanted-sources', { params: path })),
  onSuccess: () => queries.invalidateQueries({ queryKey: key }),
})
</script>

<template>
  <section v-if="wanted" class="wanted" aria-label="What the imported plan asks for">
    <h2>The imported plan says where its rows are drawn from</h2>
    <ul>
      <li v-for="one in wanted.connections" :key="`${one.side} ${one.name}`">
        <span
          >{{ label(one.side) }} from <b>{{ one.name }}</b><template v-if="!one.isHere">, which is not here</template></span
        >
        <el-select
          v-if="course.mayWork && one.fits.length > 0"
          :model-value="by(one)"
          size="small"
          :aria-label="`Connection for ${one.name}, ${one.side}`"
          placeholder="choose one that fits"
          @update:model-value="choose(one, $event)"
        >
          <el-option v-for="name in one.fits" :key="name" :value="name" :label="name" />
        </el-select>
        <span v-else-if="!one.isHere" class="bad">None of its kind is here: an administrator makes one.</span>
        <span class="quiet cell query" :title="one.queries.join('\n')">{{ one.queries.join('; ') }}</span>
      </li>
      <li v-for="one in wanted.references" :key="one.name">
        <span
          >looks up in <b>{{ one.name }}</b></span
        >
        <span v-if="one.isHere" class="quiet">is here</span>
        <span v-else class="bad"
          >is not here: add a dataset of this name and deliver it<template v-if="one.fits.length > 0">; here are {{ one.fits.join(', ') }}</template
          >.</span
        >
      </li>
      <li v-for="one in wanted.parameters" :key="one.name">
        <span
          >uses the value <b>{{ one.name }}</b></span
        >
        <span :class="one.isHere ? 'quiet' : 'bad'">{{ one.isHere ? 'is here' : 'is not said here yet: say it in Prepare.' }}</span>
      </li>
    </ul>
    <template v-if="trial.data.value">
      <div v-for="one in sides" :key="one.side" class="seen">
        <h3>{{ label(one.side) }}</h3>
        <p v-if="one.problem !== null" class="bad">{{ one.problem }}</p>
        <div v-else class="scroll">
          <table class="figures cell">
            <thead>
              <tr>
                <th v-for="column in one.columns" :key="column" scope="col">{{ column }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, place) in one.rows.slice(0, 3)" :key="place">
                <td v-for="(cell, column) in row" :key="column">{{ cell }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
      <p role="status">
        <template v-if="missing.length === 0"
          >All {{ pairs.length }} pairs of the plan are there{{ sides.some(({ problem }) => problem !== null) ? ', on the side that was seen' : '' }}:
          {{ pairs.map((pair) => (pair.isKey ? `${pair.source} = ${pair.target} (key)` : `${pair.source} = ${pair.target}`)).join(', ') }}.</template
        >
        <span v-else class="bad">Not there: {{ missing.map((pair) => `${pair.source} = ${pair.target}`).join(', ') }}. Match shows them when it is drawn.</span>
      </p>
    </template>
    <ErrorNote :error="trial.error.value ?? draw.error.value ?? drop.error.value" />
    <p v-if="course.mayWork" class="buttons">
      <el-button :disabled="!isComplete" :loading="trial.isPending.value" @click="trial.mutate()">Look at a few rows</el-button>
      <el-button type="primary" :disabled="!isComplete || trial.data.value === undefined" :loading="draw.isPending.value" @click="draw.mutate()"
        >These are right: draw all of them</el-button
      >
      <el-button :loading="drop.isPending.value" @click="drop.mutate()">Do not draw from there</el-button>
    </p>
  </section>
</template>

<style scoped>
.wanted {
  background: var(--mark);
  max-block-size: 50vh;
  overflow: auto;
  padding: 10px 14px;
  display: grid;
  gap: 8px;
}
h2,
h3 {
  margin: 0;
  font-size: 14px;
}
h3 {
  font-size: 12.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
li .el-select {
  inline-size: 220px;
}
.query {
  max-inline-size: 60ch;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.scroll {
  overflow-x: auto;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  margin: 0;
}
.bad {
  color: var(--fail);
}
</style>
