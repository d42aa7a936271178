<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import LedgerFoot from '@/parts/LedgerFoot.vue'

/** The second ledger: delivered + made = left out + condensed + prepared. */
const props = defineProps<{ source: Schemas['PreparationTrial'] | undefined; target: Schemas['PreparationTrial'] | undefined }>()

type Figure = 'made' | 'leftOut' | 'condensed'
const sum = (trial: Schemas['PreparationTrial'], figure: Figure): number => trial.steps.reduce((total, step) => total + (step.figures?.[figure] ?? 0), 0)
const sides = computed(() => [
  { id: 'source', name: 'Source', colour: 'src', trial: props.source },
  { id: 'target', name: 'Target', colour: 'tgt', trial: props.target },
])
</script>

<template>
  <LedgerFoot>
    <template v-for="{ id, name, colour, trial } in sides" :key="id" #[id]>
      <template v-if="trial">
        <b :class="colour">{{ name }} {{ count(trial.isWhole ? trial.rows : trial.sampleRows) }}</b>
        <span>{{ trial.isWhole ? 'delivered' : `of ${count(trial.rows)} delivered, tried` }}</span>
        <template v-if="sum(trial, 'made') > 0"
          ><i>+</i><b>{{ count(sum(trial, 'made')) }}</b
          ><span>made</span></template
        >
        <i>−</i><b>{{ count(sum(trial, 'leftOut')) }}</b
        ><span>left out</span>
        <template v-if="sum(trial, 'condensed') > 0"
          ><i>−</i><b>{{ count(sum(trial, 'condensed')) }}</b
          ><span>condensed</span></template
        >
        <i>=</i><b>{{ count(trial.readyRows) }}</b
        ><span>to match</span>
      </template>
    </template>
  </LedgerFoot>
</template>
