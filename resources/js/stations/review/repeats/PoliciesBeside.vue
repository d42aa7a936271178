<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import { columnsShown } from '@/stations/review/repeats/repeats'
import { keptBy, type Candidate } from '@/stations/review/repeats/policies'

/** Two policies: how their patterns compare, and the groups of which they keep different rows. */
const props = defineProps<{
  both: readonly [Candidate, Candidate]
  found: NonNullable<Schemas['PoliciesTried']['beside']>
  columns: Schemas['PoliciesTried']['columns']
  shared: Record<Side, string[]>
  labels: Record<Side, string>
}>()
const SIDES = ['source', 'target'] as const
const CLASSES: Readonly<Record<string, string>> = { changed: 'differs', blanked: 'lost', filled: 'added' }
type Group = Schemas['PoliciesTried']['beside'] extends infer Beside ? (Beside extends { groups: (infer One)[] } ? One : never) : never

/** Columns in which rows of the side of a group are not all the same. */
function differing(group: Group, side: Side): string[] {
  const [first, ...others] = group[side].rows
  return props.columns[side].filter((_, place) => others.some(({ cells }) => cells[place] !== first?.cells[place]))
}
const placesOf = (group: Group, side: Side): number[] => columnsShown(props.columns[side], props.shared[side], differing(group, side), false)
const names = computed(() => props.both.map(({ name }) => name))
function verdict(group: Group, side: Side, row: { part: number; line: number }): string {
  const [one, other] = keptBy(group[side].kept, row)
  if (one === true && other === true) return 'kept by both'
  if (one === true) return 'kept by the first'
  return other === true ? 'kept by the second' : ''
}
const fate = (group: Group, side: Side): string =>
  group[side].kept
    .map((place, number) =>
      place?.line === 0
        ? `the ${number === 0 ? 'first' : 'second'} sets all aside`
        : place === null && group[side].count > 1
          ? `the ${number === 0 ? 'first' : 'second'} compares all`
          : '',
    )
    .filter((part) => part !== '')
    .join('; ')
const at = ({ part, line }: { part: number; line: number }): string => (part > 1 ? `part ${part}, line ${count(line)}` : `line ${count(line)}`)
</script>

<template>
  <section class="beside" aria-label="Two policies beside each other">
    <h2>First: {{ names[0] }}. Second: {{ names[1] }}.</h2>
    <div class="panes">
      <div>
        <h3>What differs, by pattern</h3>
        <p v-if="found.patterns.length === 0" class="quiet">Under neither of them a compared cell of these rows differs.</p>
        <table v-else class="figures">
          <thead>
            <tr>
              <th scope="col">column</th>
              <th scope="col">how</th>
              <th scope="col" class="number">first</th>
              <th scope="col" class="number">second</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(pattern, place) in found.patterns" :key="place">
              <td>{{ pattern.source }}</td>
              <td>{{ CLASSES[pattern.class] ?? pattern.class }}: {{ pattern.sentence }}</td>
              <td class="number">{{ count(pattern.cells[0] ?? 0) }}</td>
              <td class="number">{{ count(pattern.cells[1] ?? 0) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div>
        <h3>
          <template v-if="found.differ === 0">They keep the same rows of every key.</template>
          <template v-else
            >They keep different rows of {{ counted(found.differ, 'key') }}; {{ counted(found.judged, 'pair of rows differs', 'pairs of rows differ') }} under
            one of them alone.<template v-if="found.groups.length < found.differ">{{ ` ${count(found.groups.length)} are shown.` }}</template></template
          >
        </h3>
        <article v-for="(group, place) in found.groups" :key="place">
          <template v-for="side in SIDES" :key="side">
            <p v-if="group[side].count > 0" class="of">
              <span :class="side === 'source' ? 'src' : 'tgt'">{{ labels[side] }}</span> <span class="quiet">{{ fate(group, side) }}</span>
            </p>
            <div v-if="group[side].count > 0" class="scroll" tabindex="0" role="region" :aria-label="`Rows of the ${labels[side]}`">
              <table class="figures">
                <thead>
                  <tr>
                    <th scope="col">stands at</th>
                    <th v-for="column in placesOf(group, side)" :key="column" scope="col">{{ columns[side][column] }}</th>
                    <td></td>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="row in group[side].rows" :key="`${row.part} ${row.line}`" :class="{ kept: verdict(group, side, row) !== '' }">
                    <td class="at">{{ at(row) }}</td>
                    <td v-for="column in placesOf(group, side)" :key="column">
                      <CellValue :stretches="[{ text: row.cells[column] ?? '', differs: false }]" :side="side" />
                    </td>
                    <td class="at">{{ verdict(group, side, row) }}</td>
                  </tr>
                  <tr v-if="group[side].count > group[side].rows.length">
                    <td :colspan="placesOf(group, side).length + 2" class="quiet">and {{ count(group[side].count - group[side].rows.length) }} more</td>
                  </tr>
                </tbody>
              </table>
            </div>
          </template>
        </article>
      </div>
    </div>
  </section>
</template>

<style scoped>
.beside {
  background: var(--sheet);
  border-block-start: 1px solid var(--line);
  padding: 10px 16px;
}
h2 {
  margin: 0 0 6px;
  font-size: 14px;
}
h3 {
  margin: 0 0 6px;
  font-size: 13px;
}
p {
  margin: 0;
}
.panes {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 24px;
  align-items: start;
}
table {
  font-size: 12.5px;
}
.number {
  text-align: end;
  font-variant-numeric: tabular-nums;
}
article {
  border-block-start: 1px solid var(--line);
  padding: 6px 0;
}
.of {
  font-size: 12.5px;
}
.scroll {
  overflow-x: auto;
}
.scroll th {
  min-inline-size: 84px;
}
.at {
  white-space: nowrap;
}
.kept td {
  background: var(--mark);
}
@media (width < 900px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
