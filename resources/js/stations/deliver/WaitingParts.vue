<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { bytes, counted } from '@/format/counts'
import { sheetsBeside, sheetsToTake, usualLabel } from '@/stations/deliver/alikeSheets'
import { changeSentence } from '@/stations/deliver/changeSentence'
import FoundPreview from '@/stations/deliver/FoundPreview.vue'
import type { Corrections, Terms, TrailerMeaning } from '@/stations/deliver/useParts'
import { useWaitingParts } from '@/stations/deliver/useWaitingParts'

/** Files that are here and not taken yet: each is looked at, then all become one delivery, on the terms that are given with it. */
const props = defineProps<{
  receipts: readonly Schemas['Receipt'][]
  dataset: number
  side: 'source' | 'target'
  isBusy: boolean
  isSending: boolean
  isReading: boolean
}>()
const emit = defineEmits<{
  correct: [receipt: string, corrections: Corrections]
  takeSheets: [receipt: string]
  take: [terms: Terms]
  discard: [...receipts: string[]]
}>()

const chosen = ref('')
const partLabels = ref<Record<string, string>>({})
const keepsPartLabels = ref(false)
const partLabelColumn = ref('part')
const asOf = ref('')
const rowsClaimed = ref('')
const totals = ref<{ column: string; sum: string }[]>([])
const trailers = ref<Record<string, TrailerMeaning>>({})
const { data: held } = useWaitingParts(
  () => props.dataset,
  () => props.side,
  () => props.receipts,
)
const nameOf = (id: string): string => props.receipts.find((receipt) => receipt.id === id)?.fileName ?? ''
const addTotal = (): unknown => totals.value.push({ column: [...all.value][0] ?? '', sum: '' })

function mean(receipt: string, meaning: TrailerMeaning | null): void {
  const others = Object.fromEntries(Object.entries(trailers.value).filter(([id]) => id !== receipt))
  trailers.value = meaning === null ? others : { ...others, [receipt]: meaning }
}

watch(
  () => props.receipts.map(({ id }) => id),
  (ids) => {
    if (!ids.includes(chosen.value)) chosen.value = ids[0] ?? ''
  },
  { immediate: true },
)
/** Rows of a query that are still coming: how many there will be, nobody knows. */
const asking = computed(() => props.receipts.filter(({ state: at, bytes: size }) => at === 'receiving' && size === 0))
const looked = computed(() => props.receipts.find(({ id }) => id === chosen.value))
const alike = computed(() => (looked.value === undefined ? [] : sheetsToTake(looked.value, props.receipts)))
const beside = computed(() => (looked.value === undefined ? [] : sheetsBeside(looked.value, props.receipts)))
/** Where the rows of several sheets come together, which sheet each stood in is worth a column. */
watch(
  () => beside.value.length > 0,
  (is) => {
    if (is && !keepsPartLabels.value) [keepsPartLabels.value, partLabelColumn.value] = [true, 'sheet']
  },
)
const all = computed(() => new Set(props.receipts.flatMap((receipt) => receipt.preview?.columns ?? [])))
const lacking = (receipt: Schemas['Receipt']): string[] =>
  receipt.preview === null ? [] : [...all.value].filter((name) => receipt.preview?.columns.includes(name) === false)

const received = ({ bytes: all, receivedBytes }: Schemas['Receipt']): string =>
  receivedBytes === all ? `${bytes(all)} received, is being looked at …` : `${bytes(receivedBytes)} of ${bytes(all)} received`
const state = (receipt: Schemas['Receipt']): string => {
  if (receipt.state === 'receiving') return received(receipt)
  if (receipt.state === 'reading') return `${counted(receipt.recordsRead, 'record')} read so far …`
  const without = lacking(receipt)
  return without.length === 0 ? bytes(receipt.bytes) : `has no ${without.join(', ')}`
}

function take(): void {
  const claimed = rowsClaimed.value.replaceAll(/[ ,]/g, '')
  emit('take', {
    partLabels: Object.fromEntries(
      props.receipts
        .map((receipt) => [receipt.id, partLabels.value[receipt.id] || usualLabel(receipt, props.receipts), receipt.fileName] as const)
        .filter(([, label, fileName]) => label !== fileName)
        .map(([id, label]) => [id, label]),
    ),
    partLabelColumn: props.receipts.length > 1 && keepsPartLabels.value && partLabelColumn.value !== '' ? partLabelColumn.value : null,
    asOf: asOf.value === '' ? null : asOf.value,
    rowsClaimed: /^\d+$/.test(claimed) ? Number(claimed) : null,
    totals: totals.value.filter(({ column, sum }) => column !== '' && sum.trim() !== '').map(({ column, sum }) => ({ column, sum: sum.trim() })),
    trailers: Object.fromEntries(Object.entries(trailers.value).filter(([id]) => props.receipts.some((receipt) => receipt.id === id))),
  })
}
</script>

<template>
  <div class="waiting">
    <ul v-if="receipts.length > 1" :aria-label="`Files of the delivery`">
      <li v-for="receipt in receipts" :key="receipt.id" :class="{ looked: receipt.id === chosen }">
        <button type="button" class="plain name" :aria-pressed="receipt.id === chosen" @click="chosen = receipt.id">{{ receipt.fileName }}</button>
        <span class="quiet">{{ state(receipt) }}</span>
        <el-input
          v-if="keepsPartLabels"
          :model-value="partLabels[receipt.id] ?? usualLabel(receipt, receipts)"
          size="small"
          :aria-label="`Part label of ${receipt.fileName}`"
          @update:model-value="partLabels[receipt.id] = $event"
        />
        <el-button link :disabled="isBusy" :aria-label="`Discard ${receipt.fileName}`" @click="emit('discard', receipt.id)">Discard</el-button>
      </li>
    </ul>
    <div v-for="receipt in receipts.filter(({ state: at, bytes: size }) => at === 'receiving' && size > 0)" :key="receipt.id" role="status">
      <el-progress
        :percentage="Math.floor((receipt.receivedBytes / receipt.bytes) * 100)"
        :stroke-width="8"
        :color="side === 'source' ? 'var(--src)' : 'var(--tgt)'"
      />
      <span class="quiet">{{ receipt.fileName }}: {{ received(receipt) }}</span>
    </div>
    <p v-for="receipt in asking" :key="receipt.id" role="status" class="quiet">
      Asking: {{ counted(receipt.recordsRead, 'row') }} of the {{ receipt.fileName }} so far …
    </p>
    <p v-if="isReading" role="status" class="quiet">
      <template v-for="receipt in receipts" :key="receipt.id">Reading {{ receipt.fileName }}: {{ counted(receipt.recordsRead, 'record') }} so far … </template>
    </p>
    <template v-else-if="looked?.preview">
      <p v-if="alike.length > 0" class="proposal">
        {{ alike.length === 1 ? `Sheet ${alike[0]} has` : `${counted(alike.length, 'more sheet')} have` }} the same columns<template v-if="alike.length > 1"
          >: {{ alike.join(', ') }}</template
        >.
        <el-button size="small" :disabled="isBusy" @click="emit('takeSheets', looked.id)">Take all {{ alike.length + beside.length + 1 }} as parts</el-button>
      </p>
      <p v-else-if="beside.length > 0" class="quiet">
        {{ beside.length + 1 }} sheets of one workbook are parts.
        <el-button link :disabled="isBusy" @click="emit('discard', ...beside.map(({ id }) => id))"
          >Take sheet {{ looked.preview.format.sheet }} alone</el-button
        >
      </p>
      <FoundPreview
        :key="looked.id"
        :receipt="looked"
        :preview="looked.preview"
        :meaning="trailers[looked.id] ?? null"
        :is-busy="isBusy"
        @correct="emit('correct', looked.id, $event)"
        @mean="mean(looked.id, $event)"
      />
      <p v-for="overlap in held?.overlaps" :key="`${overlap.one} ${overlap.other}`" class="warn" role="alert">
        {{ counted(overlap.rows, 'row') }} of {{ nameOf(overlap.one) }} and {{ nameOf(overlap.other) }} are the same, of {{ counted(overlap.of, 'row') }}. Taken
        together, they count twice.
      </p>
      <p v-if="held?.isWaiting" class="quiet" role="status">
        Holding it against the delivery before<template v-if="held.total > 0">: {{ Math.floor((100 * held.done) / held.total) }} %</template> …
      </p>
      <p v-else-if="held?.changes" role="status">{{ changeSentence(held.changes) }}</p>
      <p v-if="held?.problem" class="warn" role="alert">{{ held.problem }}</p>
      <div class="terms">
        <template v-if="receipts.length > 1">
          <el-checkbox v-model="keepsPartLabels">keep where each row came from</el-checkbox>
          <el-input v-if="keepsPartLabels" v-model="partLabelColumn" size="small" aria-label="Name of the column of part labels" class="short" />
        </template>
        <label>As of <input v-model="asOf" type="datetime-local" class="moment" /></label>
        <label
          >Row count stated by the sender
          <el-input v-model="rowsClaimed" size="small" inputmode="numeric" class="short" aria-label="Row count stated by the sender"
        /></label>
        <span v-for="(total, place) in totals" :key="place" class="total">
          sum of
          <el-select v-model="total.column" size="small" filterable :aria-label="`Column of total ${place + 1}`" class="choice">
            <el-option v-for="name in all" :key="name" :value="name" :label="name" />
          </el-select>
          <el-input v-model="total.sum" size="small" :aria-label="`Sum of ${total.column}, as the deliverer says`" class="short" />
          <el-button link :aria-label="`Take away the sum of ${total.column}`" @click="totals.splice(place, 1)">Take away</el-button>
        </span>
        <el-button link @click="addTotal">Add a control total from the sender</el-button>
      </div>
      <div class="actions">
        <el-button type="primary" :loading="isBusy && !isSending" :disabled="isSending" @click="take">
          {{ receipts.length === 1 ? 'Accept this delivery' : `Accept these ${receipts.length} parts as one delivery` }}
        </el-button>
        <el-button v-if="receipts.length === 1" :disabled="isBusy" @click="emit('discard', looked.id)">Discard the file</el-button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.waiting {
  display: grid;
  gap: 8px;
  min-inline-size: 0;
  font-size: 13px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: minmax(9em, 1fr) fit-content(60%) auto auto;
  gap: 8px;
  align-items: center;
  padding: 3px 8px;
}
li + li {
  border-block-start: 1px solid var(--line-2);
}
.looked {
  background: var(--mark);
}
.name {
  text-align: start;
  overflow-wrap: anywhere;
  font-weight: 550;
}
.terms,
.actions {
  display: flex;
  gap: 6px 12px;
  align-items: center;
  flex-wrap: wrap;
}
.terms label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.total {
  display: flex;
  gap: 6px;
  align-items: center;
}
.choice {
  inline-size: 150px;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
.proposal {
  background: var(--mark);
  padding: 3px 8px;
}
.short {
  inline-size: 110px;
}
.moment {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 2px 6px;
  font: inherit;
  background: var(--sheet);
  color: inherit;
}
p {
  margin: 0;
}
</style>
