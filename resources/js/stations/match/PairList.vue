<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { kindName, passes } from '@/format/rules'
import type { ReadAs, Token } from '@/composables/draftChanges'
import FlagBox from '@/stations/match/FlagBox.vue'
import GuessLine from '@/stations/match/GuessLine.vue'
import ProposalCell from '@/stations/match/ProposalCell.vue'
import { certain, guessesOf } from '@/stations/match/guesses'

const props = defineProps<{
  plan: Schemas['Plan']
  draft: Schemas['PlanDraft']
  proposals: readonly Proposal[]
  forms: Schemas['Advice']['forms']
  labels: { source: string; target: string }
  agreeing: NonNullable<Schemas['Trial']['result']>['pairs']
  mayWork: boolean
  chosen: string | null
}>()
const emit = defineEmits<{
  pair: [source: string, target: string | null]
  pairAll: [pairs: Schemas['KeyColumn'][], kinds: readonly ReadAs[]]
  toggleKey: [pair: Schemas['KeyColumn']]
  readAs: [kinds: readonly ReadAs[], tokens: readonly Token[]]
  flag: [columns: Partial<Record<'source' | 'target', string>>, isSensitive: boolean]
  choose: [source: string]
}>()

const dragged = ref<string | null>(null)
const over = ref<string | null>(null)
function drop(target: string): void {
  if (dragged.value !== null) emit('pair', dragged.value, target)
  dragged.value = over.value = null
}

type Proposal = Schemas['Advice']['pairs']['proposals'][number]
const NOT_COMPARED = '\u0000not compared'

const examples = (side: 'source' | 'target'): Map<string, string> =>
  new Map(
    (props.plan[side]?.columns ?? []).map((column) => [
      column.name,
      column.examples.map((value) => value.slice(0, 40).replaceAll(/\r?\n/g, ' ⏎ ')).join('   '),
    ]),
  )
const sourceExamples = computed(() => examples('source'))
const targetExamples = computed(() => examples('target'))

const partners = computed(() => new Map([...props.draft.key, ...props.draft.columnPairs].map((pair) => [pair.source, pair.target])))
const rulesOf = computed(
  () => new Map<string, Partial<Schemas['ColumnPair']>>([...props.draft.key, ...props.draft.columnPairs].map((pair) => [pair.source, pair])),
)
const keyPlaces = computed(() => new Map(props.draft.key.map((column, position) => [column.source, position + 1])))

// Key columns first, in the order of the key; then the columns of the source in their own order.
const rows = computed(() => {
  const names = [...new Set((props.plan.source?.columns ?? []).map((column) => column.name))]
  const inKey = props.draft.key.map((column) => column.source).filter((name) => names.includes(name))
  return [...inKey, ...names.filter((name) => !keyPlaces.value.has(name))].map((source) => ({
    source,
    target: partners.value.get(source) ?? null,
    place: keyPlaces.value.get(source),
  }))
})
/** Proposals for columns that nobody has paired yet. */
const proposed = computed(() => {
  const taken = new Set(partners.value.values())
  return new Map(props.proposals.filter(({ source, target }) => !partners.value.has(source) && !taken.has(target)).map((one) => [one.source, one]))
})
const strong = computed(() => [...proposed.value.values()].filter(({ strength }) => strength === 'strong'))
const guesses = computed(() => guessesOf(props.forms, [...props.draft.key, ...props.draft.columnPairs], props.labels))
const guessesAt = (source: string) => guesses.value.filter((guess) => guess.source === source)
const sure = computed(() => certain(guesses.value))
const asked = computed(() => guesses.value.filter(({ ways }) => ways.length > 1).length)
/** Where both sides say what a pair is, it is read so from the start: kind and form are decided with the pair. */
function confirm(pairs: readonly Proposal[]): void {
  const confirmed = pairs.map(({ source, target }) => ({ source, target }))
  emit('pairAll', confirmed, certain(guessesOf(props.forms, confirmed, props.labels)).readAs)
}
/** What a proposed pair would be read as. */
const guessOf = (proposal: Proposal) => guessesOf(props.forms, [proposal], props.labels).find(({ ways }) => ways.some(({ readAs }) => readAs.length > 0))
/** How much of each pair agrees in the trial. */
const agreement = computed(() => new Map(props.agreeing.map((pair) => [pair.source, pair])))
function agreesIn(source: string): string {
  const { compared = 0, differing = 0, agreeing = '' } = agreement.value.get(source) ?? {}
  if (compared === 0) return 'no cells to compare'
  return differing === 0 ? 'agrees' : `${agreeing} agree`
}
const leftOver = computed(() => {
  const taken = new Set(partners.value.values())
  return (props.plan.target?.columns ?? []).map((column) => column.name).filter((name) => !taken.has(name))
})
const isFlagged = (side: 'source' | 'target', name: string | null): boolean => name !== null && props.draft.sensitive?.[side]?.includes(name) === true
const targets = computed(() => [...new Set((props.plan.target?.columns ?? []).map((column) => column.name))])
</script>

<template>
  <div class="list">
    <div v-if="mayWork && strong.length > 0" class="strong" role="status">
      <span
        >{{ strong.length === 1 ? 'One strong suggestion more.' : `${strong.length} strong suggestions more.` }}
        <template v-if="forms.isWaiting">How their values are written is being looked at …</template></span
      >
      <el-button size="small" @click="confirm(strong)">
        {{ strong.length === 1 ? 'Confirm it' : `Confirm all ${strong.length}` }}
      </el-button>
    </div>
    <div v-if="guesses.length > 0" class="strong" role="status">
      <span>
        <template v-if="sure.count > 0"
          ><span data-ordinal>{{ sure.count }}</span> {{ sure.count === 1 ? 'guess' : 'guesses' }} how values are written, each with what it would settle below
          its pair.</template
        >
        <template v-if="asked > 0">
          <span data-ordinal>{{ asked }}</span> {{ asked === 1 ? 'is' : 'are' }} asked.</template
        >
      </span>
      <el-button v-if="mayWork && sure.count > 0" size="small" @click="emit('readAs', sure.readAs, sure.tokens)">
        <template v-if="sure.count === 1">Take it</template>
        <span v-else
          >Take all <span data-ordinal>{{ sure.count }}</span></span
        >
      </el-button>
    </div>
    <table>
      <thead>
        <tr>
          <th scope="col" class="key">key</th>
          <th scope="col">source column</th>
          <th scope="col" class="wires"><span class="unseen">must equal</span></th>
          <th scope="col">target column</th>
          <th scope="col" class="kind">read as</th>
          <th scope="col">ignore differences of</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in rows" :key="row.source">
          <tr :class="{ inkey: row.place !== undefined, looked: chosen === row.source }">
            <td>
              <button
                v-if="row.target !== null"
                type="button"
                class="place"
                data-ordinal
                :disabled="!mayWork"
                :aria-pressed="row.place !== undefined"
                :aria-label="row.place === undefined ? `Make ${row.source} part of the key` : `Take ${row.source}, number ${row.place}, out of the key`"
                @click="emit('toggleKey', { source: row.source, target: row.target })"
              >
                {{ row.place ?? '' }}
              </button>
            </td>
            <th scope="row" :draggable="mayWork" @dragstart="dragged = row.source" @dragend="dragged = over = null">
              {{ row.source }}<span class="cell examples">{{ sourceExamples.get(row.source) }}</span>
            </th>
            <td><div class="wire" :class="{ none: row.target === null }" /></td>
            <td>
              <el-select
                :model-value="row.target ?? NOT_COMPARED"
                filterable
                :disabled="!mayWork"
                :aria-label="`Target column of ${row.source}`"
                size="small"
                @update:model-value="emit('pair', row.source, $event === NOT_COMPARED ? null : $event)"
              >
                <el-option :value="NOT_COMPARED" label="(not compared)" />
                <el-option v-for="name in targets" :key="name" :value="name" :label="name" />
              </el-select>
              <span class="cell examples">{{ row.target === null ? '' : targetExamples.get(row.target) }}</span>
            </td>
            <td v-if="proposed.get(row.source)" colspan="2">
              <ProposalCell
                :proposal="proposed.get(row.source)!"
                :guess="guessOf(proposed.get(row.source)!)"
                :may-work="mayWork"
                @confirm="emit('pairAll', [{ source: row.source, target: proposed.get(row.source)!.target }], $event)"
              />
            </td>
            <td v-if="!proposed.get(row.source)" class="readas">
              {{ row.target === null ? '' : kindName(rulesOf.get(row.source)?.kind ?? 'text')
              }}<span v-if="row.place === undefined && agreement.get(row.source)" class="quiet agrees" data-figure="trial/result/pairs">{{
                agreesIn(row.source)
              }}</span>
            </td>
            <td v-if="!proposed.get(row.source)">
              <button v-if="row.target !== null" type="button" class="rules" :aria-expanded="chosen === row.source" @click="emit('choose', row.source)">
                <span class="unseen">Rules of {{ row.source }}: </span>
                <span v-for="pass in passes(rulesOf.get(row.source) ?? {})" :key="pass" class="pass" data-sentence="draft">{{ pass }}</span>
                <span v-if="isFlagged('source', row.source) || isFlagged('target', row.target)" class="pass secret">sensitive</span>
                <span v-if="passes(rulesOf.get(row.source) ?? {}).length === 0" class="quiet">nothing</span>
              </button>
              <FlagBox
                v-else
                side="source"
                :name="row.source"
                :is-on="isFlagged('source', row.source)"
                :may-work="mayWork"
                @flag="emit('flag', { source: row.source }, $event)"
              />
            </td>
          </tr>
          <tr v-for="guess in guessesAt(row.source)" :key="guess.says" class="guesses">
            <td />
            <td colspan="5"><GuessLine :guess="guess" :may-work="mayWork" @take="(readAs, tokens) => emit('readAs', readAs, tokens)" /></td>
          </tr>
        </template>
        <tr
          v-for="name in leftOver"
          :key="`target ${name}`"
          :class="{ drop: over === name }"
          @dragover.prevent="over = name"
          @dragleave="over = null"
          @drop.prevent="drop(name)"
        >
          <td />
          <th scope="row" class="quiet">(not compared)</th>
          <td><div class="wire none" /></td>
          <td>
            <b>{{ name }}</b><span class="cell examples">{{ targetExamples.get(name) }}</span>
          </td>
          <td />
          <td><FlagBox side="target" :name="name" :is-on="isFlagged('target', name)" :may-work="mayWork" @flag="emit('flag', { target: name }, $event)" /></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.list {
  position: relative;
  background: var(--sheet);
  overflow: auto;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  table-layout: fixed;
}
thead th {
  font-size: 12px;
  color: var(--ink-3);
  font-weight: 600;
  block-size: 32px;
  position: sticky;
  inset-block-start: 0;
  background: var(--sheet);
  z-index: 1;
}
th,
td {
  text-align: start;
  padding: 5px 10px;
  border-block-end: 1px solid var(--line-2);
  font-weight: 550;
  overflow: hidden;
}
.key {
  inline-size: 56px;
}
.wires {
  inline-size: 64px;
}
.kind {
  inline-size: 96px;
}
.readas {
  font-weight: 400;
}
.inkey {
  background: #f3f5f7;
}
.looked {
  background: var(--mark);
}
td:has(.rules) {
  padding: 0;
}
.rules {
  inline-size: 100%;
  min-block-size: 44px;
  padding: 6px 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  border: 0;
  background: none;
  text-align: start;
  cursor: pointer;
  font-size: 12.5px;
}
.rules:hover {
  background: var(--floor);
}
.pass {
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--sheet);
  padding: 1px 6px;
}
.place {
  inline-size: 30px;
  block-size: 28px;
  border: 1px dashed var(--edge);
  border-radius: 4px;
  background: none;
  font-weight: 650;
  cursor: pointer;
}
.place[aria-pressed='true'] {
  border: 1px solid var(--ink);
  background: var(--ink);
  color: #fff;
}
.examples {
  font-size: 12px;
  color: var(--ink-3);
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  min-block-size: 17px;
  font-weight: 400;
}
.wire {
  block-size: 2px;
  background: linear-gradient(90deg, var(--src), var(--tgt));
}
.wire.none {
  background: none;
  border-block-start: 2px dotted var(--line);
}
.strong {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 16px;
  background: var(--mark);
  font-size: 13px;
}
.guesses td {
  padding: 0 10px 6px 0;
}
.drop {
  box-shadow: inset 0 0 0 2px var(--ink);
}
.agrees {
  display: block;
  font-size: 12px;
}
</style>
