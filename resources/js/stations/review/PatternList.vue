<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { className } from '@/format/classes'
import { figure, named, type Said } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import RowMark from '@/parts/RowMark.vue'
import SaidText from '@/parts/SaidText.vue'
import { type Filter, isOfCells, isSlice, type Subject } from '@/stations/review/filter'
import { rowsName, sliceName } from '@/stations/review/figureNames'

/** What is looked at: findings of a filter, or a list of what a rule let pass. */
const props = withDefaults(defineProps<{ tally: Schemas['Tally']; filter: Filter; forgiven?: number | null }>(), { forgiven: null })
const emit = defineEmits<{ choose: [subject: Subject]; chooseForgiven: [number: number] }>()

const heaviest = computed(() => Math.max(1, ...props.tally.patterns.map((pattern) => pattern.cells)))
const isRowClass = (rowClass: Schemas['RowClass'] | null): boolean =>
  props.forgiven === null && !isOfCells(props.filter) && isSlice(props.filter, rowClass === null ? {} : { class: rowClass })
/** Of very many parts only those of the class that is looked at. */
const SLICES = 8
const slicesOf = (list: Schemas['Tally']['rowLists'][number]): Schemas['Tally']['rowLists'][number]['slices'] =>
  list.slices.length <= SLICES || props.filter.class === list.class ? list.slices : []
const orders = { size: 'most cells first', open: 'most open first', column: 'by column' } as const
const order = ref<keyof typeof orders>('size')
const compare: Record<keyof typeof orders, (one: Schemas['Pattern'], other: Schemas['Pattern']) => number> = {
  size: (one, other) => other.cells - one.cells,
  open: (one, other) => other.standing.open - one.standing.open,
  column: (one, other) => one.source.localeCompare(other.source) || other.cells - one.cells,
}
/** A column that is chosen in the picture leaves its own patterns in sight. */
const patterns = computed(() =>
  props.tally.patterns
    .filter((pattern) => props.filter.pair === undefined || pattern.pair === props.filter.pair)
    .filter((pattern) => props.filter.cellClass === undefined || pattern.class === props.filter.cellClass)
    .sort(compare[order.value]),
)
/** Patterns of one column and kind of cell are a family: opened, filtered and ruled on as one. One alone is no family. */
interface Family {
  id: string
  title: string
  subject: Subject
  cells: number
  open: number
  /** the names of the figures that its own is the sum of */
  figure: string
  patterns: Schemas['Pattern'][]
}
const families = computed(() => {
  const found = new Map<string, Schemas['Pattern'][]>()
  for (const pattern of patterns.value) {
    const id = `${pattern.pair} ${pattern.class}`
    found.set(id, [...(found.get(id) ?? []), pattern])
  }
  const all = [...found].map(([id, own]): Family => {
    const [first] = own as [Schemas['Pattern'], ...Schemas['Pattern'][]]
    return {
      id,
      title: title(first),
      subject: { of: 'cells', pair: first.pair, cellClass: first.class },
      cells: own.reduce((sum, one) => sum + one.cells, 0),
      open: own.reduce((sum, one) => sum + one.standing.open, 0),
      figure: own.map(({ source, sentence }) => named('patterns', source, sentence, 'cells')).join(' + '),
      patterns: own,
    }
  })
  const compareFamilies: Record<keyof typeof orders, (one: Family, other: Family) => number> = {
    size: (one, other) => other.cells - one.cells,
    open: (one, other) => other.open - one.open,
    column: (one, other) => one.title.localeCompare(other.title) || other.cells - one.cells,
  }
  return all.sort(compareFamilies[order.value])
})
const KINDS: Record<Schemas['Pattern']['class'], string> = { changed: 'differ', blanked: 'lost', filled: 'added' }
/** Opened by hand; the family of the pattern that is looked at is open, and so are small ones. */
const toggled = ref<Record<string, boolean>>({})
const FEW = 3
const isFamilyOpen = ({ id, patterns: own }: Family): boolean =>
  toggled.value[id] ?? (own.length <= FEW || own.some(({ number }) => number === props.filter.pattern))
const isFamilyChosen = ({ patterns: [first] }: Family): boolean =>
  props.filter.pattern === undefined && props.filter.pair === first?.pair && props.filter.cellClass === first?.class
const cells = computed(() => props.tally.patterns.reduce((sum, pattern) => sum + pattern.cells, 0))
const title = (pattern: { source: string; target: string }): string =>
  pattern.source === pattern.target ? pattern.source : `${pattern.source} → ${pattern.target}`
const cellsOf = (cells: number): string => (cells === 1 ? 'cell' : 'cells')
const openOf = ({ number, standing }: Schemas['Pattern']): Said => {
  if (standing.open === 0) return [', all ruled']
  return standing.open < standing.findings ? [', ', figure(named('tally', 'patterns', number, 'standing', 'open'), standing.open), ' open'] : []
}
</script>

<template>
  <nav class="patterns" aria-label="Patterns">
    <div class="group"><span>Rows</span><span>rows</span></div>
    <template v-for="list in tally.rowLists" :key="list.class ?? 'all'">
      <button
        type="button"
        class="choice"
        :aria-pressed="isRowClass(list.class)"
        @click="emit('choose', list.class === null ? { of: 'rows' } : { class: list.class })"
      >
        <span v-if="list.class === null" />
        <RowMark v-else :row-class="list.class" silent />
        <span>{{ list.class === null ? 'All differences' : className(list.class) }}</span>
        <b><FigureValue :name="rowsName(list.class)" :of="list.rows" /></b>
      </button>
      <button
        v-for="slice in slicesOf(list)"
        :key="slice.words"
        type="button"
        class="choice slice"
        :aria-pressed="!isOfCells(filter) && isSlice(filter, slice.filter)"
        @click="emit('choose', slice.filter)"
      >
        <span />
        <em data-sentence="tally/rowLists">{{ slice.words }}</em>
        <b><span class="unseen">, </span><FigureValue :name="sliceName(slice.filter)" :of="slice.rows" /></b>
      </button>
    </template>
    <slot />
    <template v-if="tally.patterns.length > 0">
      <div class="group"><span>Changed cells, by column and cause</span><span>cells</span></div>
      <select v-if="patterns.length > 2" v-model="order" class="order" aria-label="Order of the patterns">
        <option v-for="(words, name) in orders" :key="name" :value="name">{{ words }}</option>
      </select>
      <button
        type="button"
        class="choice"
        :aria-pressed="filter.of === 'cells' && filter.pattern === undefined && filter.pair === undefined"
        @click="emit('choose', { of: 'cells' })"
      >
        <span /><span>All cells that differ</span><b><FigureValue name="cells/changed + cells/blanked + cells/filled" :of="cells" /></b>
      </button>
      <template v-for="family in families" :key="family.id">
        <div v-if="family.patterns.length > 1" class="family">
          <button
            type="button"
            class="plain fold"
            :aria-expanded="isFamilyOpen(family)"
            :aria-label="`Patterns of ${family.title}, ${KINDS[family.patterns[0]!.class]}`"
            @click="toggled[family.id] = !isFamilyOpen(family)"
          >
            {{ isFamilyOpen(family) ? '▾' : '▸' }}
          </button>
          <button type="button" class="choice" :aria-pressed="isFamilyChosen(family)" @click="emit('choose', family.subject)">
            <span />
            <span class="name"
              >{{ family.title }}<span class="unseen">: </span
              ><em
                >{{ KINDS[family.patterns[0]!.class] }} in <span data-ordinal>{{ family.patterns.length }}</span> ways<SaidText
                  :said="family.open === 0 ? [', all ruled'] : []"
              /></em>
            </span>
            <b
              ><span class="unseen">, </span><FigureValue :name="family.figure" :of="family.cells" /><span class="unseen">{{
                ' ' + cellsOf(family.cells)
              }}</span></b
            >
          </button>
        </div>
        <button
          v-for="pattern in isFamilyOpen(family) ? family.patterns : []"
          :key="pattern.number"
          type="button"
          :class="['choice', { within: family.patterns.length > 1 }]"
          :aria-pressed="filter.pattern === pattern.number"
          @click="emit('choose', { pattern: pattern.number })"
        >
          <span />
          <span class="name">
            <span :class="{ unseen: family.patterns.length > 1 }">{{ title(pattern) }}</span><span class="unseen">: </span
            ><em
              ><span data-sentence="patterns">{{ pattern.sentence }}</span
              ><SaidText :said="openOf(pattern)"
            /></em>
          </span>
          <b
            ><span class="unseen">, </span><FigureValue :name="named('patterns', pattern.source, pattern.sentence, 'cells')" :of="pattern.cells" /><span
              class="unseen"
              >{{ ' ' + cellsOf(pattern.cells) }}</span
            ></b
          >
          <i :style="{ inlineSize: `${(pattern.cells / heaviest) * 100}%` }" aria-hidden="true" />
        </button>
      </template>
      <button v-if="filter.pair !== undefined" type="button" class="plain all" @click="emit('choose', { of: 'cells' })">
        Show the patterns of all columns
      </button>
    </template>
    <template v-if="tally.forgiven.length > 0">
      <div class="group"><span>Forgiven by a rule of the plan</span><span>cells</span></div>
      <button
        v-for="pass in tally.forgiven"
        :key="pass.number"
        type="button"
        class="choice"
        :aria-pressed="forgiven === pass.number"
        @click="emit('chooseForgiven', pass.number)"
      >
        <span />
        <span class="name">
          {{ title(pass) }}{{ pass.inKey ? ', in the key' : '' }}<span class="unseen">: </span><em data-sentence="patterns">{{ pass.sentence }}</em>
        </span>
        <b
          ><span class="unseen">, </span
          ><FigureValue :name="named(pass.inKey ? 'key_forgiven' : 'patterns', pass.source, pass.sentence, 'cells')" :of="pass.cells" /><span class="unseen">{{
            ' ' + cellsOf(pass.cells)
          }}</span></b
        >
      </button>
    </template>
  </nav>
</template>

<style scoped>
.patterns {
  position: relative; /* texts for screen readers scroll along instead of making the page longer */
  background: var(--sheet);
  overflow: auto;
  padding: 10px 0;
}
.group {
  padding: 8px 14px 3px;
  font-size: 12px;
  color: var(--ink-3);
  font-weight: 600;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.family {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr);
}
.fold {
  min-block-size: 24px;
}
.within {
  padding-inline-start: 30px;
}
.order {
  margin: 2px 14px 4px;
  font-size: 12px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet);
  padding: 2px 4px;
}
.all {
  margin: 6px 14px;
  font-size: 12.5px;
}
.choice {
  inline-size: 100%;
  border: 0;
  background: none;
  text-align: start;
  cursor: pointer;
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  padding: 5px 14px;
  font-size: 13.5px;
  position: relative;
}
.choice:hover {
  background: var(--floor);
}
.choice[aria-pressed='true'] {
  background: var(--night);
  color: #fff;
}
.slice {
  padding-block: 1px 4px;
  font-size: 12px;
}
.slice em {
  overflow-wrap: anywhere;
}
.name {
  overflow-wrap: anywhere;
}
em {
  font-style: normal;
  color: var(--ink-2);
  font-size: 12px;
  display: block;
}
.choice[aria-pressed='true'] em {
  color: #b7c4d2;
}
b {
  font-weight: 600;
}
i {
  position: absolute;
  inset-inline-start: 0;
  inset-block-end: 0;
  block-size: 2px;
  background: var(--both-tint);
}
.choice:focus-visible {
  outline-offset: -4px;
}
</style>
