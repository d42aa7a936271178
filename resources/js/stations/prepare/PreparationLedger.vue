<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import FigureValue from '@/parts/FigureValue.vue'
import LedgerFoot from '@/parts/LedgerFoot.vue'

/** The second ledger: delivered + made = left out + condensed + prepared. */
const props = defineProps<{ source: Schemas['PreparationTrial'] | undefined; target: Schemas['PreparationTrial'] | undefined }>()

type Figure = 'made' | 'leftOut' | 'condensed'
const sum = (trial: Schemas['PreparationTrial'], figure: Figure): number => trial.steps.reduce((total, step) => total + (step.figures?.[figure] ?? 0), 0)
const LEDGER: Record<Figure, string> = { made: 'made', leftOut: 'left_out', condensed: 'condensed' }
/** Of all rows the engine counts the same; of a sample the trial says it step by step. */
const nameOf = (side: string, trial: Schemas['PreparationTrial'], figure: Figure): string =>
  trial.isWhole ? `rows/${side}/${LEDGER[figure]}` : trial.steps.map((_, place) => `preparation/${side}/steps/${place}/figures/${figure}`).join(' + ') || 'none'
const sides = computed(() => [
  { id: 'source', name: 'Source', colour: 'src', trial: props.source },
  { id: 'target', name: 'Target', colour: 'tgt', trial: props.target },
])
</script>

<template>
  <LedgerFoot>
    <template v-for="{ id, name, colour, trial } in sides" :key="id" #[id]>
      <template v-if="trial">
        <b :class="colour"
          >{{ name }}
          <FigureValue :name="trial.isWhole ? `rows/${id}/delivered` : `preparation/${id}/sampleRows`" :of="trial.isWhole ? trial.rows : trial.sampleRows"
        /></b>
        <span v-if="trial.isWhole">delivered</span>
        <span v-else>of <FigureValue :name="`preparation/${id}/rows`" :of="trial.rows" /> delivered, tried</span>
        <template v-if="sum(trial, 'made') > 0"
          ><i>+</i><b><FigureValue :name="nameOf(id, trial, 'made')" :of="sum(trial, 'made')" /></b><span>made</span></template
        >
        <i>−</i><b><FigureValue :name="nameOf(id, trial, 'leftOut')" :of="sum(trial, 'leftOut')" /></b><span>left out</span>
        <template v-if="sum(trial, 'condensed') > 0"
          ><i>−</i><b><FigureValue :name="nameOf(id, trial, 'condensed')" :of="sum(trial, 'condensed')" /></b><span>condensed</span></template
        >
        <i>=</i><b><FigureValue :name="trial.isWhole ? `rows/${id}/prepared` : `preparation/${id}/readyRows`" :of="trial.readyRows" /></b><span>to match</span>
      </template>
    </template>
  </LedgerFoot>
</template>
