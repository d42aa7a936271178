<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { partKind } from '@/format/partKinds'
import CellValue from '@/parts/CellValue.vue'
import CommittedInput from '@/parts/CommittedInput.vue'
import ColumnEdges from '@/stations/deliver/ColumnEdges.vue'
import TrailerCells from '@/stations/deliver/TrailerCells.vue'
import type { Corrections, TrailerMeaning } from '@/stations/deliver/useParts'

/** What was found in a file, with the reason, and its first rows read that way: put right here before it is taken. */
const props = defineProps<{
  receipt: Schemas['Receipt']
  preview: NonNullable<Schemas['Receipt']['preview']>
  meaning: TrailerMeaning | null
  isBusy: boolean
}>()
const emit = defineEmits<{ correct: [corrections: Corrections]; mean: [meaning: TrailerMeaning | null] }>()

const delimiters = [
  { value: 'comma', label: 'comma  ,' },
  { value: 'semicolon', label: 'semicolon  ;' },
  { value: 'tab', label: 'tab' },
  { value: 'bar', label: 'bar  |' },
] as const
/** What was found says why; what somebody corrected is theirs. */
const corrected = computed(() => (props.preview.reasons.corrected ?? '').split(' '))
const reason = (of: string, found: string): string => (corrected.value.includes(of) ? 'as you said' : found + (props.preview.reasons[of] ?? ''))
const why = (of: string): string => reason(of, 'found ')
const choices = computed(() => {
  const now = props.preview.format.delimiter
  return now === undefined || delimiters.some(({ value }) => value === now) ? delimiters : [...delimiters, { value: now, label: now }]
})
/** Asked only where it is a question. */
const mayHaveSingleQuotes = computed(
  () => props.preview.format.quote !== undefined || props.preview.rows.some((row) => row.some((value) => value.startsWith("'"))),
)
const encodings = ['UTF-8', 'Windows-1252', 'UTF-16LE', 'UTF-16BE'] as const
const isDelimited = computed(() => props.preview.format.kind === 'delimited')
const isFixedWidth = computed(() => props.preview.format.kind === 'fixed-width')
const isText = computed(() => isDelimited.value || isFixedWidth.value)
const hasPath = computed(() => (props.preview.format.paths?.length ?? 0) > 0)
const mayBeTrailer = computed(() => props.preview.trailer?.isLikely === true || props.meaning !== null)
/** The last record becomes a trailer when it is left out of the rows, and what it says is guessed until somebody chooses. */
function makeTrailer(is: boolean): void {
  emit('mean', is ? { rows: props.preview.trailer?.rows ?? null, totals: [] } : null)
  emit('correct', { skipBelow: is ? Math.max(1, props.preview.format.skipBelow ?? 0) : 0 })
}
const isWorkbook = computed(() => props.preview.format.kind === 'xlsx' || props.preview.format.kind === 'ods')
const cells = (row: readonly string[]): readonly string[] => props.preview.columns.map((_, position) => row[position] ?? '')
const whole = (text: string, least: number): number | undefined => (/^\d+$/.test(text) && Number(text) >= least ? Number(text) : undefined)
</script>

<template>
  <div class="found">
    <p>
      <b>{{ receipt.fileName }}</b>: {{ partKind(preview.format.kind) }}, {{ counted(preview.columns.length, 'column')
      }}<template v-if="isDelimited"
        >, {{ corrected.includes('encoding') ? `${preview.format.encoding}, as you said` : preview.reasons.encoding }}, {{ preview.reasons.lineEnds
        }}<template v-if="corrected.includes('header') || corrected.includes('skipAbove')">, header row as you said</template
        ><template v-else-if="preview.reasons.header">, {{ preview.reasons.header }}</template></template
      ><template v-if="preview.reasons.skipBelow && !corrected.includes('skipBelow')">, {{ preview.reasons.skipBelow }}</template
      >.
    </p>
    <p v-if="preview.sameAs" class="warn" role="alert">This file is {{ preview.sameAs }}. Taken twice, its rows count twice.</p>
    <div v-if="isDelimited" class="correct">
      <label :for="`delimiter-${receipt.id}`">Cells are separated by</label>
      <el-select
        :id="`delimiter-${receipt.id}`"
        aria-label="Cells are separated by"
        :model-value="preview.format.delimiter"
        size="small"
        class="choice"
        :disabled="isBusy"
        filterable
        allow-create
        default-first-option
        @update:model-value="emit('correct', { delimiter: $event })"
      >
        <el-option v-for="delimiter in choices" :key="delimiter.value" :value="delimiter.value" :label="delimiter.label" />
      </el-select>
      <span class="quiet">{{ why('delimiter') }}; type any other sign</span>
    </div>
    <div v-if="isDelimited && mayHaveSingleQuotes" class="correct">
      <label :for="`quote-${receipt.id}`">Cells may stand between</label>
      <el-select
        :id="`quote-${receipt.id}`"
        :model-value="preview.format.quote ?? 'double'"
        size="small"
        class="sheet"
        :disabled="isBusy"
        @update:model-value="emit('correct', { quote: $event })"
      >
        <el-option value="double" label="double quotes" />
        <el-option value="single" label="single quotes" />
      </el-select>
      <span v-if="preview.reasons.quote || corrected.includes('quote')" class="quiet">{{ why('quote') }}</span>
    </div>
    <div v-if="isText" class="correct">
      <label :for="`kind-${receipt.id}`">Columns are</label>
      <el-select
        :id="`kind-${receipt.id}`"
        :model-value="preview.format.kind"
        size="small"
        class="sheet"
        :disabled="isBusy"
        @update:model-value="emit('correct', { kind: $event })"
      >
        <el-option value="delimited" label="delimited" />
        <el-option value="fixed-width" label="of fixed width" />
      </el-select>
      <span v-if="isFixedWidth" class="quiet">{{ why('starts') }}</span>
    </div>
    <ColumnEdges
      v-if="isFixedWidth"
      :lines="preview.beginning"
      :starts="preview.format.starts ?? []"
      :is-busy="isBusy"
      @change="emit('correct', { starts: $event })"
    />
    <div v-if="hasPath" class="correct">
      <label :for="`path-${receipt.id}`">Records stand at</label>
      <el-select
        :id="`path-${receipt.id}`"
        :model-value="preview.format.path"
        size="small"
        class="sheet"
        :disabled="isBusy"
        filterable
        allow-create
        @update:model-value="emit('correct', { path: $event })"
      >
        <el-option v-for="path in preview.format.paths" :key="path" :value="path" :label="path" />
      </el-select>
      <span class="quiet">{{ why('path') }}</span>
    </div>
    <div v-if="isText" class="correct">
      <label :for="`encoding-${receipt.id}`">Encoding</label>
      <el-select
        :id="`encoding-${receipt.id}`"
        :model-value="preview.format.encoding"
        size="small"
        class="choice"
        :disabled="isBusy"
        @update:model-value="emit('correct', { encoding: $event })"
      >
        <el-option v-for="encoding in encodings" :key="encoding" :value="encoding" :label="encoding" />
      </el-select>
      <el-checkbox :model-value="preview.format.header" :disabled="isBusy" @update:model-value="emit('correct', { header: $event === true })"
        >First row holds the column names</el-checkbox
      >
      <span class="together">
        <label :for="`above-${receipt.id}`">Skip lines at the top</label>
        <CommittedInput
          :id="`above-${receipt.id}`"
          :value="String(preview.format.skipAbove ?? 0)"
          size="small"
          class="few"
          inputmode="numeric"
          @commit="emit('correct', { skipAbove: whole($event, 0) ?? 0 })" />
        <label :for="`below-${receipt.id}`">at the end</label>
        <CommittedInput
          :id="`below-${receipt.id}`"
          :value="String(preview.format.skipBelow ?? 0)"
          size="small"
          class="few"
          inputmode="numeric"
          @commit="emit('correct', { skipBelow: whole($event, 0) ?? 0 })"
      /></span>
    </div>
    <div v-if="isWorkbook" class="correct">
      <label :for="`sheet-${receipt.id}`">Sheet</label>
      <el-select
        :id="`sheet-${receipt.id}`"
        :model-value="preview.format.sheet"
        size="small"
        class="sheet"
        :disabled="isBusy"
        @update:model-value="emit('correct', { sheet: $event })"
      >
        <el-option v-for="sheet in preview.format.sheets" :key="sheet.name" :value="sheet.name" :label="sheet.hidden ? `${sheet.name} (hidden)` : sheet.name" />
      </el-select>
      <span class="together">
        <label :for="`row-${receipt.id}`">Header row</label>
        <CommittedInput
          :id="`row-${receipt.id}`"
          :value="String(preview.format.headerRow ?? 1)"
          size="small"
          class="few"
          inputmode="numeric"
          @commit="emit('correct', { headerRow: whole($event, 1) ?? 1 })"
        />
      </span>
      <span class="together">
        <label :for="`rows-below-${receipt.id}`">Skip rows at the end</label>
        <CommittedInput
          :id="`rows-below-${receipt.id}`"
          :value="String(preview.format.skipBelow ?? 0)"
          size="small"
          class="few"
          inputmode="numeric"
          @commit="emit('correct', { skipBelow: whole($event, 0) ?? 0 })"
        />
      </span>
      <span class="quiet">Sheet: {{ reason('sheet', '') }}. Header row: {{ reason('headerRow', '') }}.</span>
    </div>
    <div v-if="preview.trailer && mayBeTrailer" class="correct">
      <el-checkbox :model-value="meaning !== null" :disabled="isBusy" @update:model-value="makeTrailer($event === true)">
        the last record is a trailer and no row
      </el-checkbox>
      <span v-if="meaning === null" class="quiet">it looks like one: {{ preview.trailer.cells.join(' ') }}</span>
    </div>
    <TrailerCells v-if="preview.trailer && meaning" :trailer="preview.trailer" :columns="preview.columns" :meaning="meaning" @change="emit('mean', $event)" />
    <div class="rows" tabindex="0" role="region" :aria-label="`First rows of ${receipt.fileName}`">
      <table>
        <thead>
          <tr>
            <th v-for="(name, position) in preview.columns" :key="position" scope="col">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, number) in preview.rows" :key="number">
            <td v-for="(value, position) in cells(row)" :key="position"><CellValue :stretches="[{ text: value, differs: false }]" /></td>
          </tr>
        </tbody>
      </table>
      <p v-if="preview.rows.length === 0" class="quiet">
        There are no rows to show: the file holds a header only, or every record has another number of cells.
      </p>
    </div>
  </div>
</template>

<style scoped>
.found {
  display: grid;
  gap: 8px;
  min-inline-size: 0;
  font-size: 13px;
}
p {
  margin: 0;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
.together {
  display: flex;
  gap: 8px;
  align-items: center;
}
.correct {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.choice {
  inline-size: 130px;
}
.sheet {
  inline-size: 180px;
}
.few {
  inline-size: 52px;
}
.rows {
  overflow: auto;
  max-block-size: 220px;
  border: 1px solid var(--line);
  position: relative;
}
table {
  border-collapse: collapse;
}
th {
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
  font-size: 12px;
  color: var(--ink-3);
}
th,
td {
  text-align: start;
  padding: 3px 8px;
  border-block-end: 1px solid var(--line-2);
  white-space: nowrap;
  max-inline-size: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
