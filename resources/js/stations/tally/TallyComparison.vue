<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { className } from '@/format/classes'
import { count } from '@/format/counts'
import LoadState from '@/parts/LoadState.vue'

/** What became of the findings of one tally in a later one. */
const props = defineProps<{ earlier: Schemas['Tally']; later: Schemas['Tally'] }>()
const emit = defineEmits<{ close: [] }>()
const SECOND = 1000

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', () => props.later.id, 'against', () => props.earlier.id],
  queryFn: () => answer(api.GET('/tallies/{tally}/against/{earlier}', { params: { path: { tally: props.later.id, earlier: props.earlier.id } } })),
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND : false),
})
const comparison = computed(() => data.value?.comparison ?? null)
const groups = computed(() => comparison.value?.groups ?? [])
type Group = NonNullable<Schemas['TallyComparison']['comparison']>['groups'][number]
const BY: Record<keyof Group['settledBy'], string> = { data: 'by the data', plan: 'by the plan', either: 'by the data or the plan' }
const sum = (of: (group: Group) => number): number => groups.value.reduce((total, group) => total + of(group), 0)
const settled = (by: keyof Group['settledBy']): number => sum((group) => group.settledBy[by])
const figures = computed(() =>
  [
    ...(['data', 'plan', 'either'] as const).map((by) => ({ what: `settled ${BY[by]}`, findings: settled(by) })),
    { what: 'still there', findings: sum(({ still }) => still) },
    { what: 'there otherwise', findings: sum(({ otherwiseNow }) => otherwiseNow) },
    { what: 'new', findings: sum((group) => group.new) },
    { what: 'came back', findings: sum(({ cameBack }) => cameBack) },
  ].filter(({ findings }) => findings > 0),
)
/** Where the findings of a line can be looked at. */
const review = (tally: Schemas['Tally'], group: Group, pattern: number | null) => ({
  path: `/datasets/${tally.datasetId}/review`,
  query: { tally: tally.id, ...(group.kind === 'rows' ? { class: group.cause } : { pattern: pattern ?? undefined }) },
})
const about = (group: Group): string =>
  group.kind === 'rows' ? `${className(group.cause as Schemas['RowClass']).toLowerCase()} rows` : `${group.column}: ${group.sentence}`
const WHAT = { settled: 'settled', new: 'new', changed: 'other values' } as const
</script>

<template>
  <el-dialog :model-value="true" :title="`From tally ${earlier.number} to tally ${later.number}`" width="min(1000px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The comparison" @retry="refetch()">
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet" role="status">The findings of both tallies are being held against each other …</p>
      <p v-else-if="comparison?.hasOtherKey">
        The key of the plan is another one in tally {{ later.number }}, so a finding of one cannot be told among those of the other. Rulings were taken over by
        the delivered records.
      </p>
      <template v-else-if="comparison">
        <p v-if="figures.length === 0">Neither tally has a finding.</p>
        <dl v-else class="sums">
          <div v-for="{ what, findings } in figures" :key="what">
            <dt>{{ what }}</dt>
            <dd>{{ count(findings) }}</dd>
          </div>
        </dl>
        <table v-if="groups.length > 0" class="figures">
          <thead>
            <tr>
              <th scope="col">findings</th>
              <th scope="col" class="number">in tally {{ earlier.number }}</th>
              <th scope="col" class="number">settled</th>
              <th scope="col" class="number">still the same</th>
              <th scope="col" class="number" title="Now with other values, or explained otherwise; before with other values, or explained otherwise">
                otherwise now, before
              </th>
              <th scope="col" class="number">new</th>
              <th scope="col" class="number">came back</th>
              <th scope="col" class="number">in tally {{ later.number }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="group in groups" :key="`${group.kind} ${group.earlierPattern} ${group.laterPattern} ${group.cause}`">
              <td>{{ about(group) }}</td>
              <td class="number">
                <RouterLink v-if="group.before > 0" :to="review(earlier, group, group.earlierPattern)">{{ count(group.before) }}</RouterLink>
                <template v-else>0</template>
              </td>
              <td class="number">{{ count(group.settled) }}</td>
              <td class="number">{{ count(group.still) }}</td>
              <td class="number">{{ count(group.otherwiseNow) }}, {{ count(group.otherwiseBefore) }}</td>
              <td class="number">{{ count(group.new) }}</td>
              <td class="number">{{ count(group.cameBack) }}</td>
              <td class="number">
                <RouterLink v-if="group.now > 0" :to="review(later, group, group.laterPattern)">{{ count(group.now) }}</RouterLink>
                <template v-else>0</template>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="groups.length > 0" class="quiet">
          Each line is a pattern that one of the tallies has, or both: settled, the same and otherwise now make up tally {{ earlier.number }}; the same,
          otherwise before, new and came back make up tally {{ later.number }}.
        </p>
        <details v-if="comparison.examples.length > 0">
          <summary>The first cells of each</summary>
          <table class="figures">
            <tbody>
              <tr v-for="(example, nth) in comparison.examples" :key="nth">
                <td>{{ WHAT[example.what] }}</td>
                <td class="cell">{{ example.key }}</td>
                <td>{{ example.column }}</td>
                <td class="cell">{{ example.before }}</td>
                <td class="cell">{{ example.now }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  margin: 0 0 10px;
}
dt {
  font-size: 12px;
  color: var(--ink-3);
}
dd {
  margin: 0;
  font-size: 18px;
  font-weight: 650;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
</style>
