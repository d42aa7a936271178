<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import { columnName, KINDS, scoreSaid } from '@/stations/review/near/nearKeys'
import { besideSaid, clear, divided, entryOf, foundSentence, worthALook, type Entry, type NearValue } from '@/stations/review/near/nearValues'

/** Values of a column that may mean the same on both sides: many may be like one, and what a person confirms is a crosswalk. */
const props = defineProps<{ course: Schemas['Course'] }>()
const PAGE = 50
/** Empty: the first that is paired. */
const column = ref('')
const kind = ref<Schemas['LikenessColumn']['kind'] | ''>('')
/** A reference and its column, whose entries take the place of the target's values; empty: the target's. */
const against = ref<string[]>([])
/** Columns that must have a value in common. */
const equal = ref<string[]>([])
/** Columns in which what stands beside the values counts too. */
const alike = ref<string[]>([])
const page = ref(1)
watch([column, kind, against, equal, alike], () => (page.value = 1))
watch([column, against], () => {
  kind.value = ''
  equal.value = []
  alike.value = []
})
const reference = computed(() => {
  const [name, of] = against.value
  return name === undefined || of === undefined ? null : { name, column: of }
})

const { data, error, isPending, refetch } = useQuery({
  queryKey: [
    'dataset',
    () => props.course.id,
    'near-values',
    () => props.course.source?.id,
    () => props.course.target?.id,
    column,
    kind,
    reference,
    equal,
    alike,
  ],
  queryFn: ({ signal }) =>
    answer(
      api.POST('/datasets/{dataset}/near-values', {
        params: { path: { dataset: props.course.id } },
        body: {
          column: column.value === '' ? null : column.value,
          kind: kind.value === '' ? null : kind.value,
          reference: reference.value,
          equal: equal.value,
          alike: alike.value,
        },
        signal,
      }),
    ),
  refetchInterval: ({ state }) => (state.data?.isWaiting === true ? 500 : false),
  placeholderData: keepPreviousData,
  retry: false,
})
/** Against a reference stands the column that is shown. */
watch(against, () => (column.value = column.value === '' ? (data.value?.pair.source ?? '') : column.value))
const found = computed(() => data.value?.found ?? null)
const done = computed(() => (data.value === undefined || data.value.total === 0 ? 0 : Math.floor((100 * data.value.done) / data.value.total)))
const lists = computed(() => (found.value === null ? null : divided(found.value, data.value?.entries ?? [])))
const pages = computed(() => Math.max(1, Math.ceil((lists.value?.open.length ?? 0) / PAGE)))
const shown = computed(() => (lists.value?.open ?? []).slice((page.value - 1) * PAGE, page.value * PAGE))
const together = computed(() => clear(shown.value))
const target = computed(() =>
  data.value?.pair.reference === undefined
    ? `the ${props.course.migration.targetLabel.toLowerCase()}`
    : `${data.value.pair.reference}, ${data.value.pair.target}`,
)
const namesOf = (of: string): string[] => data.value?.references.find(({ name }) => name === of)?.columns ?? []
const client = useQueryClient()
/** What was decided last, and can be taken back. */
const last = ref<Entry[]>([])
const ruling = useMutation({
  mutationFn: ({ entries, isConfirmed }: { entries: Entry[]; isConfirmed: boolean }) =>
    answer(
      api.POST('/datasets/{dataset}/near-values/rulings', {
        params: { path: { dataset: props.course.id } },
        body: {
          column: data.value?.pair.source ?? '',
          reference: reference.value,
          entries,
          decision: isConfirmed ? 'confirmed' : 'open',
          seenDraft: data.value?.draft ?? 0,
        },
      }),
    ),
  onSuccess: (_, { entries, isConfirmed }) => (last.value = isConfirmed ? entries : []),
  onSettled: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
const confirm = (values: readonly NearValue[], place = 0): void =>
  ruling.mutate({ entries: values.flatMap((value) => entryOf(value, place)), isConfirmed: true })
</script>

<template>
  <main class="station">
    <StationHead heading="Values that may mean the same" :words="['crosswalk']" note="what is confirmed becomes a crosswalk of the plan">
      <RouterLink class="button" :to="`/datasets/${course.id}/match`">The plan</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <LoadState :is-loading="isPending" :error="error" what="The look at values" @retry="refetch()">
      <div class="asked">
        <label
          ><span>Values of</span>
          <el-select :model-value="data?.pair.source" filterable aria-label="Column whose values are looked at" @update:model-value="column = $event">
            <el-option v-for="pair in data?.pairs" :key="pair.source" :value="pair.source" :label="columnName(pair)"
              >{{ columnName(pair) }} <span class="quiet">{{ pair.differing > 0 ? counted(pair.differing, 'difference') : '' }}</span></el-option
            >
          </el-select></label
        >
        <label
          ><span>against</span>
          <el-select
            :model-value="against[0] ?? ''"
            filterable
            aria-label="What values are held against"
            :empty-values="[null, undefined]"
            @update:model-value="against = $event === '' ? [] : [$event, namesOf($event)[0] ?? '']"
          >
            <el-option value="" :label="`the ${course.migration.targetLabel.toLowerCase()}`" />
            <el-option v-for="one in data?.references" :key="one.name" :value="one.name" :label="one.name" /> </el-select
        ></label>
        <label v-if="reference !== null"
          ><span>its column</span>
          <el-select :model-value="against[1]" filterable aria-label="Column of the reference" @update:model-value="against = [against[0] ?? '', $event]">
            <el-option v-for="name in namesOf(reference.name)" :key="name" :value="name" :label="name" /> </el-select
        ></label>
        <label v-if="(data?.besides.length ?? 0) > 0"
          ><span>where these are equal</span>
          <el-select v-model="equal" multiple filterable collapse-tags aria-label="Columns that must be equal" placeholder="nothing">
            <el-option v-for="pair in data?.besides" :key="pair.source" :value="pair.source" :label="columnName(pair)" /> </el-select
        ></label>
        <label v-if="(data?.besides.length ?? 0) > 0"
          ><span>and these may be alike</span>
          <el-select
            v-model="alike"
            multiple
            filterable
            collapse-tags
            :multiple-limit="5"
            aria-label="Columns that may be alike beside the values"
            placeholder="nothing"
          >
            <el-option
              v-for="pair in (data?.besides ?? []).filter(({ source }) => !equal.includes(source))"
              :key="pair.source"
              :value="pair.source"
              :label="columnName(pair)"
            /> </el-select
        ></label>
        <label
          ><span>alike as</span>
          <el-select :model-value="kind === '' ? found?.kind : kind" aria-label="How values are alike" @update:model-value="kind = $event">
            <el-option v-for="known in KINDS" :key="known.kind" :value="known.kind" :label="known.name"
              >{{ known.name }} <span class="quiet">{{ known.help }}</span></el-option
            >
          </el-select></label
        >
      </div>
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet waits" role="status">The values of both sides are being read: {{ done }} % …</p>
      <ErrorNote v-if="ruling.error.value" :error="ruling.error.value" />
      <p v-else-if="last.length > 0" class="done" role="status">
        {{ counted(last.length, 'entry', 'entries') }} more in the crosswalk of {{ data?.pair.source }}: the next tally takes them for the same.
        <el-button size="small" @click="ruling.mutate({ entries: last, isConfirmed: false })">Undo</el-button>
      </p>
      <template v-if="found && lists && !data?.isWaiting">
        <p class="said">
          {{ foundSentence(found) }}
          <template v-if="data?.pair.isOfKey"> A column of the key has its crosswalk as a step of the source.</template>
          <template v-else-if="reference !== null"> What is confirmed is a step of the source, before the one that looks up by it.</template>
        </p>
        <p v-if="lists.open.length === 0" class="quiet waits">
          {{ lists.known.size > 0 ? 'All that are like another one are in the crosswalk.' : 'No value is like one of the other side.' }}
        </p>
        <section v-else class="sheet" aria-label="Values that are like another">
          <p class="over">
            <span>{{ counted(lists.open.length, 'value') }} open, those in most rows first</span>
            <el-button v-if="course.mayWork && together.length > 1" size="small" :disabled="ruling.isPending.value" @click="confirm(together)"
              >Confirm the {{ together.length }} shown that are very alike and have no rival</el-button
            >
            <el-pagination v-if="pages > 1" v-model:current-page="page" small layout="prev, pager, next" :page-count="pages" />
          </p>
          <table class="figures">
            <thead>
              <tr>
                <th scope="col">value</th>
                <th scope="col" class="number">rows</th>
                <th scope="col">likest in {{ target }}</th>
                <th scope="col" class="number">rows</th>
                <th scope="col" class="number">score</th>
                <th scope="col">why</th>
                <td></td>
              </tr>
            </thead>
            <tbody v-for="value in shown" :key="value.value">
              <tr v-for="(candidate, place) in worthALook(value)" :key="candidate.value" :class="{ other: place > 0 }">
                <td>
                  <template v-if="place === 0"
                    ><CellValue :stretches="[{ text: value.value, differs: false }]" side="source" />
                    <span v-if="value.beside.length > 0" class="beside">{{ besideSaid(value.beside) }}</span></template
                  >
                </td>
                <td class="number">{{ place === 0 ? count(value.rows) : '' }}</td>
                <td>
                  <CellValue :stretches="[{ text: candidate.value, differs: false }]" side="target" />
                  <span v-if="candidate.beside.length > 0" class="beside">{{ besideSaid(candidate.beside) }}</span>
                </td>
                <td class="number">{{ count(candidate.rows) }}</td>
                <td class="number">{{ scoreSaid(candidate.score) }}</td>
                <td>
                  {{ candidate.reason }}<span v-if="value.hasRival && place < 2" class="rival">{{ place === 0 ? 'another is as alike' : 'rival' }}</span>
                </td>
                <td class="act">
                  <el-button
                    v-if="course.mayWork"
                    size="small"
                    :disabled="ruling.isPending.value"
                    :aria-label="`Confirm: ${value.value} is ${candidate.value}`"
                    @click="confirm([value], place)"
                    >Confirm</el-button
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-if="(data?.entries.length ?? 0) > 0" class="sheet" aria-label="Crosswalk">
          <h2>In the crosswalk of {{ data?.pair.source }}</h2>
          <ul>
            <li v-for="entry in data?.entries" :key="entry.source">
              <CellValue :stretches="[{ text: entry.source, differs: false }]" side="source" /> →
              <CellValue :stretches="[{ text: entry.target, differs: false }]" side="target" />
              <button
                v-if="course.mayWork"
                type="button"
                class="plain"
                :aria-label="`take back: ${entry.source}`"
                @click="ruling.mutate({ entries: [entry], isConfirmed: false })"
              >
                take back
              </button>
            </li>
          </ul>
        </section>
      </template>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
<style scoped>
.beside {
  display: block;
  color: var(--ink-2);
  font-size: 12px;
  overflow-wrap: anywhere;
}
.asked label {
  flex: 0 1 280px;
}
.sheet {
  padding: 6px 16px;
}
table {
  font-size: 13px;
}
td:first-child,
td:nth-child(3) {
  inline-size: 26%;
}
td:nth-child(6) {
  inline-size: 24%;
}
td :deep(.cell) {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.number {
  text-align: end;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.other {
  color: var(--ink-2);
  font-size: 12.5px;
}
.rival {
  background: var(--warn);
  margin-inline-start: 8px;
  padding: 1px 6px;
}
.act {
  text-align: end;
}
h2 {
  font-size: 14px;
  margin: 6px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 13px;
  columns: 2 360px;
}
li {
  break-inside: avoid;
  padding-block: 2px;
  overflow-wrap: anywhere;
}
li button {
  text-decoration: underline;
  font-size: 12px;
  min-block-size: 24px;
  margin-inline-start: 8px;
}
</style>
