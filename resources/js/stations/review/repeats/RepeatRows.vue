<script setup lang="ts">
import { computed } from 'vue'
import { count } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import { columnsShown, type Group } from '@/stations/review/repeats/repeats'

/** The rows of one side of a group: the first one marked, each other with the line of the row that it repeats, and lit what differs. */
const props = defineProps<{
  side: 'source' | 'target'
  rows: Group['source']
  columns: readonly string[]
  shared: readonly string[]
  /** columns in which rows of either side differ */
  compared: readonly string[]
  isAll: boolean
  /** whether a person may say which of the rows is kept */
  mayChoose?: boolean
}>()
const emit = defineEmits<{ choose: [row: number | null] }>()
const isKept = (number: number): boolean => props.rows.kept?.row === number
const places = computed(() => columnsShown(props.columns, props.shared, props.compared, props.isAll))
const isLit = (place: number): boolean => props.rows.differing.includes(props.columns[place] ?? '')
const at = ({ part, line }: { part: number; line: number }): string => (part > 1 ? `part ${part}, line ${count(line)}` : `line ${count(line)}`)
const first = computed(() => props.rows.rows[0])
const again = computed(() => props.rows.rows.slice(1).map(at).join('; '))
</script>

<template>
  <p v-if="rows.count === 0" class="quiet none">no such row</p>
  <table v-else class="figures">
    <thead>
      <tr>
        <th scope="col">stands at</th>
        <th v-for="place in places" :key="place" scope="col" :class="{ lit: isLit(place) }">{{ columns[place] }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, number) in rows.rows" :key="number" :class="{ kept: isKept(number) }">
        <td class="at">
          <span data-ordinal>{{ at(row) }}</span>
          <template v-if="isKept(number)">
            <span :title="rows.kept?.reason"> kept by hand</span>
            <button v-if="mayChoose" type="button" class="plain" @click="emit('choose', null)">take back</button>
          </template>
          <button v-else-if="mayChoose && rows.count > 1" type="button" class="plain" :aria-label="`keep this: ${at(row)}`" @click="emit('choose', number)">
            keep this
          </button>
          <span v-if="rows.count > 1" class="quiet">{{ number === 0 ? `first, again at ${again}` : `repeats ${first ? at(first) : ''}` }}</span>
        </td>
        <td v-for="place in places" :key="place" :class="{ lit: isLit(place) }">
          <CellValue :stretches="[{ text: row.cells[place] ?? '', differs: false }]" :side="side" />
        </td>
      </tr>
      <tr v-if="rows.count > rows.rows.length">
        <td :colspan="places.length + 1" class="quiet">and {{ count(rows.count - rows.rows.length) }} more</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  font-size: 12.5px;
}
th {
  min-inline-size: 84px;
}
.at {
  white-space: nowrap;
}
.at .quiet {
  display: block;
  font-size: 12px;
  min-inline-size: 120px;
  max-inline-size: 220px;
  white-space: normal;
}
.at button {
  margin-inline-start: 8px;
  text-decoration: underline;
  font-size: 12px;
  min-block-size: 24px;
}
.kept td {
  background: var(--mark);
}
.lit {
  background: var(--warn);
}
.none {
  margin: 0;
  padding: 6px 8px;
  font-size: 13px;
}
</style>
