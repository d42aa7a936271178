<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { relatively, signed } from '@/format/amounts'
import { className, decisionName } from '@/format/classes'
import { count, counted } from '@/format/counts'
import { difference, type Stretch } from '@/format/difference'
import { excerpt, isLong } from '@/format/excerpt'
import CellValue from '@/parts/CellValue.vue'
import CopyLink from '@/parts/CopyLink.vue'
import LoadState from '@/parts/LoadState.vue'
import RowMark from '@/parts/RowMark.vue'
import DeliveredDialog from '@/stations/review/DeliveredDialog.vue'
import HistoryDialog from '@/stations/review/HistoryDialog.vue'
import ActLine from '@/stations/review/ActLine.vue'
import type { Filter } from '@/stations/review/filter'

const props = defineProps<{
  record: Schemas['Record'] | undefined
  error: Error | null
  isLoading: boolean
  course: Schemas['Course']
  tally: number
  tallyId: number
  cell: number | null
}>()
const emit = defineEmits<{ look: [cell: number]; narrow: [terms: Filter] }>()

const places = computed(() => {
  const { record, course } = props
  if (record === undefined) return ''
  const place = (label: string, line: number | null, file: string | null): string[] =>
    line === null ? [] : [`${label.toLowerCase()} ${file === null ? '' : `${file} `}line ${count(line)}`]
  return [
    ...place(course.migration.sourceLabel, record.sourceLine, record.sourceFile),
    ...place(course.migration.targetLabel, record.targetLine, record.targetFile),
  ].join(', ')
})
const differing = computed(() => props.record?.fields.filter((field) => field.finding !== null).length ?? 0)
const compared = computed(() => props.record?.fields.filter((field) => field.role === 'compared').length ?? 0)
const note = computed(() => {
  const { record } = props
  if (record === undefined) return ''
  if (record.class === 'agreed') return 'Every compared cell agrees, or a rule lets pass what differs.'
  if (record.class === 'changed') return `${count(differing.value)} of ${counted(compared.value, 'cell')} differ`
  if (record.class !== 'repeated') return className(record.class)
  const which = record.ordinal === null ? '' : `Row ${count(record.ordinal)} of this key on its side: `
  return `${which}${counted(record.sourceRows, 'row')} of the source and ${count(record.targetRows)} of the target have it`
})
const name = (field: Schemas['Field']): string =>
  field.source === null ? (field.target ?? '') : field.target === null || field.target === field.source ? field.source : `${field.source} → ${field.target}`
/** What was ruled in a tally before, in words. */
function earlierSaid(earlier: Schemas['Earlier']): string {
  if (earlier === null) return ''
  const said = `ruled ${decisionName(earlier.decision).toLowerCase()} in tally ${earlier.tally} by ${earlier.by}${earlier.reason === '' ? '' : `: ${earlier.reason}`}`
  if (earlier.isBeyond) return `${said}; its pattern has more cells now than that was meant for`
  return earlier.isChanged ? `${said}; its values have changed since the ruling` : said
}
/** The act that stands for the row, or for a cell. */
const actOf = (id: number | null | undefined) => props.record?.rulings.find((act) => act.id === id)
/** Whether the row can be filtered by it: what is masked cannot. */
const isValue = (field: Schemas['Field']): boolean => (field.sourceValue ?? field.targetValue ?? '(masked)') !== '(masked)'
/** The place of a key field, counted from 1, and its value: what else has it? */
const keyPlace = (field: Schemas['Field']): number => (props.record?.fields.filter((one) => one.role === 'key').indexOf(field) ?? -1) + 1
const whole = (text: string): Stretch[] => [{ text, differs: false }]
/** What a rule lets pass is marked as what differs is; what is not compared is not. */
const sideOf = (field: Schemas['Field'], side: 'source' | 'target'): Stretch[] =>
  field.letPass === null
    ? whole((side === 'source' ? field.sourceValue : field.targetValue) ?? '')
    : difference(field.sourceValue ?? '', field.targetValue ?? '')[side]
const hasLong = computed(() => props.record?.fields.some((field) => isLong(field.sourceValue) || isLong(field.targetValue)) ?? false)
const isWhole = ref(false)
const isDelivered = ref(false)
const isHistory = ref(false)
const pane = ref<HTMLElement | null>(null)
/** Of a record with many columns one may only want to see those that differ; the key stays. */
const isBrief = ref(false)
const MANY = 20
const fields = computed(() => props.record?.fields.filter((field) => !isBrief.value || field.finding !== null || field.role === 'key') ?? [])
// The cell that is looked at may stand far below.
watch(
  () => [props.record?.sequence, props.cell],
  () => {
    const [within, looked] = [pane.value, pane.value?.querySelector<HTMLElement>('.looked')]
    // Where the panes stand below each other the page is not moved away from the list.
    if (within !== null && looked != null && within.scrollHeight > within.clientHeight) within.scrollTop = looked.offsetTop - within.offsetTop
  },
  { flush: 'post' },
)
/** What stands with a number: by how much it differs, and what that is of the source's. */
const differsBy = ({ difference, relativeDifference }: NonNullable<Schemas['Field']['finding']>): string =>
  signed(difference) + (relativeDifference === null || relativeDifference === 0 ? '' : ` (${relatively(relativeDifference)})`)
const shown = (stretches: readonly Stretch[]): readonly Stretch[] => (isWhole.value ? stretches : excerpt(stretches))
watch(
  () => props.record?.sequence,
  () => (isWhole.value = false),
)
</script>

<template>
  <section ref="pane" class="record" :data-record="record?.sequence" aria-label="The whole record">
    <LoadState :is-loading="isLoading" :error="error" what="The record">
      <p v-if="record === undefined" class="quiet hint">Choose a finding to see the whole record from both sides.</p>
      <template v-else>
        <header>
          <h2>
            <RowMark :row-class="record.class" :side="record.side" />
            <span class="cell">{{ record.key ?? 'no key' }}</span>
          </h2>
          <span class="quiet" data-figure="record">{{ note }}</span>
          <span class="quiet" data-figure="record">{{ places }}</span>
          <span v-if="record.remark">{{ record.remark }}</span>
          <button v-if="differing > 0 && record.fields.length > MANY" type="button" class="plain" :aria-pressed="isBrief" @click="isBrief = !isBrief">
            {{ isBrief ? 'Show all columns' : 'Show only the columns that differ' }}
          </button>
          <button v-if="hasLong" type="button" class="plain" :aria-pressed="isWhole" @click="isWhole = !isWhole">
            {{ isWhole ? 'Shorten long values' : 'Long values are shortened: show them whole' }}
          </button>
          <span v-if="record.sequence > 0" class="ways">
            <button type="button" class="plain as-link" @click="isDelivered = true">As it was delivered</button>
            <button type="button" class="plain as-link" @click="isHistory = true">Every ruling on it</button>
            <CopyLink :key="record.sequence" />
          </span>
          <ActLine v-if="actOf(record.rulingId)" :act="actOf(record.rulingId)!" :tally="tally" />
          <span v-else-if="record.earlier" class="quiet">{{ earlierSaid(record.earlier) }}</span>
        </header>
        <div v-if="record.refusal" class="field">
          <span class="label">{{ record.refusal.sentence }}</span>
          <CellValue :stretches="shown(whole(record.refusal.raw))" :side="record.side ?? undefined" />
        </div>
        <component
          :is="field.finding ? 'button' : 'div'"
          v-for="field in fields"
          :key="`${field.source} ${field.target}`"
          class="field"
          :class="{ differs: field.finding, looked: field.finding && field.finding.sequence === cell }"
          :type="field.finding ? 'button' : undefined"
          :aria-pressed="field.finding ? field.finding.sequence === cell : undefined"
          @click="field.finding && emit('look', field.finding.sequence)"
        >
          <span class="label"
            >{{ name(field) }}<em v-if="field.role === 'not-compared'">not compared</em
            ><button
              v-if="field.role !== 'key' && !field.finding && isValue(field)"
              type="button"
              class="plain only"
              :aria-label="`Filter by this value of ${name(field)}`"
              @click.stop="emit('narrow', { column: field.source ?? field.target ?? '', value: field.sourceValue ?? field.targetValue ?? '' })"
            >
              Filter by this value</button
            ><button
              v-if="field.role === 'key'"
              type="button"
              class="plain only"
              :aria-label="`Filter by this value of ${name(field)}`"
              @click.stop="emit('narrow', { keyColumn: keyPlace(field), key: field.sourceValue ?? field.targetValue ?? '' })"
            >
              Filter by this value
            </button></span
          >
          <span v-if="field.finding" class="two">
            <CellValue :stretches="shown(difference(field.sourceValue ?? '', field.targetValue ?? '').source)" side="source" />
            <CellValue :stretches="shown(difference(field.sourceValue ?? '', field.targetValue ?? '').target)" side="target" />
            <em data-sentence="record">{{ field.finding.sentence }}</em>
            <span v-if="field.finding.difference !== null" class="cell quiet">{{ differsBy(field.finding) }}</span>
            <ActLine v-if="actOf(field.finding.rulingId)" :act="actOf(field.finding.rulingId)!" :tally="tally" />
          </span>
          <CellValue v-else-if="field.sourceValue !== null && field.sourceValue === field.targetValue" :stretches="shown(whole(field.sourceValue))" />
          <span v-else class="two">
            <CellValue v-if="field.sourceValue !== null" :stretches="shown(sideOf(field, 'source'))" side="source" />
            <CellValue v-if="field.targetValue !== null" :stretches="shown(sideOf(field, 'target'))" side="target" />
            <em v-if="field.letPass" data-sentence="record">{{ field.role === 'key' ? 'the key' : 'a rule' }} lets pass: {{ field.letPass }}</em>
          </span>
        </component>
        <DeliveredDialog v-if="isDelivered" :tally="tallyId" :record="record" :course="course" @close="isDelivered = false" />
        <HistoryDialog v-if="isHistory" :tally="tallyId" :record="record" @close="isHistory = false" />
      </template>
    </LoadState>
  </section>
</template>

<style scoped>
.record {
  background: var(--sheet);
  overflow: auto;
  flex: 1;
}
header {
  padding: 11px 14px 8px;
  border-block-end: 1px solid var(--line);
  display: grid;
  font-size: 12px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
}
h2 {
  display: flex;
  gap: 8px;
  align-items: center;
}
h2 .cell {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.hint {
  padding: 14px;
  margin: 0;
}
.field {
  inline-size: 100%;
  border: 0;
  background: none;
  text-align: start;
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 8px;
  padding: 4px 14px;
  font-size: 12.5px;
  border-block-end: 1px solid var(--line-2);
}
.label {
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
.field:not(:hover):not(:focus-within) .only {
  color: transparent;
}
.only {
  text-decoration: underline;
  text-underline-offset: 2px;
  color: var(--ink-3);
  font-size: 12px;
  margin-inline-start: 6px;
}
em {
  font: 12px var(--text);
  color: var(--ink-3);
  display: block;
}
.differs {
  background: var(--mark);
  cursor: pointer;
}
.looked {
  box-shadow: inset 3px 0 0 var(--mark-edge);
}
.field:focus-visible {
  outline-offset: -2px;
}
.two {
  display: grid;
  gap: 1px;
}
.field :deep(.cell) {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
