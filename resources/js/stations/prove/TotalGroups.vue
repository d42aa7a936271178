<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { amount, isApart, signed } from '@/format/amounts'
import { figures, named } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import { pairName } from '@/stations/prove/totals'
import { useGroups } from '@/stations/prove/useTotals'

/** Both sides of a total by group, those that differ most first: figures, and beside them one picture whose bars are as high as the rows. */
const props = defineProps<{ tally: number; total: Schemas['Total']; course: Schemas['Course'] }>()
const chosen = defineModel<Schemas['TotalGroup'] | null>({ required: true })

const from = ref(1)
watch(
  () => props.total.number,
  () => (from.value = 1),
)
const { data, error, isPending, refetch } = useGroups(
  () => props.tally,
  () => props.total.number,
  () => from.value,
)
const labels = computed(() => ({ source: props.course.migration.sourceLabel, target: props.course.migration.targetLabel }))
const picture = computed(() => `/api/v1/tallies/${props.tally}/totals/${props.total.number}/picture?from=${from.value}`)
const nameOf = (place: number): string => named('totals', props.total.number - 1, 'groups', from.value + place - 1)
const label = (group: Schemas['TotalGroup']): string => group.labels.map((one) => (one === '' ? '(blank)' : one)).join(' · ')
/** Where a value that is read along is not one for the group. */
const alongSaid = (along: Schemas['TotalAlong']): string => {
  if (along.differsIn.length > 0) return `several in the ${along.differsIn.join(' and the ')}`
  return along.apart ? `${along.target === '' ? 'blank' : (along.target ?? '')} in the target` : ''
}
const isPublished = computed(() => data.value?.items.some(({ published }) => published !== null) === true)
/** Somebody else's figure that neither side has. */
const isOfNeither = (group: Schemas['TotalGroup']): boolean => isApart(group.published?.fromSource) && isApart(group.published?.toTarget)
const isQuiet = (group: Schemas['TotalGroup']): boolean => !isApart(group.difference) && !group.cancels && group.source === group.target
</script>

<template>
  <LoadState :is-loading="isPending" :error="error" what="The groups" @retry="refetch()">
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ total.by }}</th>
            <th v-for="pair in total.total.along ?? []" :key="pair.source" scope="col">{{ pairName(pair) }}</th>
            <th scope="col" class="bars">source above target</th>
            <th scope="col" class="number">{{ labels.source }}</th>
            <th scope="col" class="number">{{ labels.target }}</th>
            <th scope="col" class="number">difference</th>
            <template v-if="total.total.times">
              <th scope="col" class="number">up</th>
              <th scope="col" class="number">down</th>
            </template>
            <th v-if="isPublished" scope="col" class="number">published</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(group, place) in data?.items" :key="from + place" :class="{ quiet: isQuiet(group), on: chosen === group }">
            <th scope="row">
              <button type="button" class="plain" :title="label(group)" :aria-pressed="chosen === group" @click="chosen = chosen === group ? null : group">
                <span class="cell">{{ label(group) }}</span>
                <span v-if="group.onlyOn" class="only">in the {{ group.onlyOn }} alone</span>
              </button>
            </th>
            <td v-for="(along, nth) in group.along ?? []" :key="nth" class="along" :title="alongSaid(along)">
              <span class="cell">{{ along.source ?? along.target }}</span><span v-if="alongSaid(along) !== ''" class="only">{{ alongSaid(along) }}</span>
            </td>
            <td v-if="place === 0" class="bars" :rowspan="data?.items.length">
              <img :src="picture" alt="The figures of this table as paired bars, the source above the target" />
            </td>
            <td class="number"><FigureValue :name="nameOf(place)" :of="amount(group.source)" /></td>
            <td class="number"><FigureValue :name="nameOf(place)" :of="amount(group.target)" /></td>
            <td class="number strong">
              <FigureValue :name="nameOf(place)" :of="signed(group.difference)" /><span v-if="group.cancels" title="Differences cancel out"> ±</span>
            </td>
            <template v-if="total.total.times">
              <td v-for="way in ['up', 'down'] as const" :key="way" class="number">
                <FigureValue :name="`${nameOf(place)}/moves`" :of="signed(group.moves[way])" />
              </td>
            </template>
            <td v-if="isPublished" class="number">
              <span v-if="group.published" :data-figure="`proof-groups/items/${place}/published`" :class="{ apart: isOfNeither(group) }">{{
                amount(group.published.figure)
              }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="from > 1 || data?.next" class="pages">
      <el-button size="small" :disabled="from === 1" @click="from = Math.max(1, from - 100)">Before</el-button>
      <el-button size="small" :disabled="!data?.next" @click="from = data?.next ?? from">Further groups</el-button>
      <span class="quiet"><SaidText :said="figures('course/tally', total.groups, 'group')" /> in all, those that differ most first</span>
    </p>
  </LoadState>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
  text-align: start;
  block-size: 30px;
  white-space: nowrap;
  padding-inline-end: 10px;
}
tbody tr {
  block-size: 34px;
}
tbody th,
tbody td {
  block-size: 34px;
  padding: 0 10px 0 0;
  font-size: 13px;
  border-block-end: 1px solid var(--line-2);
  text-align: start;
  font-weight: 400;
}
tbody th button {
  display: block;
  max-inline-size: 150px;
  max-block-size: 33px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 1.2;
}
thead th:first-child {
  white-space: normal;
  overflow-wrap: anywhere;
  min-inline-size: 90px;
  max-inline-size: 150px;
  line-height: 1.2;
}
thead .number,
tbody .number {
  text-align: end;
  white-space: nowrap;
}
td.bars {
  inline-size: 146px;
  min-inline-size: 146px;
  vertical-align: top;
}
img {
  display: block;
}
.strong {
  font-weight: 650;
}
.along {
  max-inline-size: 120px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 1.2;
}
.quiet td,
.quiet th {
  color: var(--ink-3);
}
.on th,
.on td.number {
  background: var(--line-2);
}
.apart {
  text-decoration: underline wavy var(--fail);
  text-underline-offset: 3px;
}
.only {
  display: block;
  font-size: 12px;
  color: var(--ink-2);
}
.pages {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12.5px;
}
</style>
