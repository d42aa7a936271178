<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import LedgerFoot from '@/parts/LedgerFoot.vue'

/** The second ledger: delivered + made = left out + merged + shaped. */
const props = defineProps<{ source: Schemas['ShapeTrial'] | undefined; target: Schemas['ShapeTrial'] | undefined }>()

type Figure = 'made' | 'leftOut' | 'merged'
const sum = (trial: Schemas['ShapeTrial'], figure: Figure): number => trial.steps.reduce((total, step) => total + (step.figures?.[figure] ?? 0), 0)
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
        <template v-if="sum(trial, 'merged') > 0"
          ><i>−</i><b>{{ count(sum(trial, 'merged')) }}</b
          ><span>merged</span></template
        >
        <i>=</i><b>{{ count(trial.readyRows) }}</b
        ><span>to match</span>
      </template>
    </template>
  </LedgerFoot>
</template>
