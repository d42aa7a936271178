<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FigureValue from '@/parts/FigureValue.vue'

/** The agreement, what it is made of, and beside it how right the values are that arrived. */
withDefaults(defineProps<{ values: Schemas['ValueFigures']; ofArrived: string; rowsArrived?: string; within?: string; arrived?: string }>(), {
  rowsArrived: undefined,
  within: 'values',
  arrived: 'right_of_arrived',
})
</script>

<template>
  <p class="agreement">
    <b><FigureValue :name="`${within}/agreement`" :of="values.agreement" /></b> of all values are right:
    <FigureValue :name="`${within}/right`" :of="values.right" /> of <FigureValue :name="`${within}/values`" :of="values.values" />;
    <FigureValue :name="`${within}/differing`" :of="values.differing" /> differ, <FigureValue :name="`${within}/lost`" :of="values.lost" /> lost,
    <FigureValue :name="`${within}/added`" :of="values.added" /> added.
    <span class="quiet"
      >Of the values that arrived <FigureValue :name="arrived" :of="ofArrived" /><template v-if="rowsArrived !== undefined"
        >; of the rows <FigureValue name="rows_arrived" :of="rowsArrived" /> arrived</template
      >.</span
    >
  </p>
</template>

<style scoped>
.agreement {
  margin: 0;
  font-size: 13px;
}
b {
  font-weight: 650;
}
</style>
