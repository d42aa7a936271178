<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import LedgerFoot from '@/parts/LedgerFoot.vue'

/** The first ledger: records read = delivered + refused. */
defineProps<{ source: Schemas['Delivery'] | null; target: Schemas['Delivery'] | null }>()
const sides = [
  { id: 'source', name: 'Source', colour: 'src' },
  { id: 'target', name: 'Target', colour: 'tgt' },
] as const
</script>

<template>
  <LedgerFoot>
    <template v-for="side in sides" :key="side.id" #[side.id]>
      <template v-if="side.id === 'source' ? source : target">
        <b :class="side.colour">{{ side.name }} {{ count((side.id === 'source' ? source : target)?.read ?? 0) }} records</b>
        <i>=</i>
        <b>{{ count((side.id === 'source' ? source : target)?.delivered ?? 0) }}</b>
        <span>delivered</span>
        <i>+</i>
        <b>{{ count((side.id === 'source' ? source : target)?.refused ?? 0) }}</b>
        <span>refused</span>
      </template>
    </template>
  </LedgerFoot>
</template>
