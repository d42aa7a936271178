<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'
import { figure, figures, named, type Said } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import StationHead from '@/parts/StationHead.vue'
import ProofEntry from '@/stations/prove/ProofEntry.vue'
import ProofPanes from '@/stations/prove/ProofPanes.vue'
import RecordLines from '@/stations/prove/RecordLines.vue'
import { isSameRule, isWorse, LISTS, lengthOf, listsOf, sentenceOf } from '@/stations/prove/requiredRecords'
import RequiredRecordsDialog from '@/stations/prove/RequiredRecordsDialog.vue'
import { useRequiredRecords } from '@/stations/prove/useRequiredRecords'

/** Values that must have a record in another dataset: on each side in its own world, and what the move lost. */
const props = defineProps<{ course: Schemas['Course'] }>()
const id = computed(() => props.course.tally?.id ?? 0)
const { data, error, isPending, refetch } = useRequiredRecords(() => id.value)
const { draft, plan, saving, setRecords } = useDraft(() => props.course)
const isChoosing = ref(false)
const chosen = ref<number | null>(Number(useRoute().query.rule ?? 0) || null)
const check = computed(() => data.value?.items.find(({ number }) => number === chosen.value) ?? data.value?.items[0])
const lists = computed(() => (check.value === undefined ? [] : listsOf(check.value)))
const list = ref<Schemas['RecordList']>('lost')
watch(lists, ([first]) => (list.value = first ?? 'lost'), { immediate: true })
/** Where the engine has it, and the answer. */
const path = (one: Schemas['RecordCheck']): string => named('records', one.number - 1)
const item = computed(() => (check.value === undefined ? '' : path(check.value)))
const before = computed(() => named('references', 'items', check.value === undefined ? 0 : (data.value?.items.indexOf(check.value) ?? 0), 'before'))
const waiting = computed(() => (draft.value?.records ?? []).filter((rule) => !(data.value?.items ?? []).some((one) => isSameRule(one.rule, rule))))
const columns = computed(() => ({
  source: (plan.data.value?.source?.columns ?? []).map(({ name }) => name),
  target: (plan.data.value?.target?.columns ?? []).map(({ name }) => name),
}))
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
/** Whose delivery the records of a side were read from. */
function readFrom(side: 'source' | 'target'): string {
  const { source, target } = check.value?.deliveries ?? { source: null, target: null }
  const [own, other] = side === 'source' ? [source, target] : [target, source]
  if (own !== null) return `delivery ${own}`
  return other === null ? 'nothing' : `delivery ${other} of the other side`
}
const FIGURES = ['rows', 'blank', 'found', 'without', 'valuesWithout', 'records', 'unreferenced'] as const
const WORSE = ['lost', 'own', 'untold'] as const
const lost = (one: Schemas['RecordCheck']): Said => {
  if (!isWorse(one)) {
    const { values } = one.kinds.inherited
    return values > 0 ? [figure(`${path(one)}/kinds/inherited/values`, values), ' inherited'] : ['all have one']
  }
  const sum = WORSE.reduce((values, kind) => values + one.kinds[kind].values, 0)
  return figures(WORSE.map((kind) => `${path(one)}/kinds/${kind}/values`).join(' + '), sum, 'value without one', 'values without one')
}
const lengthName = (one: Schemas['RecordList']): string => {
  const [kind = '', side] = one.split(' ')
  return side === undefined ? `${item.value}/kinds/${kind}/values` : `${item.value}/${side}/unreferenced`
}
</script>

<template>
  <main class="station">
    <StationHead heading="What must have a record, and what lacks it" :note="course.tally ? `tally ${course.tally.number}` : ''">
      <RouterLink class="button" :to="`/datasets/${course.id}/prove`">Back to totals</RouterLink>
      <el-button v-if="course.mayWork" type="primary" :disabled="draft === null" @click="isChoosing = true">Choose references</el-button>
    </StationHead>
    <ErrorNote :error="saving.error.value" />
    <p v-if="id === 0" class="empty">
      Nothing can be proved before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="isPending" :error="error" what="The references" @retry="refetch()">
      <div v-if="check === undefined" class="empty">
        <p>
          No column of this tally had to have a record in another dataset: each licence a holder, each mooring a basin. Each side is looked at in its own world,
          and what the move lost is told apart from what was never there.
        </p>
        <p v-if="waiting.length > 0">
          <SaidText :said="figures('plan/draft/records/length', waiting.length, 'reference')" /> of the plan will be looked at with the next tally.
          <RouterLink :to="`/datasets/${course.id}/tally`">Tally again</RouterLink>.
        </p>
        <el-button v-else-if="course.mayWork" :disabled="draft === null" @click="isChoosing = true">Choose references</el-button>
      </div>
      <ProofPanes v-else :tally="id" list-label="References, where most was lost first" is-headed :label="sentenceOf(check.rule)">
        <template #list>
          <ProofEntry
            v-for="one in data?.items"
            :key="one.number"
            :name="one.name"
            :about="`in ${one.rule.in}`"
            :is-chosen="one === check"
            :is-agreed="!isWorse(one)"
            @choose="chosen = one.number"
          >
            <SaidText :said="lost(one)" />
          </ProofEntry>
          <p v-if="waiting.length > 0" class="quiet waiting">
            Looked at with the next tally: {{ waiting.map(sentenceOf).join('; ') }}. <RouterLink :to="`/datasets/${course.id}/tally`">Tally again</RouterLink>
          </p>
        </template>
        <h2>{{ check.name }} must have a record in {{ check.rule.in }}</h2>
        <p class="quiet">
          by {{ check.recordName }}, as delivered. Of {{ label('source') }} {{ readFrom('source') }} was read, of {{ label('target') }}
          {{ readFrom('target') }}.
        </p>
        <p v-if="check.before" class="quiet">
          In tally {{ check.before.tally }} <span :data-figure="before">{{ check.before.lost }}</span> were lost, and
          <span :data-figure="before">{{ check.before.own }}</span> only the new system had.
        </p>
        <div class="scroll">
          <table class="sides">
            <thead>
              <tr>
                <th scope="col" />
                <th scope="col">rows</th>
                <th scope="col">= no value</th>
                <th scope="col">+ with a record</th>
                <th scope="col">+ without one</th>
                <th scope="col">values without</th>
                <th scope="col">records</th>
                <th scope="col">nothing refers to</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="side in ['source', 'target'] as const" :key="side">
                <th scope="row" :class="side === 'source' ? 'src' : 'tgt'">{{ label(side) }}</th>
                <td v-if="check[side].problem" :colspan="FIGURES.length" class="problem">{{ check[side].problem }}</td>
                <template v-else>
                  <td v-for="what in FIGURES" :key="what" :class="{ strong: what === 'without' && check[side].without > 0 }">
                    <FigureValue :name="`${item}/${side}/${what}`" :of="check[side][what]" />
                  </td>
                </template>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="lists.length === 0">Every value has its record, and every record is needed.</p>
        <template v-else>
          <div class="kinds" role="group" aria-label="Which values are listed">
            <button v-for="one in lists" :key="one" type="button" :aria-pressed="list === one" :class="{ on: list === one }" @click="list = one">
              <b><FigureValue :name="lengthName(one)" :of="lengthOf(check, one)" /></b> {{ LISTS[one].words }}
            </button>
          </div>
          <p class="quiet">{{ LISTS[list].about }}</p>
          <RecordLines :key="`${check.number} ${list}`" :course="course" :check="check" :list="list" />
        </template>
      </ProofPanes>
    </LoadState>
    <RequiredRecordsDialog
      v-if="isChoosing && draft !== null"
      :draft="draft"
      :columns="columns"
      :course="course"
      :is-saving="saving.isPending.value"
      @update="setRecords"
      @close="isChoosing = false"
    />
  </main>
</template>

<style scoped>
.station {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
}
.empty {
  padding: 16px;
  max-inline-size: 76ch;
}
.scroll {
  overflow-x: auto;
}
.sides {
  border-collapse: collapse;
  font-size: 13px;
}
.sides th,
.sides td {
  text-align: end;
  padding: 6px 16px 6px 0;
  border-block-end: 1px solid var(--line-2);
  white-space: nowrap;
  font-weight: 400;
}
.sides thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
.sides tbody th {
  text-align: start;
  font-weight: 600;
}
.sides .strong {
  font-weight: 700;
}
.sides .problem {
  text-align: start;
  white-space: normal;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 16px 0 8px;
}
.kinds button {
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: var(--sheet);
  padding: 5px 10px;
  font-size: 13px;
  cursor: pointer;
}
.kinds .on {
  background: var(--night);
  border-color: var(--night);
  color: #fff;
}
</style>
