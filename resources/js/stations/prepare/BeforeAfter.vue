<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/useDraft'
import { count } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'

/** Rows as they come into a step and as they leave it, those that it changes first. */
const props = defineProps<{ examples: NonNullable<Schemas['PreparationTrial']['examples']>; side?: Side | undefined }>()

const SHOWN = 8
/** Cells by the names of their columns: only what the step changes, makes or takes away. */
const rows = computed(() =>
  props.examples.rows.slice(0, SHOWN).map(({ part, line, before, after }) => {
    const named = (names: readonly string[], cells: readonly string[]): Map<string, string> => new Map(names.map((name, place) => [name, cells[place] ?? '']))
    const came = named(props.examples.columnsBefore, before)
    const left = after.map((cells) => named(props.examples.columnsAfter, cells))
    const differs = (name: string): boolean => left.length !== 1 || left.some((cells) => cells.get(name) !== came.get(name))
    const some = (cells: Map<string, string>): [string, string][] =>
      [...cells].filter(([name, value]) => differs(name) && (came.get(name) !== value || !came.has(name) || left.length === 0))
    return {
      place: part > 1 ? `${part}: ${count(line)}` : count(line),
      before: [...came].filter(([name, value]) => left.length === 0 || left.some((cells) => cells.get(name) !== value)).slice(0, 6),
      after: left.slice(0, 6).map((cells) => some(cells).slice(0, 6)),
      isLeftOut: left.length === 0,
      isSame: left.length === 1 && [...(left[0] ?? [])].every(([name, value]) => came.get(name) === value) && left[0]?.size === came.size,
    }
  }),
)
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <div>
    <h3>Before and after</h3>
    <p v-if="rows.length > 0 && rows.every((row) => row.isSame)" class="quiet">None of the rows that were tried is changed by this step.</p>
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
          <td class="quiet" data-ordinal>{{ row.place }}</td>
          <td>
            <span v-if="row.isSame" class="quiet">not changed</span>
            <div v-for="[name, value] in row.before" :key="name">
              <span class="quiet">{{ name }}</span> <CellValue :stretches="whole(value)" :side="side" />
            </div>
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
.made + .made {
  border-block-start: 1px dotted var(--line);
}
td :deep(.cell) {
  white-space: pre-wrap;
}
</style>
