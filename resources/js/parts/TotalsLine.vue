<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { figure, figures } from '@/format/said'
import SaidText from '@/parts/SaidText.vue'

/** Whether the totals of a tally agree, and which of them differs most: it leads there. */
defineProps<{ tally: Pick<Schemas['Tally'], 'totals'>; dataset: number }>()
</script>

<template>
  <span v-if="tally.totals.all > 0"
    ><SaidText
      :said="
        tally.totals.differing === 0
          ? [...figures('tally/totals/all', tally.totals.all, 'total'), ' agree']
          : [
              figure('tally/totals/differing', tally.totals.differing),
              ' of ',
              ...figures('tally/totals/all', tally.totals.all, 'total'),
              tally.totals.all === 1 ? ' differs' : ' differ',
            ]
      "
    /><template v-if="tally.totals.most"
      >{{ tally.totals.all === 1 ? ': ' : ', most: ' }}
      <RouterLink :to="{ path: `/datasets/${dataset}/prove`, query: { total: tally.totals.most.number } }">{{ tally.totals.most.name }}</RouterLink></template
    ></span
  >
</template>
