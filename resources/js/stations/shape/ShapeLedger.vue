<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'

/** The second ledger at the foot: delivered + made = left out + merged + shaped. */
defineProps<{ source: Schemas['ShapeTrial'] | undefined; target: Schemas['ShapeTrial'] | undefined }>()

type Figure = 'made' | 'leftOut' | 'merged'
const sum = (trial: Schemas['ShapeTrial'], figure: Figure): number => trial.steps.reduce((total, step) => total + (step.figures?.[figure] ?? 0), 0)
</script>

<template>
  <footer>
    <p
      v-for="[trial, name, colour] in [
        [source, 'Source', 'src'],
        [target, 'Target', 'tgt'],
      ] as const"
      :key="name"
    >
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
    </p>
  </footer>
</template>

<style scoped>
footer {
  background: var(--sheet);
  border-block-start: 1px solid var(--line);
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 20px;
  padding: 12px 14px;
  font-size: 13px;
  color: var(--ink-2);
}
p {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
b {
  font-weight: 650;
  color: var(--ink);
}
b.src {
  color: var(--src);
}
b.tgt {
  color: var(--tgt);
}
i {
  font: 13px var(--cell);
  color: var(--ink-3);
}
</style>
