<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { difference, type Stretch } from '@/format/difference'
import { figure, figures, named, type Said } from '@/format/said'
import CellValue from '@/parts/CellValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import { FORGIVEN_PAGE, useForgiven } from '@/stations/review/useForgiven'

/** The cells of a pattern that a rule of the plan let pass, in the order of the source: to look through, to jump in, to take away. */
const props = defineProps<{ tally: Schemas['Tally']; pass: Schemas['Tally']['forgiven'][number] }>()
const emit = defineEmits<{ look: [key: string] }>()

const from = ref(1)
const typed = ref('')
const text = ref('')
const { data, error, isPending, isFetching, refetch } = useForgiven(
  () => props.tally,
  () => props.pass.number,
  () => from.value,
  () => text.value,
)
watch(
  () => props.pass.number,
  () => {
    from.value = 1
    typed.value = text.value = ''
  },
)
function search(): void {
  text.value = typed.value
  from.value = 1
}
const cells = computed(() => data.value?.cells ?? 0)
const last = computed(() => from.value + (data.value?.items.length ?? 0) - 1)
const name = computed(() => named(props.pass.inKey ? 'key_forgiven' : 'patterns', props.pass.source, props.pass.sentence, 'cells'))
const shown = computed<Said>(() =>
  text.value === ''
    ? [`${count(from.value)} to ${count(last.value)} of `, ...figures(name.value, cells.value, 'cell')]
    : [...figures('forgiven/cells', cells.value, 'cell'), ' of ', figure(name.value, props.pass.cells), ' have this text'],
)
const progress = computed(() => (data.value === undefined || data.value.total === 0 ? '' : `${Math.floor((100 * data.value.done) / data.value.total)} %`))
const column = computed(() => (props.pass.source === props.pass.target ? props.pass.source : `${props.pass.source} → ${props.pass.target}`))
const jump = (place: number): void => {
  from.value = Math.max(1, Math.min(Math.floor(place) || 1, Math.max(1, cells.value)))
}
const take = (as: 'csv' | 'json-lines'): string => {
  const query = new URLSearchParams({ as, ...(text.value === '' ? {} : { text: text.value }) })
  return `/api/v1/tallies/${props.tally.id}/forgiven/${props.pass.number}/taken?${query.toString()}`
}
const whole = (value: string): Stretch[] => [{ text: value, differs: false }]
</script>

<template>
  <section class="forgiven" aria-label="Cells that a rule let pass">
    <header>
      <p>
        <b>{{ column }}</b>{{ pass.inKey ? ', in the key' : '' }}: <span data-sentence="patterns">{{ pass.sentence }}</span>. A rule of plan
        {{ tally.planVersion }} lets it pass.
      </p>
      <form class="search" @submit.prevent="search">
        <el-input v-model="typed" size="small" aria-label="Text in the key or a value" placeholder="text in the key or a value" clearable @clear="search" />
        <el-button size="small" native-type="submit">Find</el-button>
        <span class="quiet take">Download these as <a :href="take('csv')" download>CSV</a> or <a :href="take('json-lines')" download>JSON Lines</a></span>
      </form>
    </header>
    <LoadState :is-loading="isPending" :error="error" what="The cells" @retry="refetch()">
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet waits" role="status">
        These cells stand in rows that agree, which are kept only as they were delivered. They are being listed from both sides {{ progress }} …
      </p>
      <template v-else-if="data">
        <div class="scroll" :aria-busy="isFetching">
          <table>
            <thead>
              <tr>
                <th scope="col">{{ tally.keyColumns.join(', ') }}</th>
                <th scope="col">source</th>
                <th scope="col">target</th>
                <th scope="col" class="number">lines</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="cell in data.items" :key="cell.place">
                <th scope="row">
                  <button type="button" class="plain as-link" @click="emit('look', cell.key)">
                    <span class="cell">{{ cell.key }}</span>
                  </button>
                </th>
                <td><CellValue :stretches="difference(cell.source, cell.target).source" side="source" /></td>
                <td><CellValue :stretches="difference(cell.source, cell.target).target" side="target" /></td>
                <td class="number quiet"><CellValue :stretches="whole(`${cell.sourceLine}, ${cell.targetLine}`)" /></td>
              </tr>
            </tbody>
          </table>
          <p v-if="data.items.length === 0" class="quiet waits">No cell has this text.</p>
        </div>
        <footer>
          <span role="status"><SaidText :said="shown" /></span>
          <el-button size="small" :disabled="from === 1" @click="jump(from - FORGIVEN_PAGE)">Before</el-button>
          <el-button size="small" :disabled="data.next === null" @click="jump(data.next ?? from)">Next</el-button>
          <label v-if="cells > FORGIVEN_PAGE"
            >from cell <input type="number" min="1" :max="cells" :value="from" @change="jump(Number(($event.target as HTMLInputElement).value))"
          /></label>
        </footer>
      </template>
    </LoadState>
  </section>
</template>

<style scoped>
.forgiven {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
  flex: 1;
}
header {
  padding: 8px 14px;
  background: #eef2f5;
  border-block-end: 1px solid var(--line);
  font-size: 13.5px;
  display: grid;
  gap: 6px;
}
header p {
  margin: 0;
  overflow-wrap: anywhere;
}
.search {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.search .el-input {
  inline-size: 220px;
}
.take {
  font-size: 12.5px;
}
.waits,
.warn {
  margin: 0;
  padding: 10px 14px;
  font-size: 13px;
}
.warn {
  background: var(--warn);
}
.scroll {
  overflow: auto;
  flex: 1;
  background: var(--sheet);
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  font-size: 13px;
}
th,
td {
  text-align: start;
  font-weight: 400;
  padding: 5px 14px;
  border-block-end: 1px solid var(--line-2);
  overflow-wrap: anywhere;
  vertical-align: top;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
}
.number {
  text-align: end;
  white-space: nowrap;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 6px 14px;
  border-block-start: 1px solid var(--line);
  background: var(--sheet);
  font-size: 13px;
}
input[type='number'] {
  inline-size: 96px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 2px 6px;
}
</style>
