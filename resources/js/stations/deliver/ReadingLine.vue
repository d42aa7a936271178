<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'

/** The first ledger at the foot: records read = delivered + refused. */
defineProps<{ source: Schemas['Delivery'] | null; target: Schemas['Delivery'] | null }>()
</script>

<template>
  <footer>
    <p
      v-for="[delivery, name, colour] in [
        [source, 'Source', 'src'],
        [target, 'Target', 'tgt'],
      ] as const"
      :key="name"
    >
      <template v-if="delivery">
        <b :class="colour">{{ name }} {{ count(delivery.read) }} records</b>
        <i>=</i>
        <b>{{ count(delivery.delivered) }}</b>
        <span>delivered</span>
        <i>+</i>
        <b>{{ count(delivery.refused) }}</b>
        <span>refused</span>
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
