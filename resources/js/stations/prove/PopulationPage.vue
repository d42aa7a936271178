<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { UNMET } from '@/format/demands'
import { named } from '@/format/said'
import CellValue from '@/parts/CellValue.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'

/** What a tally looked at and what it did not, and whether both sides are as the target demands. */
const props = defineProps<{ course: Schemas['Course'] }>()
const WHILE_IT_IS_COUNTED = 600
const id = computed(() => props.course.tally?.id ?? 0)
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', id, 'population'],
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/population', { params: { path: { tally: id.value } }, signal })),
  enabled: () => id.value > 0,
  refetchInterval: ({ state }) => (state.data?.demands.isWaiting === true ? WHILE_IT_IS_COUNTED : false),
})
type Side = 'source' | 'target'
const SIDES = ['source', 'target'] as const
const label = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const ROLES: Record<Schemas['PopulationOfSide']['columns'][number]['role'], string> = {
  key: 'key',
  compared: 'compared',
  'left-out': 'left out, by decision',
  undecided: 'not compared, and nobody has decided so',
}
const ofRole = (side: Side, role: keyof typeof ROLES) => data.value?.sides[side].columns.filter((column) => column.role === role) ?? []
const roles = Object.keys(ROLES) as (keyof typeof ROLES)[]
const whole = (text: string) => [{ text, differs: false }]
/** What is not met at all comes first. */
const demands = computed(() =>
  [...(data.value?.demands.items ?? [])].sort(
    (one, other) => (other.target?.count ?? 0) + (other.source?.count ?? 0) - (one.target?.count ?? 0) - (one.source?.count ?? 0),
  ),
)
</script>

<template>
  <main class="station">
    <StationHead heading="What was compared, and what was not" :note="course.tally ? `tally ${course.tally.number}` : ''">
      <RouterLink class="button" :to="`/datasets/${course.id}/prove`">Back to totals</RouterLink>
    </StationHead>
    <p v-if="id === 0" class="content">
      Nothing can be proved before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="What was compared" @retry="refetch()">
      <div v-if="data" class="content" :data-tally="id">
        <table>
          <thead>
            <tr>
              <th scope="col" />
              <th v-for="side in SIDES" :key="side" scope="col" class="number" :class="side === 'source' ? 'src' : 'tgt'">{{ label(side) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(words, what) in { delivered: 'Rows delivered', prepared: 'Rows prepared', compared: 'Rows that met and were compared' }" :key="what">
              <th scope="row">{{ words }}</th>
              <td v-for="side in SIDES" :key="side" class="number"><FigureValue :name="`population/sides/${side}/${what}`" :of="data.sides[side][what]" /></td>
            </tr>
            <tr v-for="role in roles" :key="role" class="columns">
              <th scope="row">Columns: {{ ROLES[role] }}</th>
              <td v-for="side in SIDES" :key="side">
                <b><FigureValue :name="`population/sides/${side}/counts/${role}`" :of="data.sides[side].counts[role]" /></b>
                <span class="names quiet" :class="{ open: role === 'undecided' }">{{
                  ofRole(side, role)
                    .map(({ name }) => name)
                    .join(', ')
                }}</span>
              </td>
            </tr>
            <tr>
              <th scope="row">Cells of prepared rows</th>
              <td v-for="side in SIDES" :key="side" class="number"><FigureValue :name="`population/sides/${side}/cells`" :of="data.sides[side].cells" /></td>
            </tr>
            <tr class="sum">
              <th scope="row">Cells that a comparison touched</th>
              <td v-for="side in SIDES" :key="side" class="number">
                <FigureValue :name="`population/sides/${side}/touched`" :of="data.sides[side].touched" />,
                <FigureValue :name="`population/sides/${side}`" :of="data.sides[side].share" />
              </td>
            </tr>
          </tbody>
        </table>
        <h2>What the target demands</h2>
        <p v-if="data.demands.problem" role="alert">{{ data.demands.problem }}</p>
        <p v-else-if="data.demands.items.length === 0 && !data.demands.isWaiting" class="quiet">
          The plan says of no column what the target demands: a length, a value, allowed values, digits. Demands are set beside a column in
          <RouterLink :to="`/datasets/${course.id}/deliver`">Deliver</RouterLink>, and are checked on the source before the load and on the target after it.
        </p>
        <table v-if="demands.length > 0">
          <thead>
            <tr>
              <th scope="col">column of the target</th>
              <th scope="col">values that are</th>
              <th v-for="side in SIDES" :key="side" scope="col" class="number" :class="side === 'source' ? 'src' : 'tgt'">
                {{ side === 'source' ? 'before the load' : 'after it' }}
              </th>
              <th scope="col">such as</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="item in demands" :key="`${item.column} ${item.demand}`">
              <th scope="row">{{ item.column }}</th>
              <td>
                {{ UNMET[item.demand] }}<span v-if="item.asks !== null" class="quiet" :data-figure="named('population', 'demands')"> ({{ item.asks }})</span>
              </td>
              <td v-for="side in SIDES" :key="side" class="number" :class="{ strong: (item[side]?.count ?? 0) > 0 }">
                <FigureValue v-if="item[side]" :name="named('population', 'demands')" :of="item[side]?.count ?? 0" />
                <span v-else class="quiet">{{ data.demands.isWaiting ? '…' : 'no such column' }}</span>
              </td>
              <td>
                <span
                  v-for="(example, nth) in (item.target?.examples.length ? item.target : item.source)?.examples.slice(0, 2) ?? []"
                  :key="nth"
                  class="example"
                >
                  <CellValue :stretches="whole(example.value)" :side="item.target?.examples.length ? 'target' : 'source'" />
                  <span class="quiet" data-ordinal>line {{ example.line }}</span>
                </span>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="data.demands.isWaiting" class="quiet" role="status">Both sides are being counted …</p>
      </div>
    </LoadState>
  </main>
</template>

<style scoped>
.station {
  overflow: auto;
  background: var(--sheet);
}
.content {
  padding: 16px;
  max-inline-size: 1000px;
}
table {
  border-collapse: collapse;
  font-size: 13.5px;
  inline-size: 100%;
}
th,
td {
  text-align: start;
  vertical-align: top;
  padding: 7px 16px 7px 0;
  border-block-end: 1px solid var(--line-2);
  font-weight: 400;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
.number {
  text-align: end;
}
.columns td {
  text-align: end;
}
.names {
  display: block;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.names.open {
  color: var(--ink);
}
.sum th,
.sum td,
.strong {
  font-weight: 700;
}
h2 {
  margin: 24px 0 8px;
  font-size: 16px;
}
.example {
  display: block;
}
</style>
