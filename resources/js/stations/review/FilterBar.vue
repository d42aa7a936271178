<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import CellValue from '@/parts/CellValue.vue'
import CommittedInput from '@/parts/CommittedInput.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import { useGroupName } from '@/stations/review/useGroupName'
import { type Filter, rulingName, said, sentenceOf, termsSaid } from '@/stations/review/filter'

/** Narrows the list down; filters that are of use again get a name, for everybody. */
const props = defineProps<{ tally: Schemas['Tally']; masked: readonly string[]; filter: Filter; mayKeep: boolean; columns: readonly string[] }>()
const emit = defineEmits<{ narrow: [terms: Filter]; widen: [terms: readonly (keyof Filter)[]]; set: [filter: Filter] }>()

/** Names of columns that are shown beside each finding. */
const beside = defineModel<string[]>('beside', { required: true })
const saysWhy = defineModel<boolean>('saysWhy', { required: true })
const MOST_BESIDE = 4

const rulings = ['open', 'expected', 'defect', 'ask', 'reopened'] as const
const group = useGroupName(
  () => props.tally.id,
  () => props.filter,
)
const terms = computed(() => termsSaid(props.filter, props.tally, group.value))
const keyColumn = ref(props.filter.keyColumn ?? 1)
watch(
  () => props.filter.keyColumn,
  (place) => {
    if (place !== undefined) keyColumn.value = place
  },
)
const isKeyMasked = computed(() => props.masked.includes(props.tally.keyColumns[keyColumn.value - 1] ?? ''))
function narrowKey(key: string): void {
  if (key === '') emit('widen', ['key', 'keyColumn'])
  else emit('narrow', { key, keyColumn: keyColumn.value })
}
function ofColumn(place: number): void {
  keyColumn.value = place
  if (props.filter.key !== undefined) emit('narrow', { keyColumn: place })
}

const queries = useQueryClient()
const dataset = computed(() => props.tally.datasetId)
const kept = useQuery({
  queryKey: ['dataset', dataset, 'kept-filters'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/kept-filters', { params: { path: { dataset: dataset.value } } })),
})
const refresh = () => queries.invalidateQueries({ queryKey: ['dataset', dataset.value, 'kept-filters'] })
const isKeeping = ref(false)
const name = ref('')
const keep = useMutation({
  mutationFn: () =>
    answer(api.POST('/datasets/{dataset}/kept-filters', { params: { path: { dataset: dataset.value } }, body: { name: name.value, filter: props.filter } })),
  onSuccess: () => {
    isKeeping.value = false
    name.value = ''
    return refresh()
  },
})
const remove = useMutation({
  mutationFn: (filter: number) => answer(api.DELETE('/kept-filters/{filter}', { params: { path: { filter } } })),
  onSuccess: refresh,
})
const isSaying = computed(() => Object.keys(said(props.filter)).length > 0)
</script>

<template>
  <section class="bar" aria-label="Filter">
    <div class="fields">
      <el-select
        :model-value="filter.ruling"
        :persistent="false"
        placeholder="Any ruling"
        clearable
        size="small"
        class="ruling"
        aria-label="Ruling"
        @change="$event ? emit('narrow', { ruling: $event }) : emit('widen', ['ruling'])"
      >
        <el-option v-for="ruling in rulings" :key="ruling" :value="ruling" :label="rulingName(ruling)" />
      </el-select>
      <el-select :model-value="keyColumn" :persistent="false" size="small" class="column" aria-label="Column of the key" @change="ofColumn">
        <el-option v-for="(column, place) in tally.keyColumns" :key="column" :value="place + 1" :label="column" />
      </el-select>
      <CommittedInput
        :value="filter.key ?? ''"
        size="small"
        class="key"
        :disabled="isKeyMasked"
        :placeholder="isKeyMasked ? 'masked' : 'is exactly'"
        :aria-label="`${tally.keyColumns[keyColumn - 1]} is exactly`"
        @commit="narrowKey"
      />
      <CommittedInput
        :value="filter.text ?? ''"
        size="small"
        class="text"
        placeholder="Any text"
        aria-label="Text in key or values"
        @commit="$event === '' ? emit('widen', ['text']) : emit('narrow', { text: $event })"
      />
      <el-select
        v-model="beside"
        multiple
        :persistent="false"
        filterable
        :multiple-limit="MOST_BESIDE"
        size="small"
        class="beside"
        placeholder="More columns"
        aria-label="Columns beside each finding"
      >
        <template #header><el-checkbox v-model="saysWhy" size="small">why, ticket and person of the ruling</el-checkbox></template>
        <template #tag
          ><span v-if="beside.length > 0" class="more">{{ beside.length }} more</span></template
        >
        <el-option v-for="column in columns" :key="column" :value="column" :label="column" />
      </el-select>
      <el-button size="small" :aria-expanded="isKeeping" @click="isKeeping = !isKeeping"
        >Saved filters{{ kept.data.value?.items.length ? ` (${kept.data.value.items.length})` : '' }}</el-button
      >
    </div>
    <div v-if="terms.length > 0" class="terms">
      <span v-for="term in terms" :key="term.words" class="term">
        {{ term.words }}
        <CellValue v-if="term.value !== undefined" :stretches="[{ text: term.value.slice(0, 60), differs: false }]" :side="term.side" />
        <button type="button" class="plain" :aria-label="`Without: ${term.words}`" @click="emit('widen', term.terms)">×</button>
      </span>
      <button
        type="button"
        class="plain clear"
        @click="
          emit(
            'widen',
            terms.flatMap((term) => term.terms),
          )
        "
      >
        Clear
      </button>
    </div>
    <div v-if="isKeeping" class="kept">
      <p v-if="kept.data.value?.items.length === 0" class="quiet">
        No filter is saved yet. A saved filter has a name, and everybody of the migration finds it here.
      </p>
      <ul>
        <li v-for="one in kept.data.value?.items" :key="one.id">
          <button type="button" class="plain" @click="emit('set', one.filter)">{{ one.name }}</button>
          <span class="quiet">{{ sentenceOf(one.filter, tally) }}; {{ one.by }}</span>
          <el-button v-if="mayKeep" link size="small" :aria-label="`Remove ${one.name}`" @click="remove.mutate(one.id)">Remove</el-button>
        </li>
      </ul>
      <form v-if="mayKeep && isSaying" @submit.prevent="keep.mutate()">
        <el-input v-model="name" size="small" placeholder="Name of this filter" aria-label="Name of this filter" maxlength="80" />
        <el-button size="small" native-type="submit" :disabled="name.trim() === ''" :loading="keep.isPending.value">Save this filter</el-button>
      </form>
      <ErrorNote :error="keep.error.value ?? remove.error.value ?? kept.error.value" />
    </div>
  </section>
</template>

<style scoped>
.bar {
  background: var(--sheet);
  border-block-end: 1px solid var(--line);
  padding: 5px 14px;
  display: grid;
  gap: 5px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.ruling {
  flex: 0 0 100px;
}
.column {
  flex: 0 1 88px;
}
.key {
  flex: 0 1 80px;
}
.text {
  flex: 1 1 84px;
}
.more {
  white-space: nowrap;
}
.beside {
  flex: 0 1 90px;
}
.fields > * {
  min-inline-size: 64px;
}
.terms {
  display: flex;
  gap: 4px 8px;
  flex-wrap: wrap;
  font-size: 12.5px;
}
.term {
  border: 1px solid var(--edge);
  border-radius: 3px;
  padding: 0 3px 0 7px;
  display: inline-flex;
  gap: 5px;
  align-items: center;
  max-inline-size: 100%;
  overflow: hidden;
}
.term button {
  text-decoration: none;
  padding: 1px 6px;
}
.kept {
  font-size: 13px;
  display: grid;
  gap: 6px;
}
.kept ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.kept li {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.kept li span {
  flex: 1;
}
.kept p {
  margin: 0;
}
form {
  display: flex;
  gap: 8px;
}
</style>
