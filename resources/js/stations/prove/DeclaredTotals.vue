<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FigureValue from '@/parts/FigureValue.vue'
import { amount, isApart, signed } from '@/format/amounts'

/** What the deliverers themselves say that a total comes to, beside what it comes to. */
defineProps<{ said: Schemas['Total']['declared']; name: string; labels: Schemas['Course']['migration'] }>()
</script>

<template>
  <section aria-label="What the deliverers say">
    <h3>What the deliverers say</h3>
    <p v-for="(one, place) in said" :key="place">
      {{ one.side === 'source' ? labels.sourceLabel : labels.targetLabel }}, by {{ one.from === 'by hand' ? 'the deliverer' : one.from }}:
      <FigureValue :name="`${name}/declared/${place}`" :of="amount(one.figure)" /><template v-if="one.apart === null"
        >, which is no figure of the whole delivery</template
      ><template v-else-if="isApart(one.apart)"
        >; the rows come to <b><FigureValue :name="`${name}/declared/${place}`" :of="signed(one.apart)" /></b> against it</template
      ><template v-else>, and the rows come to it</template>.
    </p>
  </section>
</template>

<style scoped>
h3 {
  margin: 12px 0 4px;
  font-size: 13px;
}
p {
  margin: 2px 0 8px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
