<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'

/** Rows as they come into a step and as they leave it, those that it changes first. */
const props = defineProps<{ examples: NonNullable<Schemas['PreparationTrial']['examples']>; side?: Side | undefined }>()

const SHOWN = 8
const TOGETHER = 5
/** Cells by the names of their columns: only what the step changes, makes or takes away. */
const rows = computed(() =>
  props.examples.rows.slice(0, SHOWN).map(({ part, line, before, with: others, withRows, after }) => {
    const named = (names: readonly string[], cells: readonly string[]): Map<string, string> => new Map(names.map((name, place) => [name, cells[place] ?? '']))
    const came = named(props.examples.columnsBefore, before)
    const left = after.map((cells) => named(props.examples.columnsAfter, cells))
    const differs = (name: string): boolean => withRows > 0 || left.length !== 1 || left.some((cells) => cells.get(name) !== came.get(name))
    const some = (cells: Map<string, string>): [string, string][] =>
      [...cells].filter(([name, value]) => differs(name) && (withRows > 0 || came.get(name) !== value || !came.has(name) || left.length === 0))
    return {
      // Rows that are put together stand below each other, each whole as far as there is room.
      before: [{ part, line, before }, ...others.slice(0, TOGETHER)].map((row) => ({
        place: row.part > 1 ? `${row.part}: ${count(row.line)}` : count(row.line),
        cells: [...named(props.examples.columnsBefore, row.before)]
          .filter(([name, value]) => withRows > 0 || left.length === 0 || left.some((cells) => cells.get(name) !== value))
          .slice(0, 6),
      })),
      further: withRows - Math.min(others.length, TOGETHER),
      after: left.slice(0, 6).map((cells) => some(cells).slice(0, 6)),
      isLeftOut: left.length === 0,
      isSame: withRows === 0 && left.length === 1 && [...(left[0] ?? [])].every(([name, value]) => came.get(name) === value) && left[0]?.size === came.size,
    }
  }),
)
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <div>
    <h3>Before and after</h3>
    <p v-if="rows.length > 0 && rows.every((row) => row.isSame)" class="quiet">None of the sample rows is changed by this step.</p>
    <table v-else-if="rows.length > 0">
      <thead>
        <tr>
          <th scope="col">line</th>
          <th scope="col">before</th>
          <th scope="col">after</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, number) in rows" :key="number">
          <td colspan="2" class="came">
            <div v-for="came in row.before" :key="came.place" class="one">
              <span class="quiet" data-ordinal>{{ came.place }}</span>
              <div>
                <span v-if="row.isSame" class="quiet">not changed</span>
                <div v-for="[name, value] in came.cells" :key="name">
                  <span class="quiet">{{ name }}</span> <CellValue :stretches="whole(value)" :side="side" />
                </div>
              </div>
            </div>
            <span v-if="row.further > 0" class="quiet" data-figure="preparation">and {{ counted(row.further, 'row') }} more</span>
          </td>
          <td>
            <b v-if="row.isLeftOut">left out</b>
            <div v-for="(cells, nth) in row.after" :key="nth" class="made">
              <div v-for="[name, value] in cells" :key="name">
                <span class="quiet">{{ name }}</span> <CellValue :stretches="whole(value)" :side="side" />
              </div>
            </div>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length === 0" class="quiet">No row comes into this step.</p>
  </div>
</template>

<style scoped>
h3 {
  font-size: 14px;
  margin: 4px 0 6px;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  table-layout: fixed;
  background: var(--sheet);
  border: 1px solid var(--line);
  font-size: 12.5px;
}
th,
td {
  text-align: start;
  vertical-align: top;
  padding: 4px 8px;
  border-block-end: 1px solid var(--line-2);
  overflow-wrap: anywhere;
}
th {
  color: var(--ink-3);
  font-size: 12px;
}
th:first-child {
  inline-size: 52px;
}
.came {
  padding: 0;
}
.came > span {
  padding-inline-start: 60px;
}
.one {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
}
.one > * {
  padding: 4px 8px;
}
.one + .one,
.made + .made {
  border-block-start: 1px dotted var(--line);
}
td :deep(.cell) {
  white-space: pre-wrap;
}
</style>
