<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { formCauses } from '@/format/rules'
import ErrorNote from '@/parts/ErrorNote.vue'

const MOST_COLUMNS = 12
type Proposal = Schemas['LookUpProposal']

/** Where the rows that come to a step probably find records, how many do, and what of form keeps the others apart: taken in one press. */
const props = defineProps<{ dataset: number; asked: Schemas['TriedSteps']; step: Schemas['Step']; columns: readonly string[] }>()
const emit = defineEmits<{ change: [part: Partial<Schemas['Step']>] }>()

const { data, error, isPending } = useQuery({
  queryKey: ['dataset', () => props.dataset, 'look-ups', () => JSON.stringify({ ...props.asked, preparation: stepsBefore() })],
  queryFn: ({ signal }) =>
    answer(api.POST('/datasets/{dataset}/look-up-proposals', { params: { path: { dataset: props.dataset } }, body: props.asked, signal })),
  retry: false,
})
/** What the step itself is told changes nothing of what comes to it. */
function stepsBefore(): readonly Schemas['Step'][] {
  const place = props.asked.preparation.findIndex(({ id }) => id === props.step.id)
  return place < 0 ? props.asked.preparation : props.asked.preparation.slice(0, place)
}

const isTaken = ({ reference, on }: Proposal): boolean => props.step.reference === reference && JSON.stringify(props.step.on) === JSON.stringify(on)
const by = ({ on }: Proposal): string => on.map(({ column, reference }) => (column === reference ? column : `${column} = ${reference}`)).join(', ')
/** Of a record first what it is called, under a name that is free here. */
function take({ reference, on, columns }: Proposal): void {
  const column = columns.find((name) => /name|title|label|text|descr/i.test(name)) ?? columns[0] ?? on[0]?.reference ?? ''
  emit('change', { reference, on, take: [taking(reference, column)] })
}
const taking = (reference: string, column: string) => ({ reference: column, into: props.columns.includes(column) ? `${reference} ${column}` : column })
const left = ({ columns }: Proposal): string[] => columns.filter((name) => !props.step.take?.some(({ reference }) => reference === name)).slice(0, MOST_COLUMNS)
const takeAlso = ({ reference }: Proposal, column: string): void => emit('change', { take: [...(props.step.take ?? []), taking(reference, column)] })
const nameOf = (cause: string): string => formCauses.find((known) => known.cause === cause)?.name ?? cause
/** What is forgiven already brings in nothing more. */
const rungsOf = ({ rungs }: Proposal) => rungs.filter(({ causes }) => causes.some((cause) => props.step.forgives?.includes(cause) !== true))
const forgive = (causes: readonly Schemas['FormCause'][]): void => emit('change', { forgives: [...new Set([...(props.step.forgives ?? []), ...causes])] })
const several = (rows: number): string => (rows > 0 ? `; ${counted(rows, 'row')} would find several` : '')
const items = computed(() => data.value?.items ?? [])
</script>

<template>
  <section class="proposals" aria-label="Where records are probably found">
    <p v-if="isPending" class="quiet" role="status">Holding the rows against the other datasets …</p>
    <ErrorNote :error="error" />
    <p v-if="data && items.length === 0" class="quiet">In no other dataset of this migration do most of these rows find a record by one or two columns.</p>
    <div v-for="proposal in items" :key="proposal.reference" class="proposal" :class="{ taken: isTaken(proposal) }">
      <span>
        <b>{{ count(proposal.found) }} of {{ counted(proposal.rows, 'row') }}</b> find a record of <b>{{ proposal.reference }}</b> by {{ by(proposal)
        }}<template v-if="proposal.several > 0">, {{ count(proposal.several) }} of them several</template>
      </span>
      <el-button v-if="!isTaken(proposal)" size="small" @click="take(proposal)">Look up there</el-button>
      <template v-else>
        <div v-for="rung in rungsOf(proposal)" :key="rung.causes.join()" class="rung">
          <span
            >{{ rung.causes.map(nameOf).join(', ') }}: {{ count(rung.brings) }} more, {{ count(rung.left) }} left<span class="quiet">{{
              several(rung.several)
            }}</span></span
          >
          <el-button size="small" @click="forgive(rung.causes)">Forgive</el-button>
        </div>
        <span v-if="left(proposal).length > 0"
          >Take also
          <el-button v-for="column in left(proposal)" :key="column" link size="small" :aria-label="`Take also ${column}`" @click="takeAlso(proposal, column)">{{
            column
          }}</el-button></span
        >
      </template>
    </div>
  </section>
</template>

<style scoped>
.proposals {
  display: grid;
  gap: 6px;
  font-size: 13px;
}
p {
  margin: 0;
}
.proposal {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: space-between;
  background: var(--mark);
  padding: 4px 8px;
  overflow-wrap: anywhere;
}
.taken {
  background: var(--floor);
}
.rung {
  inline-size: 100%;
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
}
</style>
