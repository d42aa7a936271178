<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'

/** The row of a finding where it was delivered, as the bytes were read, and what its steps made of it; where one side has none, what stands next to its key. */
const props = defineProps<{ tally: number; record: Schemas['Record']; course: Schemas['Course'] }>()
const emit = defineEmits<{ close: [] }>()
const SECOND = 1000
const path = computed(() => ({ tally: props.tally, sequence: props.record.sequence }))

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', () => props.tally, 'delivered', () => props.record.sequence],
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/records/{sequence}/delivered', { params: { path: path.value }, signal })),
})
const isOneSided = computed(() => props.record.side !== null && props.record.key !== null)
const beside = useQuery({
  queryKey: ['tally', () => props.tally, 'keys-beside', () => props.record.sequence],
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/records/{sequence}/keys-beside', { params: { path: path.value }, signal })),
  enabled: isOneSided,
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND : false),
})
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const sides = computed(() => (['source', 'target'] as const).map((side) => ({ side, label: label(side), found: data.value?.[side] ?? null })))
const other = computed<'source' | 'target'>(() => (props.record.side === 'source' ? 'target' : 'source'))
/** What the steps made of each delivered cell, where a column of its name has come to the comparison. */
function prepared(side: 'source' | 'target', column: string): string | null {
  const field = props.record.fields.find((one) => one[side] === column)
  return field === undefined ? null : side === 'source' ? field.sourceValue : field.targetValue
}
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <el-dialog :model-value="true" title="As it was delivered" width="min(1180px, 96vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The delivered lines" @retry="refetch()">
      <div class="sides">
        <section v-for="{ side, label: name, found } in sides" :key="side" :aria-label="name">
          <h3 :class="side === 'source' ? 'src' : 'tgt'">{{ name }}</h3>
          <template v-if="found">
            <p class="quiet">{{ found.file }}, line {{ found.line }}</p>
            <p v-if="found.problem" class="warn" role="alert">{{ found.problem }}</p>
            <div class="lines">
              <div class="cell quiet">{{ found.columns.join('   ') }}</div>
              <div v-for="line in found.lines" :key="line.line" :class="{ here: line.line === found.line }">
                <span class="cell quiet number">{{ line.line }}</span>
                <CellValue v-if="line.text !== null" :stretches="whole(line.text)" />
                <em v-else class="quiet">longer than the row limit</em>
              </div>
            </div>
            <table v-if="found.cells" class="figures">
              <thead>
                <tr>
                  <th scope="col">column</th>
                  <th scope="col">delivered</th>
                  <th scope="col">as it was compared</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(column, place) in found.columns" :key="place">
                  <th scope="row">{{ column }}</th>
                  <td><CellValue :stretches="whole(found.cells[place] ?? '')" :side="side" /></td>
                  <td>
                    <template v-if="prepared(side, column) === null"><span class="quiet">not under this name</span></template>
                    <span v-else-if="prepared(side, column) === (found.cells[place] ?? '')" class="quiet">the same</span>
                    <CellValue v-else :stretches="whole(prepared(side, column) ?? '')" :side="side" />
                  </td>
                </tr>
              </tbody>
            </table>
          </template>
          <p v-else-if="!isOneSided || side !== other" class="quiet">No row of this side belongs to the finding.</p>
          <template v-else>
            <p>No row has this key. Next to it stand:</p>
            <p v-if="beside.data.value?.problem" class="warn" role="alert">{{ beside.data.value.problem }}</p>
            <p v-else-if="beside.data.value?.isWaiting || beside.isPending.value" class="quiet" role="status">looking through this side …</p>
            <div v-else class="lines">
              <div class="cell quiet">{{ beside.data.value?.columns.join('   ') }}</div>
              <template v-for="(row, place) in beside.data.value?.rows" :key="place">
                <div v-if="!row.isBefore && (place === 0 || beside.data.value?.rows[place - 1]?.isBefore)" class="here">
                  <span class="cell">{{ record.key }}</span> would stand here
                </div>
                <div>
                  <span class="cell quiet number">{{ row.line }}</span> <CellValue :stretches="whole(row.cells.join('   '))" :side="side" />
                </div>
              </template>
            </div>
          </template>
        </section>
      </div>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
}
section {
  min-inline-size: 0;
}
h3 {
  font-size: 14px;
  margin: 0 0 4px;
}
p {
  margin: 0 0 6px;
  font-size: 13px;
}
.lines {
  overflow-x: auto;
  border: 1px solid var(--line);
  margin-block-end: 10px;
  font-size: 12.5px;
}
.lines > div {
  padding: 2px 8px;
  white-space: pre;
  min-inline-size: max-content;
}
.here {
  background: var(--mark);
}
.number {
  display: inline-block;
  min-inline-size: 7ch;
  margin-inline-end: 8px;
  text-align: end;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
@media (width < 800px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
