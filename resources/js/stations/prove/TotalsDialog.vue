<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Schemas } from '@/api/client'
import { amount, isApart, signed } from '@/format/amounts'
import { useTrial } from '@/stations/match/useTrial'
import { columnOf, periodsOf, type PeriodOfPair } from '@/stations/prove/periods'
import { type ControlTotal, isSame, measures, nameOf, pairName, proposals } from '@/stations/prove/totals'

/** Which totals the plan has: proposed ones with one press, others put together from the columns of both sides. They are taken by the next tally. */
const props = defineProps<{
  draft: Schemas['PlanDraft']
  columns: Record<'source' | 'target', readonly string[]>
  isSaving: boolean
  course: Schemas['Course']
}>()
const emit = defineEmits<{ update: [totals: readonly ControlTotal[], periods: readonly PeriodOfPair[]]; close: [] }>()

type Pair = Schemas['KeyColumn']
const blank = {
  measure: 'sum' as ControlTotal['measure'],
  pair: '',
  source: '',
  target: '',
  kind: 'number' as NonNullable<ControlTotal['kind']>,
  by: [] as string[],
  times: '',
  constant: '',
  along: [] as string[],
  over: 'prepared' as NonNullable<ControlTotal['over']>,
}
const entered = reactive({ ...blank })
const totals = computed(() => props.draft.totals ?? [])
const pairs = computed<Pair[]>(() => [...props.draft.key, ...props.draft.columnPairs].map(({ source, target }) => ({ source, target })))
const unpaired = computed<Pair[]>(() =>
  props.columns.source
    .filter((name) => props.columns.target.includes(name) && !pairs.value.some((pair) => pair.source === name || pair.target === name))
    .map((name) => ({ source: name, target: name })),
)
const all = computed(() => new Map([...pairs.value, ...unpaired.value].map((pair) => [pairName(pair), pair])))
/** Months and years of dates, which a step on each side makes when they are chosen. */
const ofDates = computed(() => new Map(periodsOf(props.draft).map((one) => [`${pairName(one)}, by ${one.period}`, one])))
const proposed = computed(() => proposals(props.draft))
const isOfAllRows = computed(() => isExtreme.value || entered.measure === 'distinct')
/** What stands in the list of columns for one number that all rows have. */
const CONSTANT = '\0constant'
const isNumber = computed(() => /^-?\d{1,30}(\.\d{1,30})?$/.test(entered.constant.trim()))
const times = computed<ControlTotal['times']>(() => {
  if (entered.measure !== 'sum' || entered.times === '') return undefined
  return entered.times === CONSTANT ? { constant: entered.constant.trim() } : all.value.get(entered.times)
})
const isExtreme = computed(() => entered.measure === 'least' || entered.measure === 'greatest')
const made = computed<ControlTotal | null>(() => {
  const column = all.value.get(entered.pair)
  if (entered.measure !== 'rows' && column === undefined) return null
  const by = entered.by.flatMap((name) => {
    const ofDate = ofDates.value.get(name)
    return ofDate === undefined
      ? (all.value.get(name) ?? [])
      : { source: columnOf(ofDate.source, ofDate.period), target: columnOf(ofDate.target, ofDate.period) }
  })
  const along = entered.along.flatMap((name) => all.value.get(name) ?? [])
  if (entered.measure === 'sum' && entered.times === CONSTANT && !isNumber.value) return null
  return {
    measure: entered.measure,
    ...(entered.measure === 'rows' ? {} : column),
    ...(isExtreme.value && entered.kind !== 'number' ? { kind: entered.kind } : {}),
    ...(by.length > 0 ? { by } : {}),
    ...(times.value === undefined ? {} : { times: times.value }),
    ...(by.length > 0 && along.length > 0 && entered.over !== 'delivered' ? { along } : {}),
    ...(entered.over !== 'prepared' && !isOfAllRows.value ? { over: entered.over } : {}),
  }
})
const trial = useTrial(
  () => props.course,
  () => props.draft,
  () => props.isSaving,
)
/** What a total came to on the rows of some keys, as soon as it is chosen: prepared rows, whatever it is over. */
function tried(place: number): string {
  const total = trial.isPlaceholderData.value ? undefined : trial.data.value?.result?.totals[place]
  if (total === undefined || (total.source === null && total.target === null)) return ''
  const both = `${amount(total.source)} and ${amount(total.target)}`
  return total.difference === null ? both : `${both}, ${isApart(total.difference) ? `a difference of ${signed(total.difference)}` : 'which agree'}`
}
const isThere = computed(() => made.value !== null && totals.value.some((total) => made.value !== null && isSame(total, made.value)))
function add(total: ControlTotal, periods: readonly PeriodOfPair[] = []): void {
  emit('update', [...totals.value, total], periods)
  Object.assign(entered, blank, { by: [], along: [] })
}
function addEntered(): void {
  if (made.value !== null)
    add(
      made.value,
      entered.by.flatMap((name) => ofDates.value.get(name) ?? []),
    )
}
</script>

<template>
  <el-dialog :model-value="true" title="Totals that both sides must have in common" width="min(720px, 95vw)" @close="emit('close')">
    <ul v-if="totals.length > 0" class="entries" aria-label="Totals of the plan">
      <li v-for="(total, place) in totals" :key="nameOf(total)">
        <span
          >{{ nameOf(total) }}
          <span v-if="tried(place)" class="quiet"
            >on the sample{{ totals[place]?.over === 'delivered' ? ', over its prepared rows' : '' }}:
            <span data-figure="trial/result/totals">{{ tried(place) }}</span></span
          ></span
        >
        <el-button
          size="small"
          :loading="isSaving"
          :aria-label="`Take away ${nameOf(total)}`"
          @click="
            emit(
              'update',
              totals.filter((one) => one !== total),
              [],
            )
          "
          >Take away</el-button
        >
      </li>
    </ul>
    <p v-else class="quiet">None yet.</p>
    <template v-if="proposed.length > 0">
      <h3>Proposed</h3>
      <p class="proposed">
        <el-button v-for="total in proposed.slice(0, 12)" :key="nameOf(total)" size="small" :loading="isSaving" @click="add(total)">{{
          nameOf(total)
        }}</el-button>
        <el-button
          v-if="proposed.length > 1 && proposed.length <= 12"
          size="small"
          type="primary"
          :loading="isSaving"
          @click="emit('update', [...totals, ...proposed], [])"
          >Take all of them</el-button
        >
      </p>
    </template>
    <h3>Another one</h3>
    <form @submit.prevent="addEntered()">
      <label for="total-measure">What</label>
      <select id="total-measure" v-model="entered.measure">
        <option v-for="(name, measure) in measures" :key="measure" :value="measure">{{ name }}</option>
      </select>
      <template v-if="entered.measure !== 'rows'">
        <label for="total-column">of</label>
        <select id="total-column" v-model="entered.pair">
          <option value="" disabled>choose a column</option>
          <option v-for="name in all.keys()" :key="name" :value="name">{{ name }}</option>
        </select>
      </template>
      <template v-if="entered.measure === 'sum'">
        <label for="total-times">times</label>
        <span class="times">
          <select id="total-times" v-model="entered.times">
            <option value="">nothing: the numbers themselves</option>
            <option v-for="name in all.keys()" :key="name" :value="name">{{ name }}</option>
            <option :value="CONSTANT">a number for all rows</option>
          </select>
          <el-input
            v-if="entered.times === CONSTANT"
            v-model="entered.constant"
            class="constant"
            placeholder="such as 12.50"
            aria-label="The number for all rows"
            :aria-invalid="entered.constant !== '' && !isNumber"
          />
        </span>
        <template v-if="entered.times !== '' && entered.times !== CONSTANT">
          <span />
          <p class="quiet">
            What one is worth may be looked up first: a step on <RouterLink :to="`/datasets/${course.id}/prepare`">Prepare</RouterLink> brings it in from a
            reference. Rows without it add nothing, and are counted.
          </p>
        </template>
      </template>
      <template v-if="isExtreme">
        <label for="total-kind">read as</label>
        <select id="total-kind" v-model="entered.kind">
          <option value="number">number</option>
          <option value="date">date</option>
          <option value="date-time">date and time</option>
          <option value="text">text</option>
        </select>
      </template>
      <label for="total-by">by</label>
      <el-select
        id="total-by"
        v-model="entered.by"
        multiple
        :multiple-limit="3"
        filterable
        placeholder="all rows together"
        aria-label="Columns whose values make a group"
      >
        <el-option v-for="name in [...all.keys(), ...ofDates.keys()]" :key="name" :value="name" :label="name" />
      </el-select>
      <template v-if="entered.by.length > 0 && entered.over !== 'delivered'">
        <label for="total-along">read along</label>
        <el-select
          id="total-along"
          v-model="entered.along"
          multiple
          :multiple-limit="3"
          filterable
          placeholder="nothing more"
          aria-label="Columns to be read beside each group"
        >
          <el-option v-for="name in all.keys()" :key="name" :value="name" :label="name" />
        </el-select>
      </template>
      <template v-if="!isOfAllRows">
        <label for="total-over">over</label>
        <select id="total-over" v-model="entered.over">
          <option value="prepared">prepared rows: when the steps have run</option>
          <option value="delivered">delivered rows: before any step, and what steps did is said</option>
          <option value="matched">rows that matched alone</option>
        </select>
      </template>
      <p v-if="isThere" class="quiet">The plan has this one already.</p>
      <el-button type="primary" native-type="submit" :loading="isSaving" :disabled="made === null || isThere">{{
        made === null ? 'Add it' : `Add: ${nameOf(made)}`
      }}</el-button>
    </form>
    <p class="quiet">Totals are taken with the next tally, of every row on both sides.</p>
  </el-dialog>
</template>

<style scoped>
h3 {
  font-size: 13px;
  margin: 14px 0 6px;
}
p {
  font-size: 13px;
  margin: 6px 0;
}
form p.quiet {
  margin: 0;
}
.times {
  display: flex;
  gap: 8px;
}
.times select {
  flex: 1;
}
.constant {
  inline-size: 140px;
}
.proposed {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
form {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 8px 14px;
  align-items: center;
}
form > p:not(.quiet),
form > :last-child {
  grid-column: 1 / -1;
  justify-self: start;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--sheet);
  min-inline-size: 0;
}
</style>
