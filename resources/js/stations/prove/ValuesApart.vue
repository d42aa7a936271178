<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { figures } from '@/format/said'
import SaidText from '@/parts/SaidText.vue'

/** Distinct values that one side has alone: some of them, and how many there are. */
defineProps<{ only: NonNullable<Schemas['Total']['only']>; name: string; where: string; course: Schemas['Course'] }>()
const sides = ['source', 'target'] as const
</script>

<template>
  <section aria-label="Values that one side has alone">
    <h2>{{ only.source.count + only.target.count === 0 ? 'Both sides have the same values' : 'Values that one side has alone' }}</h2>
    <p class="quiet">{{ where }}</p>
    <template v-for="side in sides" :key="side">
      <h3 v-if="only[side].count > 0" :class="side === 'source' ? 'src' : 'tgt'">
        <SaidText :said="figures(name, only[side].count, 'value')" /> in
        {{ side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel }}
      </h3>
      <ul>
        <li v-for="value in only[side].values" :key="value" class="cell">{{ value }}</li>
      </ul>
      <p v-if="only[side].count > only[side].values.length" class="quiet">and others</p>
    </template>
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
  font-size: 13px;
}
h3 {
  font-size: 13px;
  margin: 10px 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 3px 0;
  border-block-end: 1px solid var(--line-2);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
