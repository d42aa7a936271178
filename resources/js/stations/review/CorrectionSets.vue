<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { useAskForWorkbook } from '@/composables/useWorkbooks'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import CellValue from '@/parts/CellValue.vue'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Corrections to be taken away and done in the target; the next tally says of each line whether it was done. */
const props = defineProps<{ sets: readonly Schemas['CorrectionSet'][]; course: Schemas['Course'] }>()
const opened = ref<number | null>(null)
const after = ref(0)
const lines = useQuery({
  queryKey: ['dataset', () => props.course.id, 'corrections', opened, after],
  queryFn: ({ signal }) =>
    answer(
      api.GET('/datasets/{dataset}/corrections/{set}/lines', {
        params: { path: { dataset: props.course.id, set: opened.value ?? 0 }, query: { after: after.value } },
        signal,
      }),
    ),
  enabled: () => opened.value !== null,
})
function open(id: number): void {
  opened.value = opened.value === id ? null : id
  after.value = 0
}
type CorrectionSet = Schemas['CorrectionSet']
function said(set: CorrectionSet): string {
  if (set.checkedBy === null) return 'no newer tally yet'
  if (set.notToBeTold > 0) return `the key is another one in tally ${set.checkedBy}, so it cannot be told`
  const parts = [`${count(set.done)} done`, `${count(set.notDone)} not done`, `${count(set.otherwise)} done otherwise`]
  return `by tally ${set.checkedBy}: ${parts.join(', ')}${set.broke ? `; ${counted(set.broke, 'cell')} of corrected rows differ that did not before` : ''}`
}
const ACTIONS = { add: 'add the row', 'take-out': 'take the row out', set: 'set', 'set-key': 'set in the key' } as const
const STATES = { waits: '', done: 'done', 'not-done': 'not done', otherwise: 'done otherwise', 'not-to-be-told': 'cannot be told' } as const
const take = (set: CorrectionSet, as: 'csv' | 'json-lines'): string => `/api/v1/datasets/${props.course.id}/corrections/${set.id}/taken?as=${as}`
const asked = ref(0)
const workbook = useAskForWorkbook(() =>
  answer(api.POST('/datasets/{dataset}/corrections/{set}/workbook', { params: { path: { dataset: props.course.id, set: asked.value } } })),
)
function ask(set: number): void {
  asked.value = set
  workbook.mutate()
}
const whole = (text: string) => [{ text, differs: false }]
const values = (of: Record<string, string>): string =>
  Object.entries(of)
    .map(([name, value]) => `${name} ${value}`)
    .join(', ')
</script>

<template>
  <section aria-label="Corrections">
    <h2>Corrections</h2>
    <ErrorNote :error="workbook.error.value" />
    <article v-for="set in sets" :key="set.id">
      <p>
        <b>Corrections {{ set.number }}</b
        >: {{ counted(set.lines, 'line') }} from tally {{ set.tally
        }}<template v-if="set.uncertain > 0">, {{ count(set.uncertain) }} with something uncertain</template>; {{ said(set) }}.
        <span class="quiet">{{ set.by }}, {{ moment(set.at) }}</span>
      </p>
      <p v-if="course.seesDelivered" class="acts">
        Download them as <a :href="take(set, 'csv')" download>CSV</a>, <a :href="take(set, 'json-lines')" download>JSON Lines</a> or
        <button type="button" class="plain as-link" :disabled="workbook.isPending.value" @click="ask(set.id)">workbook</button>{{ ' '
        }}<el-button link size="small" :aria-expanded="opened === set.id" @click="open(set.id)">{{
          opened === set.id ? 'Hide the lines' : 'Show the lines'
        }}</el-button>
      </p>
      <div v-if="opened === set.id && lines.data.value" class="scroll">
        <table class="figures">
          <thead>
            <tr>
              <th scope="col" class="number">no.</th>
              <th scope="col">what to do</th>
              <th scope="col">key in the target</th>
              <th scope="col">stands</th>
              <th scope="col">must stand</th>
              <th scope="col">state</th>
              <th scope="col">uncertain</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in lines.data.value.items" :key="line.number">
              <td class="number">{{ line.number }}</td>
              <td>
                {{ ACTIONS[line.action] }} <b v-if="line.column">{{ line.column }}</b>
              </td>
              <td><CellValue :stretches="whole(values(line.key))" /></td>
              <td><CellValue v-if="line.stands !== null" :stretches="whole(line.stands)" side="target" /></td>
              <td>
                <CellValue v-if="line.must !== null" :stretches="whole(line.must)" side="source" />
                <CellValue v-else-if="line.row" :stretches="whole(values(line.row))" side="source" />
              </td>
              <td>{{ STATES[line.state] }}</td>
              <td>{{ line.uncertain }}</td>
            </tr>
          </tbody>
        </table>
        <p>
          <el-button size="small" :disabled="after === 0" @click="after = 0">From the beginning</el-button>
          <el-button size="small" :disabled="lines.data.value.next === null" @click="after = lines.data.value.next ?? after">Next</el-button>
        </p>
      </div>
    </article>
  </section>
</template>

<style scoped>
section {
  margin-block-start: 18px;
}
article {
  border-block-end: 1px solid var(--line-2);
  padding: 8px 0;
}
p {
  margin: 0 0 2px;
  font-size: 13px;
}
.scroll {
  overflow-x: auto;
}
table {
  table-layout: fixed;
  min-inline-size: 900px;
}
th:first-child {
  inline-size: 44px;
}
th:nth-child(5) {
  inline-size: 34%;
}
th:nth-child(6) {
  inline-size: 84px;
}
td {
  overflow-wrap: anywhere;
  vertical-align: top;
}
td :deep(.cell) {
  white-space: pre-wrap;
}
</style>
