<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FigureValue from '@/parts/FigureValue.vue'

/** The agreement, what it is made of, and beside it how right the values are that arrived. */
withDefaults(
  defineProps<{
    values: Schemas['ValueFigures']
    ofArrived: string
    rowsArrived?: string
    within?: string
    arrived?: string
    /** whether each kind of value can be pressed, to be looked at */
    isPressed?: boolean
  }>(),
  {
    rowsArrived: undefined,
    within: 'values',
    arrived: 'right_of_arrived',
    isPressed: false,
  },
)
const emit = defineEmits<{ look: [at: 'differing' | 'lost' | 'added'] }>()
const KINDS = { differing: 'differ', lost: 'lost', added: 'added' } as const
</script>

<template>
  <p class="agreement">
    <slot />
    <b><FigureValue :name="`${within}/right`" :of="values.right" /> of <FigureValue :name="`${within}/values`" :of="values.values" /></b> values are right (<b
      ><FigureValue :name="`${within}/agreement`" :of="values.agreement" /></b
    >):
    <template v-for="(word, kind) in KINDS" :key="kind"
      ><button v-if="isPressed && values[kind] > 0" type="button" class="plain as-link" @click="emit('look', kind)">
        <FigureValue :name="`${within}/${kind}`" :of="values[kind]" /> {{ word }}</button
      ><span v-else><FigureValue :name="`${within}/${kind}`" :of="values[kind]" /> {{ word }}</span
      >{{ kind === 'added' ? '. ' : ', ' }}</template
    >
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
