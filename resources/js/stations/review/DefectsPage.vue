<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import CommittedInput from '@/parts/CommittedInput.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'
import CorrectionSets from '@/stations/review/CorrectionSets.vue'
import { useDefects } from '@/stations/review/useDefects'

/** What was ruled a defect: who mends it, what became of it in the data, and the corrections that are made of it. */
const props = defineProps<{ course: Schemas['Course'] }>()
type Defect = Schemas['Defects']['items'][number]
/** Of ticket, of who mends it, of its reason: whatever is typed. */
const wanted = ref('')
const { defects, sets, assign, correct } = useDefects(() => props.course.id, wanted)
const first = computed(() => defects.data.value?.pages[0])
const shown = computed(() => defects.data.value?.pages.flatMap(({ items }) => items) ?? [])
const hasNone = computed(() => shown.value.length === 0 && wanted.value === '')
const chosen = ref<number[]>([])
const isChosen = (act: number): boolean => chosen.value.includes(act)
/** Those that are chosen, or all that are shown. */
const toCorrect = computed(() => (chosen.value.length > 0 ? chosen.value.length : (first.value?.defects ?? 0) - (first.value?.gone ?? 0)))
function toggle(act: number): void {
  chosen.value = isChosen(act) ? chosen.value.filter((one) => one !== act) : [...chosen.value, act]
}
const STATES = { open: 'open', gone: 'gone', 'came-back': 'came back' } as const
const state = ({ state: is, since, open, findings }: Defect): string =>
  `${STATES[is]}${since === null ? '' : ` in tally ${since}`}${open > 0 && open < findings ? `, ${count(findings - open)} mended` : ''}`
const note = computed(() =>
  first.value === undefined || hasNone.value ? '' : `${counted(first.value.defects, 'defect')}, ${count(first.value.gone)} gone from the data`,
)
const take = (as: 'csv' | 'json-lines'): string => `/api/v1/datasets/${props.course.id}/defects/taken?as=${as}`
function set(defect: Defect, entry: { mends?: string; due?: string | null }): void {
  assign.mutate({ act: defect.act, mends: entry.mends ?? defect.mends, due: entry.due === undefined ? defect.due : entry.due })
}
const review = (defect: Defect) => ({ path: `/datasets/${props.course.id}/review`, query: { of: defect.of, act: defect.act } })
</script>

<template>
  <main class="station">
    <StationHead heading="Defects, and what mends them" :note="note">
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
      <el-button
        v-if="course.mayRule && course.seesDelivered"
        type="primary"
        :disabled="toCorrect === 0"
        :loading="correct.isPending.value"
        @click="correct.mutate(chosen)"
      >
        Make corrections of {{ counted(toCorrect, 'defect') }}
      </el-button>
    </StationHead>
    <div class="content">
      <ErrorNote :error="correct.error.value ?? assign.error.value" />
      <LoadState :is-loading="defects.isPending.value" :error="defects.error.value" what="The defects" @retry="defects.refetch()">
        <p v-if="first?.problem" class="warn" role="alert">{{ first.problem }}</p>
        <p v-else-if="first?.isWaiting" class="quiet" role="status">The defects are being looked for in each tally …</p>
        <p v-else-if="hasNone" class="quiet">Nothing was ruled a defect yet. Rule on findings in Review; what is a defect then stands here.</p>
        <template v-else>
          <div class="over">
            <CommittedInput
              :value="wanted"
              class="wanted"
              size="small"
              clearable
              aria-label="Ticket, person or words"
              placeholder="ticket, person or words"
              @commit="wanted = $event"
            />
            <span class="quiet small"
              >Download every finding of them as <a :href="take('csv')" download>CSV</a> or <a :href="take('json-lines')" download>JSON Lines</a>, with its
              identity.</span
            >
          </div>
          <div class="scroll">
            <table>
              <thead>
                <tr>
                  <th scope="col"><span class="unseen">choose</span></th>
                  <th scope="col">about</th>
                  <th scope="col" class="number">findings</th>
                  <th scope="col" class="number">there now</th>
                  <th scope="col">state by the data</th>
                  <th scope="col">why</th>
                  <th scope="col">who mends it</th>
                  <th scope="col">due</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="defect in shown" :key="defect.act">
                  <td>
                    <input
                      type="checkbox"
                      :checked="isChosen(defect.act)"
                      :disabled="defect.open === 0"
                      :aria-label="`Choose ruling ${defect.act}`"
                      @change="toggle(defect.act)"
                    />
                  </td>
                  <th scope="row">
                    <RouterLink :to="review(defect)">{{ defect.about }}</RouterLink>
                    <span class="quiet small">ruling {{ defect.act }}, in tally {{ defect.tally }}</span>
                  </th>
                  <td class="number">{{ count(defect.findings) }}</td>
                  <td class="number strong">{{ count(defect.open) }}</td>
                  <td :class="{ gone: defect.state === 'gone' }">{{ state(defect) }}</td>
                  <td>
                    {{ defect.reason }}<span v-if="defect.ticket"> ({{ defect.ticket }})</span>
                    <span class="quiet small">{{ defect.by }}, {{ moment(defect.at) }}</span>
                  </td>
                  <td>
                    <el-input
                      v-if="course.mayRule"
                      :model-value="defect.mends"
                      size="small"
                      maxlength="200"
                      placeholder="nobody yet"
                      :aria-label="`Who mends ruling ${defect.act}`"
                      @change="set(defect, { mends: $event })"
                    />
                    <template v-else>{{ defect.mends || 'nobody yet' }}</template>
                  </td>
                  <td>
                    <input
                      v-if="course.mayRule"
                      type="date"
                      :value="defect.due ?? ''"
                      :aria-label="`Due date of ruling ${defect.act}`"
                      @change="set(defect, { due: ($event.target as HTMLInputElement).value || null })"
                    />
                    <template v-else>{{ defect.due ?? '' }}</template>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <p v-if="defects.hasNextPage.value">
            <el-button size="small" :loading="defects.isFetchingNextPage.value" @click="defects.fetchNextPage()">Show further ones</el-button>
          </p>
          <p v-if="shown.length === 0" class="quiet">No defect has these words.</p>
        </template>
      </LoadState>
      <CorrectionSets v-if="sets.data.value && sets.data.value.items.length > 0" :sets="sets.data.value.items" :course="course" />
    </div>
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: var(--sheet);
  min-block-size: 0;
}
.content {
  overflow: auto;
  padding: 12px 24px;
}
.over {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
}
.wanted {
  max-inline-size: 280px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  margin-block-start: 8px;
}
th,
td {
  text-align: start;
  vertical-align: top;
  font-weight: 400;
  font-size: 13px;
  padding: 7px 14px 7px 0;
  border-block-end: 1px solid var(--line-2);
  overflow-wrap: anywhere;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
  overflow-wrap: normal;
}
.number {
  text-align: end;
}
.strong {
  font-weight: 600;
}
.small {
  display: block;
  font-size: 12px;
}
.gone {
  color: var(--ink-2);
}
.warn {
  background: var(--warn);
  padding: 6px 10px;
}
input[type='date'] {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 3px 6px;
}
</style>
