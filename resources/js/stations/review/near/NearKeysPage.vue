<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { usePageKeys } from '@/composables/useShortcuts'
import { count, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import AlikeDialog from '@/stations/review/near/AlikeDialog.vue'
import NearColumns from '@/stations/review/near/NearColumns.vue'
import NearCurve from '@/stations/review/near/NearCurve.vue'
import NearPairRows from '@/stations/review/near/NearPairRows.vue'
import { type Column, columnName, equivalentsOf } from '@/stations/review/near/nearKeys'

/** Missing and extra rows that are likely to be the same: proposed one to one, and ruled on by a person. */
const props = defineProps<{ course: Schemas['Course'] }>()
const PAGE = 50
const STATES = ['open', 'confirmed', 'refused'] as const
const ORDERS = { score: 'most alike first', margin: 'most doubtful first', source: 'as in the source' } as const
/** What a pair keeps to its rivals where many are confirmed at once. */
const MARGIN = 0.05

const tally = computed(() => props.course.tally?.id ?? 0)
/** None: those that are proposed. */
const columns = ref<Column[]>([])
const cut = ref<number | null>(null)
const state = ref<(typeof STATES)[number]>('open')
const order = ref<keyof typeof ORDERS>('score')
const page = ref(1)
watch([columns, cut, state, order], () => (page.value = 1))

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'near-keys', tally, columns, cut, state, order, page],
  queryFn: ({ signal }) =>
    answer(
      api.POST('/tallies/{tally}/near-keys', {
        params: { path: { tally: tally.value } },
        body: { columns: columns.value, score: cut.value, margin: MARGIN, state: state.value, order: order.value, from: (page.value - 1) * PAGE + 1 },
        signal,
      }),
    ),
  refetchInterval: ({ state: { data: known } }) => (known?.isWaiting === true ? 500 : false),
  placeholderData: keepPreviousData,
  enabled: () => props.course.tally !== null,
  retry: false,
})
const found = computed(() => data.value?.found ?? null)
const used = computed(() => data.value?.columns ?? [])
const score = computed(() => cut.value ?? found.value?.cut ?? 0.8)
const done = computed(() => (data.value === undefined || data.value.total === 0 ? 0 : Math.floor((100 * data.value.done) / data.value.total)))
const mayRule = computed(() => props.course.mayWork)
const beyond = computed(() => {
  if (found.value === null) return ''
  const { all, looked } = found.value
  const left = [
    all.source > looked.source ? `${count(all.source - looked.source)} missing` : '',
    all.target > looked.target ? `${count(all.target - looked.target)} extra` : '',
  ].filter((part) => part !== '')
  return left.length === 0 ? '' : `${left.join(' and ')} rows beyond the first ${count(Math.max(looked.source, looked.target))} are not looked at.`
})
const review = computed(() => `/datasets/${props.course.id}/review?tally=${tally.value}&of=rows&class=missing`)

const client = useQueryClient()
/** What rows that are alike are looked for: to be joined, or because two things should not be alike. */
const purpose = ref<'same' | 'apart'>('same')
const isAudit = computed(() => purpose.value === 'apart')
/** The pair that is ruled on as one that should not be. */
const alike = ref<Schemas['NearPair'] | null>(null)
function ruled(): void {
  alike.value = null
  void client.invalidateQueries({ queryKey: ['dataset', props.course.id] })
}
/** What was decided last, and can be taken back. */
const last = ref<{ decision: 'confirmed' | 'refused'; pairs: number[][] } | null>(null)
const isAsking = ref(false)
const ruling = useMutation({
  mutationFn: (act: { decision: 'confirmed' | 'refused' | 'open'; pairs: number[][] | null }) =>
    answer(
      api.POST('/tallies/{tally}/near-keys/rulings', {
        params: { path: { tally: tally.value } },
        body: { columns: used.value, ...act, score: score.value, margin: MARGIN, seenDraft: data.value?.draft ?? 0 },
      }),
    ),
  onSuccess: ({ pairs }, { decision }) => {
    last.value = decision === 'open' ? null : { decision, pairs }
    isAsking.value = false
  },
  onSettled: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
const list = ref<HTMLElement | null>(null)
/** The pair that letters act on, by its place in the list. */
const current = ref(0)
watch(
  () => found.value?.items.length,
  (length) => (current.value = Math.max(0, Math.min(current.value, (length ?? 1) - 1))),
)
function goTo(place: number): void {
  current.value = Math.max(0, Math.min(place, (found.value?.items.length ?? 1) - 1))
  const pair = list.value?.querySelectorAll<HTMLElement>('tbody')[current.value]
  pair?.querySelector<HTMLElement>('.acts button')?.focus({ preventScroll: true })
  pair?.scrollIntoView({ block: 'nearest' })
}
/** Whoever decides goes on with the pair that takes the place of the one that was decided. */
async function rule(decision: 'confirmed' | 'refused' | 'open', pair: number[]): Promise<void> {
  const place = found.value?.items.findIndex(({ pair: [source] }) => source === pair[0]) ?? 0
  await ruling.mutateAsync({ decision, pairs: [pair] }).catch(() => undefined)
  await nextTick()
  goTo(place)
}
function ruleOnCurrent(decision: 'confirmed' | 'refused'): void {
  const pair = found.value?.items[current.value]
  if (pair?.state === 'open' && !isAudit.value && mayRule.value && !ruling.isPending.value && !isAsking.value) void rule(decision, pair.pair)
}
function undo(): void {
  if (last.value !== null && !ruling.isPending.value) ruling.mutate({ decision: 'open', pairs: last.value.pairs })
}
usePageKeys({
  n: () => goTo(current.value + 1),
  ArrowDown: () => goTo(current.value + 1),
  p: () => goTo(current.value - 1),
  ArrowUp: () => goTo(current.value - 1),
  c: () => ruleOnCurrent('confirmed'),
  r: () => ruleOnCurrent('refused'),
  u: undo,
})
const cancel = useMutation({
  mutationFn: () =>
    answer(
      api.POST('/tallies/{tally}/near-keys/cancellation', {
        params: { path: { tally: tally.value } },
        body: { columns: used.value },
      }),
    ),
  onSettled: () => refetch(),
})
const again = useMutation({
  mutationFn: () => answer(api.POST('/tallies/{tally}/near-keys', { params: { path: { tally: tally.value } }, body: { columns: columns.value, again: true } })),
  onSettled: () => refetch(),
})
const said = computed(() =>
  last.value === null
    ? ''
    : last.value.decision === 'confirmed'
      ? `${counted(last.value.pairs.length, 'bridge')} more in the draft: the next tally joins these rows.`
      : `${counted(last.value.pairs.length, 'pair')} refused, and not proposed again.`,
)
const wording = useMutation({
  mutationFn: (text: string) =>
    answer(
      api.PUT('/tallies/{tally}/near-keys/equivalents', {
        params: { path: { tally: tally.value } },
        body: { equivalents: equivalentsOf(text), seenDraft: data.value?.draft ?? 0 },
      }),
    ),
  onSettled: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
/** With other columns, kinds or weights; words that mean the same are kept in the plan. */
async function lookAgain(chosen: Column[], text: string | null): Promise<void> {
  if (text !== null) await wording.mutateAsync(text).catch(() => undefined)
  columns.value = chosen.map((column) => ({ ...column }))
  cut.value = null
}
const pages = computed(() => Math.max(1, Math.ceil((found.value?.total ?? 0) / PAGE)))
</script>

<template>
  <main class="station">
    <StationHead heading="Who is who, where no key says so" :words="['bridge']" note="pairs become bridges of the plan">
      <RouterLink class="button" :to="`/datasets/${course.id}/bridges`">Keys that bridges join</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <div v-if="course.tally === null" class="empty">
      <h2>Nothing is tallied yet</h2>
      <p>Rows that meet no other are known after a tally. <RouterLink :to="`/datasets/${course.id}/match`">Go to Match</RouterLink></p>
    </div>
    <LoadState v-else :is-loading="isPending" :error="error" what="The look for near keys" @retry="refetch()">
      <p v-if="data?.problem" class="warn" role="alert">{{ data.problem }}</p>
      <p v-else-if="data?.isWaiting" class="quiet waits" role="status">
        Each missing row is being held against the extra rows: {{ done }} % … <el-button v-if="mayRule" size="small" @click="cancel.mutate()">Cancel</el-button>
      </p>
      <p v-else-if="data?.isCancelled" class="quiet waits">
        Somebody gave up looking for these rows. <el-button size="small" @click="again.mutate()">Look again</el-button>
      </p>
      <p v-else-if="data && !found" class="quiet waits">No column of these rows tells one from another, so none of them can be said to be alike.</p>
      <div v-if="found && data" class="panes">
        <aside>
          <NearCurve :found="found" :cut="score" @cut="cut = $event" />
          <NearColumns :key="JSON.stringify([data.columns, data.equivalents])" :look="data" :may-work="mayRule" @look="lookAgain" />
        </aside>
        <section class="pairs" aria-label="Pairs">
          <p class="over">
            <span
              ><b>{{ counted(found.counts.pairs, 'pair') }}</b> of {{ counted(found.all.source, 'missing row') }} and
              {{ counted(found.all.target, 'extra row') }}</span
            >
            <el-select v-model="purpose" size="small" aria-label="What alike rows are" class="purpose">
              <el-option value="same" label="alike: the same row" />
              <el-option value="apart" label="alike: two that should not be" />
            </el-select>
            <span class="choice" role="group" aria-label="Which pairs">
              <button v-for="one in STATES" :key="one" type="button" class="plain" :aria-pressed="state === one" @click="state = one">
                {{ one }} {{ count(found.counts[one]) }}
              </button>
            </span>
            <el-select v-model="order" size="small" aria-label="Order of the pairs" class="order">
              <el-option v-for="(name, id) in ORDERS" :key="id" :value="id" :label="name" />
            </el-select>
            <el-button v-if="mayRule && !isAudit && found.counts.clear > 1" size="small" @click="isAsking = true"
              >Confirm the {{ count(found.counts.clear) }} without a rival …</el-button
            >
          </p>
          <p v-if="said" class="done" role="status">
            {{ said }}
            <el-button v-if="last" size="small" :loading="ruling.isPending.value" @click="undo">Undo</el-button>
          </p>
          <ErrorNote :error="ruling.error.value ?? wording.error.value" />
          <p v-if="beyond" class="warn">{{ beyond }}</p>
          <p v-if="found.items.length === 0" class="quiet waits">
            {{ state === 'open' ? 'No pair of this score is left to be decided. A lower score has more candidates, and more that are wrong.' : 'None yet.' }}
          </p>
          <div v-else ref="list" class="table" tabindex="0" role="region" aria-label="Pairs, both rows of each">
            <table>
              <thead>
                <tr>
                  <th scope="col" class="number">score</th>
                  <th scope="col">key</th>
                  <th v-for="column in used" :key="column.source" scope="col">{{ columnName(column) }}</th>
                  <th scope="col"><span class="unseen">decision</span></th>
                </tr>
              </thead>
              <NearPairRows
                v-for="(pair, place) in found.items"
                :key="pair.pair.join()"
                :class="{ current: place === current }"
                :pair="pair"
                :columns="used"
                :may-rule="isAudit ? course.mayRule : mayRule && !ruling.isPending.value"
                :review="review"
                :is-audit="isAudit"
                @focusin="current = place"
                @rule="rule"
                @find="alike = $event"
              />
            </table>
          </div>
          <p v-if="pages > 1" class="over">
            <el-button size="small" :disabled="page === 1" @click="page--">Before</el-button>
            <span data-ordinal>page {{ page }} of {{ pages }}</span>
            <el-button size="small" :disabled="page === pages" @click="page++">Further</el-button>
          </p>
        </section>
      </div>
      <AlikeDialog v-if="alike" :tally="tally" :pair="alike" @close="alike = null" @ruled="ruled" />
      <el-dialog v-if="found" v-model="isAsking" width="min(1000px, 94vw)" :title="`Confirm ${counted(found.counts.clear, 'pair')} together?`">
        <p>
          All have a score of <span data-ordinal>{{ score.toFixed(2) }}</span> or more, and neither row is nearly as like another. These
          {{ count(found.sample.length) }} were drawn from them: if one of them is wrong, cancel and set the score higher.
        </p>
        <div class="table">
          <table>
            <NearPairRows v-for="pair in found.sample" :key="pair.pair.join()" :pair="pair" :columns="used" :may-rule="false" :review="review" is-sample />
          </table>
        </div>
        <template #footer>
          <el-button @click="isAsking = false">Cancel</el-button>
          <el-button type="primary" :loading="ruling.isPending.value" @click="ruling.mutate({ decision: 'confirmed', pairs: null })"
            >I have looked: confirm all {{ count(found.counts.clear) }}</el-button
          >
        </template>
      </el-dialog>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
<style scoped>
aside {
  position: sticky;
  inset-block-start: 0;
}
.pairs {
  background: var(--sheet);
  border-inline-start: 1px solid var(--line);
  min-inline-size: 0;
  min-block-size: 100%;
}
.choice {
  display: flex;
  gap: 2px;
}
.choice button {
  padding: 3px 9px;
  min-block-size: 24px;
}
.choice button[aria-pressed='true'] {
  background: var(--paper);
  box-shadow: inset 0 -3px 0 var(--ink);
}
.purpose,
.order {
  inline-size: 180px;
}
.table {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  font-size: 13px;
  min-inline-size: 100%;
}
th {
  text-align: start;
  font-size: 12px;
  color: var(--ink-2);
  padding: 4px 8px;
}
tbody.current {
  box-shadow: inset 3px 0 0 var(--ink);
}
.empty {
  padding: 24px 16px;
}
@media (width < 900px) {
  aside {
    position: static;
  }
}
</style>
