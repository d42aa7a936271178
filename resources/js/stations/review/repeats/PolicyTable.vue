<script setup lang="ts">
import { computed } from 'vue'
import { amount, isApart } from '@/format/amounts'
import { count } from '@/format/counts'
import { COLUMNS, figuresOf, moved, type Candidate, type Tried } from '@/stations/review/repeats/policies'

/** One line for each policy: what it compares and leaves out, and by how much that differs from what the plan says now. */
const props = defineProps<{
  candidates: readonly Candidate[]
  tried: readonly Tried[]
  chosen: readonly string[]
  /** of the source, where what is left out is added up */
  stake: string | null
  handmade: number
  mayWork: boolean
  isBusy: boolean
}>()
const emit = defineEmits<{ choose: [id: string]; take: [candidate: Candidate] }>()
const rows = computed(() =>
  props.candidates.flatMap((candidate, place) => {
    const tried = props.tried[place]
    return tried === undefined ? [] : [{ candidate, tried, figures: figuresOf(tried), isNow: place === 0 }]
  }),
)
const now = computed(() => rows.value[0]?.figures)
const amounts = ({ leftOut }: Tried): string =>
  (['source', 'target'] as const).map((side) => (isApart(leftOut[side]) ? amount(leftOut[side]) : '0')).join(' and ')
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Policies that were tried">
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">beside</th>
          <th scope="col">what becomes of them</th>
          <th v-for="column in COLUMNS" :key="column.id" scope="col" class="number" :title="column.about">{{ column.name }}</th>
          <th v-if="stake !== null" scope="col" class="number">{{ stake }} left out, source and target</th>
          <th v-if="handmade > 0" scope="col" class="number">as chosen by hand</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ candidate, tried: one, figures, isNow } in rows" :key="candidate.id" :class="{ now: isNow }">
          <td>
            <el-checkbox
              :model-value="chosen.includes(candidate.id)"
              :aria-label="`Show ${candidate.name} beside another`"
              @change="emit('choose', candidate.id)"
            />
          </td>
          <th scope="row">{{ candidate.name }}<span v-if="isNow" class="quiet"> – the plan now</span></th>
          <td v-for="column in COLUMNS" :key="column.id" class="number">
            <span data-figure>{{ count(figures[column.id]) }}</span>
            <span v-if="!isNow && moved(figures[column.id], now?.[column.id]) !== ''" class="moved">{{ moved(figures[column.id], now?.[column.id]) }}</span>
          </td>
          <td v-if="stake !== null" class="number">{{ amounts(one) }}</td>
          <td v-if="handmade > 0" class="number">{{ count(one.asChosen) }} of {{ count(handmade) }}</td>
          <td class="act">
            <el-button v-if="!isNow && mayWork" size="small" :disabled="isBusy" @click="emit('take', candidate)">Take this one</el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  padding: 0 16px 8px;
}
table {
  font-size: 13px;
}
th[scope='row'] {
  min-inline-size: 150px;
  text-align: start;
  font-weight: 500;
  max-inline-size: 300px;
}
.number {
  text-align: end;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
thead .number {
  white-space: normal;
}
.moved {
  display: block;
  font-size: 12px;
  color: var(--ink-2);
}
.now {
  background: var(--sheet);
}
.act {
  white-space: nowrap;
}
</style>
