<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { singleLettersAreOn } from '@/composables/useShortcuts'
import { useIsNarrow } from '@/composables/useIsNarrow'
import { useVirtualRows } from '@/composables/useVirtualRows'
import LoadState from '@/parts/LoadState.vue'
import FindingLine from '@/stations/review/FindingLine.vue'
import { type Filter, isOfCells } from '@/stations/review/filter'
import type { Order } from '@/stations/review/useOrder'
import { type Finding, PAGE, sequenceOf, useFindings } from '@/stations/review/useFindings'

const props = defineProps<{
  tally: Schemas['Tally']
  filter: Filter
  beside: readonly string[]
  saysWhy: boolean
  order: Order | null
  /** whether any of the cells has a difference to be said */
  saysDifference: boolean
}>()
const emit = defineEmits<{ look: [finding: Finding | null]; rule: [decision: Schemas['Decision']]; ruleAll: [decision: Schemas['Decision']] }>()
/** Findings that are chosen to be ruled on together, by their sequence. */
const ticked = defineModel<ReadonlySet<number>>('ticked', { required: true })

const ROW_HEIGHT = 34
const NARROW_ROW_HEIGHT = 52
/** Less than that a line has no room for both values beside the key: they stand below it. */
const LEAST_WIDTH = 440
const scroller = ref<HTMLElement | null>(null)
const chosen = ref(0)
const inSight = ref<number[]>([])
const { first, counted, total, length, at } = useFindings(
  computed(() => ({ tally: props.tally.id, filter: props.filter, beside: props.beside, order: props.order })),
  inSight,
)
const isNarrow = useIsNarrow(scroller, () => LEAST_WIDTH)
const { height, rows, offset, goTo, goToBeginning, fits } = useVirtualRows(
  scroller,
  () => length.value,
  () => (isNarrow.value ? NARROW_ROW_HEIGHT : ROW_HEIGHT),
)

watch(
  rows,
  (seen) => {
    const pages = new Set([...seen, chosen.value].map((index) => Math.floor(index / PAGE)))
    inSight.value = [...pages].sort((a, b) => a - b)
  },
  { immediate: true },
)
/** A place that was asked for before anybody knew how many there are. */
let wanted: number | null = null
watch(
  () => JSON.stringify([props.filter, props.order]),
  () => {
    chosen.value = 0
    wanted = null
    ticked.value = new Set()
    goToBeginning()
  },
)

// Where what was ruled on has left the list, the cursor stays at its place.
watch(length, (now) => {
  if (chosen.value >= now) chosen.value = Math.max(0, now - 1)
})
// The finding under the cursor is looked at as soon as it is there, and again when its ruling has changed.
const current = computed(() => at(chosen.value))
watch(current, (finding) => emit('look', finding ?? null), { immediate: true })

function move(to: number): void {
  chosen.value = Math.max(0, Math.min(length.value - 1, to))
  goTo(chosen.value)
}
watch(total, (known) => {
  if (known === null || wanted === null) return
  const place = wanted
  wanted = null
  void nextTick(() => move(place))
})
function tick(...places: number[]): void {
  const now = new Set(ticked.value)
  for (const place of places) {
    const finding = at(place)
    if (finding === undefined) continue
    const sequence = sequenceOf(finding)
    if (places.length > 1 || !now.has(sequence)) now.add(sequence)
    else now.delete(sequence)
  }
  ticked.value = now
}
const between = (one: number, other: number): number[] => Array.from({ length: Math.abs(other - one) + 1 }, (_, step) => Math.min(one, other) + step)
function click(event: MouseEvent, place: number): void {
  if (event.shiftKey) tick(...between(chosen.value, place))
  else if (event.ctrlKey || event.metaKey) tick(place)
  move(place)
}
defineExpose({
  total,
  focus: () => scroller.value?.focus(),
  goTo: (index: number) => {
    if (total.value === null) wanted = index
    else move(index)
    scroller.value?.focus()
  },
})

const decisions: Record<string, Schemas['Decision']> = { e: 'expected', d: 'defect', a: 'ask', o: 'open' }
function press(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const letters = singleLettersAreOn()
  const decision = letters ? decisions[event.key.toLowerCase()] : undefined
  const page = Math.max(1, Math.floor(fits.value) - 1)
  const moves: Record<string, number> = {
    ArrowDown: 1,
    ArrowUp: -1,
    PageDown: page,
    PageUp: -page,
    Home: -length.value,
    End: length.value,
    ...(letters ? { n: 1, p: -1 } : {}),
  }
  const step = moves[event.key]
  if (decision !== undefined) {
    if (event.shiftKey) emit('ruleAll', decision)
    else emit('rule', decision)
  } else if (step !== undefined) {
    const from = chosen.value
    move(from + step)
    if (event.shiftKey && event.key.startsWith('Arrow')) tick(...between(from, chosen.value))
  } else if (event.key === ' ') {
    tick(chosen.value)
  } else if (event.key === 'Escape' && ticked.value.size > 0) {
    ticked.value = new Set()
  } else {
    return
  }
  event.preventDefault()
}
/** Keys of one length for the eye: as wide as the longest of the first page, within bounds. */
const keyWidth = computed(() => {
  const longest = Array.from({ length: Math.min(PAGE, length.value) }, (_, index) => at(index)).reduce(
    (most, finding) => {
      const key = finding === undefined ? null : finding.kind === 'row' ? finding.row.key : finding.cell.key
      return Math.max(most, key?.length ?? 0)
    },
    props.tally.keyColumns.join(', ').length * 0.8,
  )
  return Math.round(Math.min(isDifferenceSaid.value ? 126 : 160, Math.max(70, longest * 7.9)))
})
/** Where cells of several columns are mixed, each says its own. */
const isMixed = computed(() => isOfCells(props.filter) && props.filter.pattern === undefined && props.filter.pair === undefined)
const columns = computed(() => new Map(props.tally.patterns.map((pattern) => [pattern.number, pattern.source])))
const columnOf = (index: number): string | null => {
  const finding = isMixed.value ? at(index) : undefined
  return finding?.kind === 'cell' ? (columns.value.get(finding.cell.pattern) ?? null) : null
}
const isTicked = (index: number): boolean => {
  const finding = at(index)
  return finding !== undefined && ticked.value.has(sequenceOf(finding))
}
const isDifferenceSaid = computed(() => props.saysDifference && isOfCells(props.filter))
const OF_RULING = ['why', 'ticket', 'by'] as const
/** With further columns the list may be wider than its pane, and is moved sideways then. */
const room = computed(() => {
  const [columns, values] = [props.beside.length + (props.saysWhy ? OF_RULING.length : 0), isOfCells(props.filter) ? 2 : 1]
  const further = props.beside.length === 0 ? '' : `repeat(${props.beside.length}, minmax(0, 0.8fr)) `
  const why = props.saysWhy ? ' minmax(0, 1fr) 72px 88px' : ''
  return {
    '--columns': `20px 26px ${keyWidth.value}px ${further}repeat(${values}, minmax(${isDifferenceSaid.value ? 58 : 0}px, 1fr))${isDifferenceSaid.value ? ' 82px 72px' : ' 88px'}${why}`,
    '--least': columns === 0 ? '0' : `${200 + keyWidth.value + columns * 96 + values * 120}px`,
  }
})
const headings = computed(() => [
  props.tally.keyColumns.join(', '),
  ...props.beside,
  ...(isOfCells(props.filter) ? ['source', 'target'] : ['first columns']),
  ...(isDifferenceSaid.value ? ['difference'] : []),
  'ruling',
  ...(props.saysWhy ? OF_RULING : []),
])
</script>

<template>
  <div class="list" :class="{ narrow: isNarrow }" :style="room">
    <div class="heading" aria-hidden="true">
      <span /><span /><span v-for="name in headings" :key="name">{{ name }}</span>
    </div>
    <LoadState :is-loading="false" :error="first.error.value ?? counted.error.value" what="Findings" @retry="(first.refetch(), counted.refetch())">
      <div
        ref="scroller"
        class="scroller"
        tabindex="0"
        role="listbox"
        aria-label="Findings"
        aria-multiselectable="true"
        :aria-activedescendant="length > 0 ? `finding-${chosen}` : undefined"
        :aria-busy="first.isFetching.value"
        @keydown="press"
      >
        <p v-if="total === 0 && !first.isFetching.value" class="none">No finding is so. <slot name="none" /></p>
        <div :style="{ blockSize: `${height}px` }" class="all">
          <div class="drawn" :style="{ transform: `translateY(${offset}px)` }">
            <FindingLine
              v-for="index in rows"
              :id="`finding-${index}`"
              :key="index"
              :finding="at(index)"
              :is-chosen="index === chosen"
              :place="index + 1"
              :is-ticked="isTicked(index)"
              :column="columnOf(index)"
              :says-why="saysWhy"
              :says-difference="isDifferenceSaid"
              :is-narrow="isNarrow"
              :total="length"
              @click="click($event, index)"
              @tick="tick(index)"
            />
          </div>
        </div>
      </div>
    </LoadState>
  </div>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
  flex: 1;
  overflow-x: auto;
}
.heading,
.scroller {
  min-inline-size: var(--least);
}
.narrow .heading {
  display: none;
}
.narrow .scroller {
  min-inline-size: 0;
}
.heading {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 8px;
  padding: 7px 14px;
  font-size: 12px;
  color: var(--ink-3);
  font-weight: 600;
  border-block-end: 1px solid var(--line);
  background: var(--sheet);
  /* as wide as the rows below, whether or not they scroll */
  overflow: hidden;
  scrollbar-gutter: stable;
}
.heading span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.scroller {
  flex: 1;
  min-block-size: 0;
  overflow: hidden auto;
  scrollbar-gutter: stable;
  background: var(--sheet);
}
.scroller:focus-visible {
  outline-offset: -2px;
  box-shadow: none;
}
.none {
  padding: 14px;
  margin: 0;
}
.all {
  overflow: hidden;
}
</style>
