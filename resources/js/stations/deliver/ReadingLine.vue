<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import FigureValue from '@/parts/FigureValue.vue'
import LedgerFoot from '@/parts/LedgerFoot.vue'

/** The first ledger: records read = delivered + refused. */
const props = defineProps<{ source: Schemas['Delivery'] | null; target: Schemas['Delivery'] | null }>()
const sides = computed(() => [
  { id: 'source', name: 'Source', colour: 'src', delivery: props.source },
  { id: 'target', name: 'Target', colour: 'tgt', delivery: props.target },
])
</script>

<template>
  <LedgerFoot>
    <template v-for="{ id, name, colour, delivery } in sides" :key="id" #[id]>
      <template v-if="delivery">
        <b :class="colour">{{ name }} <FigureValue :name="`rows/${id}/read`" :of="delivery.read" /> records</b>
        <i>=</i>
        <b><FigureValue :name="`rows/${id}/delivered`" :of="delivery.delivered" /></b>
        <span>delivered</span>
        <i>+</i>
        <b><FigureValue :name="`rows/${id}/refused`" :of="delivery.refused" /></b>
        <span>refused</span>
      </template>
    </template>
  </LedgerFoot>
</template>
